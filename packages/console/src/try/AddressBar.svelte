<script lang="ts">
  import { addressParts, type CompiledApp } from '@pallmist/app/address';
  import Parts from '../controls/Parts.svelte';

  interface Props {
    app: CompiledApp;
    address: string;
    /** The address that the person typed, when they are done. */
    ongo: (address: string) => void;
    /** Each address while it is typed. */
    ontype: (address: string) => void;
  }
  const { app, address, ongo, ontype }: Props = $props();

  let typed: string | undefined = $state();
  let scrolled = $state(0);
  const text = $derived(typed ?? address);
  let mirror: HTMLDivElement;

  $effect(() => {
    mirror.scrollLeft = scrolled;
  });

  function go(event: SubmitEvent) {
    event.preventDefault();
    ongo(text);
    typed = undefined;
  }
</script>

<form onsubmit={go}>
  <label for="address">Address</label>
  <div class="box">
    <div class="mirror" bind:this={mirror} aria-hidden="true"><Parts parts={addressParts(app, text)} /></div>
    <input
      id="address"
      value={text}
      spellcheck="false"
      autocomplete="off"
      autocapitalize="none"
      oninput={({ currentTarget }) => {
        typed = currentTarget.value;
        ontype(currentTarget.value);
      }}
      onkeydown={(event) => {
        if (event.key !== 'Escape') return;
        typed = undefined;
        ontype(address);
      }}
      onscroll={({ currentTarget }) => (scrolled = currentTarget.scrollLeft)}
    />
  </div>
  <button>Go</button>
</form>

<style>
  form {
    display: grid;
    grid-template-columns: auto 1fr auto;
    align-items: center;
    gap: 0.3rem 0.6rem;
  }
  label {
    color: var(--quiet);
    font-size: 0.85rem;
  }
  .box {
    position: relative;
    min-width: 0;
    background: var(--sheet);
    border: 1px solid var(--edge);
    border-radius: var(--round);
  }
  .mirror,
  input {
    font: 0.875rem/1.4 var(--code);
    letter-spacing: 0;
    padding: 0.25rem 0.5rem;
    border: 0;
    width: 100%;
  }
  /* The typed text lies over its own drawing, letter on letter. */
  .mirror {
    position: absolute;
    inset: 0;
    overflow: hidden;
    pointer-events: none;
  }
  .mirror :global(.parts) {
    white-space: pre;
  }
  input {
    position: relative;
    display: block;
    color: transparent;
    caret-color: var(--ink);
    background: transparent;
  }
  input::selection {
    background: color-mix(in srgb, var(--leaf) 35%, transparent);
  }
  button {
    background: none;
    border: 1px solid var(--leaf);
    color: var(--leaf);
    border-radius: var(--round);
    padding: 0.2rem 0.8rem;
    cursor: pointer;
  }
</style>
