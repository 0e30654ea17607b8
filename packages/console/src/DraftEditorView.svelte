<script lang="ts">
  import LivePreview from './LivePreview.svelte';
  import PageList from './PageList.svelte';
  import ParameterList from './ParameterList.svelte';
  import { place } from './place.svelte.ts';
  import ProblemList from './ProblemList.svelte';
  import { DraftEditor } from './draft-editor.svelte.ts';

  const { app }: { app: string } = $props();
  // svelte-ignore state_referenced_locally -- another app gets a new view
  const editor = new DraftEditor(app);
  void editor.load();

  const definition = $derived(editor.checked.definition);
  const compiled = $derived(editor.checked.compiled);
  const page = $derived(place.text('page') ?? Object.keys(definition?.pages ?? {})[0]);
  const beyondPages = $derived(editor.problemsOf(undefined));
  const errors = $derived(editor.checked.problems.filter(({ severity }) => severity === 'error').length);

  $effect(() => {
    document.title = `${definition?.title ?? app} · Pallmist`;
  });

  function keyed(event: KeyboardEvent) {
    if ((event.ctrlKey || event.metaKey) && event.key === 's') {
      event.preventDefault();
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
      void editor.save();
    }
  }

  function leaving(event: BeforeUnloadEvent) {
    if (editor.dirty) event.preventDefault();
  }
</script>

<svelte:window onkeydown={keyed} onbeforeunload={leaving} />

<header>
  <a href={place.href('apps')} onclick={(event) => place.follow(event)}>Apps</a>
  <h1>{definition?.title ?? app}</h1>
  <span class="state" role="status">
    {#if editor.working}{editor.working} …
    {:else if editor.message}<span class={editor.message.tone}>{editor.message.text}</span>
    {:else if editor.dirty}not saved{/if}
  </span>
  {#if editor.stale}<button class="plain" onclick={() => editor.load()}>Take the other draft</button>{/if}
  {#if editor.loaded}
    {#if editor.dirty}<button class="plain" onclick={() => editor.revert()}>Undo all</button>{/if}
    <button class="plain" disabled={!editor.dirty || editor.working !== undefined} onclick={() => editor.save()}>Save draft</button>
    <button disabled={editor.working !== undefined || !editor.loaded} onclick={() => editor.publish()}>
      {errors > 0 ? `Publish (${errors} ${errors === 1 ? 'error' : 'errors'})` : 'Publish'}
    </button>
  {/if}
</header>

{#if !editor.loaded}
  <main class="alone"><p>{editor.message?.text ?? 'Fetching the draft …'}</p></main>
{:else}
  <div class="benches">
    <aside>
      <PageList {editor} current={page} />
      {#if beyondPages.length > 0}<ProblemList problems={beyondPages} onfix={(patch) => editor.edit(patch)} />{/if}
    </aside>
    {#if definition && compiled && page !== undefined && definition.pages[page]}
      <div class="parameters"><ParameterList {editor} {definition} {page} /></div>
      <main><LivePreview {editor} {definition} {compiled} {page} /></main>
    {:else}
      <main>
        <p>
          {definition
            ? `The app has no page “${page ?? ''}”.`
            : 'The file is not well-formed; fix it with the command pallmist and push it again.'}
        </p>
      </main>
    {/if}
  </div>
{/if}

<style>
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 1rem;
    padding: 0.45rem 1rem;
    background: var(--sheet);
    border-block-end: 1px solid var(--line);
  }
  h1 {
    font: 600 1.15rem var(--text);
    margin: 0;
  }
  .state {
    margin-inline-start: auto;
    font-size: 0.9rem;
    color: var(--quiet);
  }
  .good {
    color: var(--good);
  }
  .bad {
    color: var(--bad);
  }
  button {
    background: var(--leaf);
    color: var(--on-leaf);
    border: 1px solid var(--leaf);
    border-radius: var(--round);
    padding: 0.3rem 1rem;
    cursor: pointer;
  }
  .plain {
    background: none;
    color: var(--leaf);
  }
  button:disabled {
    cursor: default;
    background: none;
    border-color: var(--line);
    color: var(--quiet);
  }
  .benches {
    display: grid;
    grid-template-columns: 14rem 20rem minmax(0, 1fr);
    height: calc(100vh - 3.2rem);
  }
  aside,
  .parameters,
  main {
    overflow: auto;
    padding: 0.7rem;
    min-height: 0;
  }
  aside {
    padding-inline: 0.3rem;
    border-inline-end: 1px solid var(--line);
  }
  .parameters {
    background: var(--sheet);
    border-inline-end: 1px solid var(--line);
  }
  .alone {
    max-width: 40rem;
    margin-inline: auto;
  }
  @media (max-width: 60rem) {
    .benches {
      grid-template-columns: minmax(0, 1fr);
      height: auto;
    }
    main {
      min-height: 40rem;
    }
  }
</style>
