<script lang="ts">
  import { appFileText, copyOfApp, emptyApp, nameNewApp, type NewApp } from '@pallmist/app/new-app';
  import type { AppDefinition } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import { client, explain } from '../service/calls.ts';
  import { place } from '../service/place.svelte.ts';
  import { copyRecords } from './copy-records.ts';
  import FromFile from './FromFile.svelte';
  import Failure from '../controls/Failure.svelte';

  type Door = 'file' | 'nothing' | 'copy';
  const doors: { door: Door; title: string; sentence: string }[] = [
    {
      door: 'file',
      title: 'From a file of data',
      sentence: 'A CSV or JSON file becomes a searchable list, a page for each record, and forms.',
    },
    { door: 'nothing', title: 'From nothing', sentence: 'One empty page to start with.' },
    { door: 'copy', title: 'A copy of an app', sentence: 'The pages and records of an existing app, such as the demo.' },
  ];
  const door = $derived(place.text('from') as Door | undefined);
  let title = $state('');
  let copied: string | undefined = $state();
  let failure: string | undefined = $state();
  let working = $state(false);
  let said: string | undefined = $state();
  let copyDefinition: AppDefinition = { pallmist: 1, app: '', title: '', mount: '/', pages: {} };
  const asked = client.call('listApps', {});

  async function make(source: (app: NewApp) => Promise<AppDefinition> | AppDefinition) {
    working = true;
    failure = undefined;
    try {
      const { apps } = await asked;
      const app = nameNewApp(title, apps);
      const text = appFileText(await source(app));
      await client.call('pushDraft', { app: app.app }, { source: text, revision: 0, what: 'Made the app' });
      if (door === 'copy' && copied !== undefined) {
        const left = await copyRecords(
          copied,
          app.app,
          copyDefinition,
          (collection) => (said = `Copying the records of “${collection}” …`),
        );
        if (left.length > 0) {
          failure = `The app is made. The records of ${left.join(', ')} could not be copied; import them under Data.`;
          return;
        }
      }
      place.open('pages', { app: app.app });
    } catch (error) {
      failure = explain(error);
    } finally {
      working = false;
      said = undefined;
    }
  }

  async function copy(app: NewApp): Promise<AppDefinition> {
    const { data } = await client.call('getDraft', { app: copied ?? '' });
    copyDefinition = data as AppDefinition;
    return copyOfApp(copyDefinition, app);
  }
</script>

<h1>New app</h1>
<div class="doors" role="group" aria-label="What to start from">
  {#each doors as { door: name, title: words, sentence } (name)}
    <a href={place.href('new', { from: name })} aria-current={door === name ? 'true' : undefined} onclick={(event) => place.follow(event)}>
      <strong>{words}</strong>
      <span>{sentence}</span>
    </a>
  {/each}
</div>

{#if door === 'file'}
  {#await asked then { apps }}<FromFile {apps} />{/await}
{:else if door !== undefined}
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void make(door === 'copy' ? copy : emptyApp);
    }}
  >
    <TextBox
      label="Title of the app"
      value={title}
      required
      focus
      help="Visitors read it. You can change it at any time."
      placeholder="Garden tools"
      onset={(value) => (title = value)}
    />
    {#if door === 'copy'}
      {#await asked then { apps }}
        <label
          >Copy
          <select aria-label="Copy" bind:value={copied} required>
            {#each apps as app (app.app)}<option value={app.app}>{app.title}</option>{/each}
          </select></label
        >
        {#if apps.length === 0}<p>There is no app to copy yet.</p>{/if}
      {/await}
    {/if}
    <p role="status">{said ?? ''}</p>
    <Failure text={failure} />
    <div><Button type="submit" look="main" disabled={working || title.trim() === ''}>Make the app</Button></div>
  </form>
{/if}

<style>
  h1 {
    font: 600 1.5rem var(--text);
    margin-block-end: 1rem;
  }
  .doors {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
    gap: 0.8rem;
    margin-block-end: 1.2rem;
  }
  .doors a {
    display: grid;
    gap: 0.2rem;
    align-content: start;
    text-align: start;
    border: 1px solid var(--line);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.9rem 1.1rem;
    color: var(--ink);
    text-decoration: none;
  }
  .doors a[aria-current] {
    border-color: var(--leaf);
    background: var(--leaf-soft);
  }
  .doors strong {
    font: 600 1.05rem var(--text);
  }
  form {
    display: grid;
    gap: 0.8rem;
    max-width: 28rem;
  }
  label {
    display: grid;
    gap: 0.2rem;
    font-weight: 600;
    font-size: 0.875rem;
  }
  select {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.3rem;
  }
</style>
