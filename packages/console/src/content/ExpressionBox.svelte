<script lang="ts">
  import type { Problem } from '@pallmist/app/address';
  import { Choosing } from '../controls/choosing.svelte.ts';
  import Labelled from '../controls/Labelled.svelte';

  interface Name {
    expression: string;
    label: string;
    type: string;
  }
  interface Props {
    label: string;
    value: string;
    /** What the expression may name here. */
    names: readonly Name[];
    help?: string | undefined;
    problems?: readonly Problem[];
    disabled?: boolean;
    onset: (value: string) => void;
  }
  const { label, value, names, help, problems = [], disabled = false, onset }: Props = $props();
  const mostShown = 8;
  /** What is typed and not taken yet. */
  let typed: string | undefined = $state();
  let caret = $state(0);
  let open = $state(false);
  let box: HTMLTextAreaElement | undefined = $state();
  const uid = $props.id();
  const text = $derived(typed ?? value);
  const begun = $derived(/[A-Za-z_][\w.]*$/.exec(text.slice(0, caret))?.[0] ?? '');
  const found = $derived(
    open && begun !== ''
      ? names.filter(({ expression }) => expression !== begun && expression.toLowerCase().includes(begun.toLowerCase())).slice(0, mostShown)
      : [],
  );

  function take(name: Name) {
    const before = text.slice(0, caret - begun.length) + name.expression;
    typed = before + text.slice(caret);
    open = false;
    caret = before.length;
    requestAnimationFrame(() => {
      box?.focus();
      box?.setSelectionRange(before.length, before.length);
    });
  }
  function done() {
    if (typed !== undefined && typed.trim() !== value) onset(typed.trim());
    typed = undefined;
    open = false;
  }
  const choosing = new Choosing(() => found, take);
  function keyed(event: KeyboardEvent) {
    if (choosing.keyed(event)) return;
    const name = found[choosing.index];
    if (event.key === 'Tab' && name) {
      event.preventDefault();
      take(name);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      done();
    } else if (event.key === 'Escape' && (open || typed !== undefined)) {
      event.stopPropagation();
      if (found.length === 0) typed = undefined;
      open = false;
    }
  }
</script>

<Labelled {label} {help} {problems}>
  {#snippet children({ id, describedby, invalid })}
    <textarea
      {id}
      bind:this={box}
      rows="2"
      spellcheck="false"
      {disabled}
      value={text}
      placeholder="has(param.q)"
      role="combobox"
      aria-expanded={found.length > 0}
      aria-controls="{uid}-names"
      aria-activedescendant={found.length > 0 ? `${uid}-${choosing.index}` : undefined}
      aria-describedby={describedby}
      aria-invalid={invalid}
      oninput={({ currentTarget }) => {
        typed = currentTarget.value;
        caret = currentTarget.selectionStart;
        choosing.index = 0;
        open = true;
      }}
      onblur={done}
      onkeydown={keyed}></textarea>
    <ul id="{uid}-names" role="listbox" aria-label="What the expression may name" hidden={found.length === 0}>
      {#each found as name, index (name.expression)}
        <!-- svelte-ignore a11y_click_events_have_key_events -- the box above has the focus and handles the keys -->
        <li
          id="{uid}-{index}"
          role="option"
          aria-selected={index === choosing.index}
          onmousedown={(event) => {
            event.preventDefault();
            take(name);
          }}
        >
          <code>{name.expression}</code> <span>{name.label}, {name.type}</span>
        </li>
      {/each}
    </ul>
  {/snippet}
</Labelled>

<style>
  textarea {
    width: 100%;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.25rem 0.45rem;
    font: 0.875rem/1.5 var(--code);
    resize: vertical;
  }
  [aria-invalid='true'] {
    border-color: var(--bad);
    box-shadow: 0 0 0 1px var(--bad);
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0.2rem;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--paper);
    font-size: 0.8125rem;
  }
  li {
    padding: 0.1rem 0.3rem;
    border-radius: var(--round);
    cursor: pointer;
    overflow-wrap: anywhere;
  }
  [aria-selected='true'] {
    background: var(--leaf-soft);
  }
  span {
    color: var(--quiet);
  }
</style>
