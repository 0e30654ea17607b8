<script lang="ts">
  import { addPage, pageTitle, type PageDefinition } from '@pallmist/app/editing';
  import { toPointer } from '@pallmist/app/address';
  import AddForm from '../controls/AddForm.svelte';
  import Button from '../controls/Button.svelte';
  import { handleListKeys } from '../controls/list-keys.ts';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import RemovePage from './RemovePage.svelte';

  const { draft, current }: { draft: Draft; current: string | undefined } = $props();
  let adding = $state(false);
  let removed: string | undefined = $state();

  const groups = $derived.by(() => {
    const found: { group: string; pages: [string, PageDefinition][] }[] = [];
    for (const entry of Object.entries(draft.definition?.pages ?? {})) {
      const group = entry[1].group ?? '';
      const present = found.find((one) => one.group === group);
      if (present) present.pages.push(entry);
      else found.push({ group, pages: [entry] });
    }
    return found;
  });

  function add(title: string) {
    if (draft.definition === undefined) return false;
    const { patch, name } = addPage(draft.definition, title, draft.definition.pages[current ?? '']?.group);
    const taken = draft.edit(patch, `Added the page “${title}”`);
    if (taken) {
      adding = false;
      place.change({ page: name });
    }
    return taken;
  }

  function move(name: string, step: -1 | 1) {
    const names = Object.keys(draft.definition?.pages ?? {});
    const to = names.indexOf(name) + step;
    if (to < 0 || to >= names.length) return;
    const path = toPointer(['pages', name]);
    const before = names[step === 1 ? to + 1 : to];
    draft.edit([{ op: 'move', from: path, path, ...(before === undefined ? {} : { before }) }], `Moved the page “${name}”`);
  }

  const problemsOf = (name: string) => draft.problemsAt(toPointer(['pages', name]));
</script>

<nav aria-label="Pages">
  <div class="head">
    <h2>Pages</h2>
    {#if me.mayChange}<Button small look="quiet" aria-expanded={adding} onclick={() => (adding = !adding)}>Add a page</Button>{/if}
  </div>
  {#if adding}
    <div class="add"><AddForm label="Title of the new page" placeholder="Title of the page" button="Add" focus onadd={add} /></div>
  {/if}
  <div data-list>
    {#each groups as { group, pages } (group)}
      {#if group !== ''}<h3>{group}</h3>{/if}
      <ul>
        {#each pages as [name, page] (name)}
          {@const problems = problemsOf(name)}
          <li>
            <a
              data-list-item
              href={place.href('pages', { app: draft.app, page: name })}
              aria-current={name === current ? 'page' : undefined}
              onclick={(event) => place.follow(event)}
              onkeydown={(event) =>
                handleListKeys(event, me.mayChange ? { move: (step) => move(name, step), remove: () => (removed = name) } : {})}
            >
              <span class="title">{pageTitle(page.title ?? '', name)}</span>
              <code>{name}</code>
              {#if page.admit !== undefined && page.admit !== 'everyone'}<span class="gate"
                  >{typeof page.admit === 'string' ? page.admit : 'gate'}</span
                >{/if}
              {#if problems.some(({ severity }) => severity === 'error')}<span class="error">error</span>
              {:else if problems.length > 0}<span class="warning">{problems.length}</span>{/if}
            </a>
          </li>
        {/each}
      </ul>
    {/each}
  </div>
</nav>
{#if removed !== undefined}<RemovePage {draft} page={removed} onclose={() => (removed = undefined)} />{/if}

<style>
  nav {
    padding: 0.5rem 0 0.6rem;
    overflow: auto;
    max-height: 42vh;
  }
  .head {
    display: flex;
    align-items: center;
    justify-content: space-between;
    padding: 0 0.6rem 0.3rem;
  }
  h2 {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
  }
  h3 {
    font: 600 0.8125rem var(--plain);
    padding: 0.35rem 0.6rem 0.1rem;
  }
  .add {
    padding: 0 0.6rem 0.4rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  a {
    display: flex;
    align-items: baseline;
    gap: 0.4rem;
    padding: 0.18rem 0.6rem;
    min-height: 24px;
    color: inherit;
    text-decoration: none;
    border-inline-start: 3px solid transparent;
    font-size: 0.875rem;
  }
  a:hover {
    background: var(--sunk);
  }
  a[aria-current] {
    background: var(--leaf-soft);
    border-color: var(--leaf);
  }
  .title {
    flex: none;
    max-width: 75%;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  code {
    color: var(--quiet);
    font-size: 0.6875rem;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .gate,
  .error,
  .warning {
    flex: none;
    margin-inline-start: auto;
    font-size: 0.6875rem;
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 0 0.3rem;
    color: var(--quiet);
  }
  .gate + .error,
  .gate + .warning {
    margin-inline-start: 0;
  }
  .error {
    color: var(--bad);
    border-color: var(--bad);
  }
  .warning {
    color: var(--warn);
    border-color: var(--warn);
  }
</style>
