<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import HiddenFields from './HiddenFields.svelte';
  import SubmitButton from './SubmitButton.svelte';

  const { node, live }: { node: NodeOf<'search'>; live: LivePage } = $props();

  /** Milliseconds of silence after which typing is taken for done. */
  const pause = 200;
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** What is typed without leaving the box is one step of the history. */
  let coalesceKey = {};
  let box: HTMLInputElement;

  // Back and Forward change the value from outside; while one types, the box is the truth.
  $effect(() => {
    if (timer === undefined && box.value !== node.value) box.value = node.value;
  });

  function take() {
    clearTimeout(timer);
    timer = undefined;
    live.change({ [node.name]: box.value === '' ? undefined : box.value }, coalesceKey);
  }

  function typed() {
    clearTimeout(timer);
    timer = setTimeout(take, pause);
  }

  function submitted(event: SubmitEvent) {
    if (!live.hydrated) return;
    event.preventDefault();
    take();
    coalesceKey = {};
  }

  function left() {
    if (timer !== undefined) take();
    coalesceKey = {};
  }
</script>

<form method="get" action={node.form.action} role="search" onsubmit={submitted}>
  <HiddenFields form={node.form} />
  <label>
    <span>{node.label}</span>
    <input
      bind:this={box}
      type="search"
      name={node.name}
      value={node.value}
      placeholder={node.hint}
      maxlength={node.maxLength}
      autocomplete="off"
      oninput={typed}
      onblur={left}
    />
  </label>
  <SubmitButton>{live.shown.say('Search')}</SubmitButton>
</form>

<style>
  form {
    display: inline-flex;
    align-items: end;
    gap: 0.5rem;
    margin: 0.3rem 1rem 0.6rem 0;
    max-width: 100%;
  }
  label {
    display: grid;
    flex: 1 1 18rem;
    gap: 0.15rem;
    min-width: 0;
  }
  span {
    font-size: 0.85rem;
    color: var(--quiet);
  }
  input {
    background: var(--sheet);
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 0.4rem 0.6rem;
    width: 100%;
    height: 2.5rem;
  }
</style>
