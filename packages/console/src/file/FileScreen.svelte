<script lang="ts">
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client, download, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import type { FileEditor } from './file-editor.ts';

  const { draft }: { draft: Draft } = $props();
  let holder: HTMLDivElement | undefined = $state();
  let editor: FileEditor | undefined;
  let changed = $state(false);
  let said: string | undefined = $state();
  let loading = $state(true);
  /** Saves of other screens that the text has not followed yet. */
  let shown = -1;

  async function text(): Promise<string> {
    await draft.flush();
    return (await client.call('getDraft', { app: draft.app })).source;
  }

  $effect(() => {
    if (!holder) return;
    const into = holder;
    void Promise.all([import('./file-editor.ts'), text()]).then(
      ([{ FileEditor: Editor }, source]) => {
        editor = new Editor(into, source, {
          readOnly: !me.mayChange,
          changed: () => (changed = true),
          save: () => void save(),
        });
        loading = false;
        const line = place.number('line');
        if (line !== undefined) editor.goTo(line);
      },
      (error: unknown) => (said = explain(error)),
    );
    return () => editor?.close();
  });
  // What is changed elsewhere is in the text at once, unless something is typed here that is not saved.
  $effect(() => {
    const { saves } = draft;
    if (shown >= 0 && saves !== shown && !changed)
      void text().then(
        (source) => editor?.show(source),
        () => undefined,
      );
    shown = saves;
  });

  async function save() {
    if (!editor || !changed) return;
    said = 'Saving …';
    const problem = await draft.replaceText(editor.text, 'Changed the app file');
    said = problem ?? 'Saved.';
    if (problem === undefined) changed = false;
  }
  async function discard() {
    editor?.show(await text());
    changed = false;
    said = undefined;
  }
</script>

<main>
  <div class="head">
    <h1>App file</h1>
    {#if me.mayChange}
      <Button small look="main" disabled={!changed} onclick={save}>Save <kbd>Ctrl S</kbd></Button>
      <Button small disabled={!changed} onclick={discard}>Discard what is typed</Button>
    {/if}
    <Button small onclick={async () => download('app.yaml', await text(), 'text/yaml')}>Download</Button>
    <span role="status">{said ?? (changed ? 'not saved' : '')}</span>
  </div>
  {#if draft.brokenText !== undefined}<p class="bad" role="alert">
      The file is not well-formed. Correct it here; the other screens open again then.
    </p>{/if}
  {#if loading}<p>Opening the editor …</p>{/if}
  <div class="editor" bind:this={holder} data-own-undo></div>
</main>

<style>
  main {
    display: grid;
    grid-template-rows: auto auto auto minmax(0, 1fr);
    height: 100%;
    padding: 0.6rem 0.9rem;
    gap: 0.4rem;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
  }
  h1 {
    font: 600 1.2rem var(--text);
    margin-inline-end: auto;
  }
  .editor {
    grid-row: 4;
    min-height: 20rem;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    overflow: hidden;
    background: var(--sheet);
  }
  kbd {
    font: 0.75rem var(--code);
  }
  p {
    margin: 0;
  }
  .bad {
    color: var(--bad);
  }
</style>
