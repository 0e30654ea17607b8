<script lang="ts">
  import { describeComponent, pageTitle, walkContent } from '@pallmist/app/editing';
  import { Choosing } from '../controls/choosing.svelte.ts';
  import FindBox from '../controls/FindBox.svelte';
  import Modal from '../controls/Modal.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { sectionsFor } from './sections.ts';

  interface Props {
    draft: Draft;
    onclose: () => void;
    onkeys: () => void;
  }
  const { draft, onclose, onkeys }: Props = $props();

  interface Found {
    kind: string;
    words: string;
    run: () => void;
  }
  const mostShown = 40;
  let wanted = $state('');

  const all = $derived.by((): Found[] => {
    const { app, definition } = draft;
    const found: Found[] = [
      ...sectionsFor(me.isOwner).map(({ page, label, sentence }) => ({
        kind: 'screen',
        words: `${label}: ${sentence}`,
        run: () => place.open(page, { app }),
      })),
      { kind: 'screen', words: 'Publish: what changed, and editions', run: () => place.open('publish', { app }) },
      { kind: 'screen', words: 'Problems', run: () => place.open('problems', { app }) },
      { kind: 'command', words: 'Undo', run: () => draft.undo() },
      { kind: 'command', words: 'Redo', run: () => draft.redo() },
      { kind: 'command', words: 'List of keys', run: onkeys },
    ];
    for (const [name, page] of Object.entries(definition?.pages ?? {})) {
      const title = pageTitle(page.title, name);
      found.push({ kind: 'page', words: `${title} ${page.address}`, run: () => place.open('pages', { app, page: name }) });
      for (const parameter of Object.keys(page.parameters ?? {}))
        found.push({
          kind: 'parameter',
          words: `${parameter} of ${title}`,
          run: () => place.open('pages', { app, page: name, parameter }),
        });
      for (const { component, path } of walkContent(page.content ?? []))
        found.push({
          kind: 'component',
          words: `${describeComponent(component)} on ${title}`,
          run: () => place.open('pages', { app, page: name, part: path.join('/') }),
        });
    }
    for (const name of Object.keys(definition?.collections ?? {}))
      found.push({ kind: 'collection', words: name, run: () => place.open('data', { app, collection: name }) });
    return found;
  });
  const fits = $derived.by(() => {
    const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
    const found = all.filter(({ kind, words: text }) => words.every((word) => `${kind} ${text}`.toLowerCase().includes(word)));
    // What begins with what is typed comes first.
    const [first = ''] = words;
    const begins = ({ kind, words: text }: Found) => text.toLowerCase().startsWith(first) || kind === first;
    return [...found.filter(begins), ...found.filter((one) => !begins(one))].slice(0, mostShown);
  });

  function run(found: Found) {
    onclose();
    found.run();
  }
  const choosing = new Choosing(() => fits, run);
</script>

<Modal title="Find" {onclose}>
  <FindBox
    label="Find a page, a parameter, a component or a command"
    placeholder="Page, parameter, component, command"
    list="found"
    {choosing}
    bind:text={wanted}
  />
  <ul id="found" role="listbox" aria-label="What was found">
    {#each fits as found, index (index)}
      <!-- svelte-ignore a11y_click_events_have_key_events -- the box above has the focus and handles the keys -->
      <li id="found-{index}" role="option" aria-selected={index === choosing.index} onclick={() => run(found)}>
        <span>{found.kind}</span>
        {found.words}
      </li>
    {/each}
  </ul>
  {#if fits.length === 0}<p role="status">Nothing fits.</p>{/if}
</Modal>

<style>
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    padding: 0.25rem 0.5rem;
    cursor: pointer;
    border-radius: var(--round);
    overflow-wrap: anywhere;
  }
  li[aria-selected='true'] {
    background: var(--leaf-soft);
  }
  span {
    display: inline-block;
    width: 6.5rem;
    color: var(--quiet);
    font-size: 0.8125rem;
  }
</style>
