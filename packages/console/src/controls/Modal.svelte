<script lang="ts">
  import type { Snippet } from 'svelte';
  import Button from './Button.svelte';

  interface Props {
    title: string;
    /** `wide` for two columns, `whole` for as much as the window has. */
    size?: 'wide' | 'whole' | undefined;
    onclose: () => void;
    children: Snippet;
    actions?: Snippet;
  }
  const { title, size, onclose, children, actions }: Props = $props();

  function open(node: HTMLDialogElement) {
    const before = document.activeElement;
    node.showModal();
    // What a dialog is for has the focus, not the button that closes it.
    node.querySelector<HTMLElement>('.body :is(input, select, textarea):not([disabled]), footer button')?.focus();
    return {
      destroy() {
        // The focus goes back to where it was, so that it is never lost.
        if (before instanceof HTMLElement && before.isConnected) before.focus();
      },
    };
  }
</script>

<dialog class={size} use:open aria-label={title} oncancel={onclose} {onclose}>
  <header>
    <h2>{title}</h2>
    <Button look="quiet" small onclick={onclose}>Close</Button>
  </header>
  <div class="body">{@render children()}</div>
  {#if actions}<footer>{@render actions()}</footer>{/if}
</dialog>

<style>
  dialog {
    width: min(36rem, calc(100vw - 1.5rem));
    max-height: min(44rem, calc(100vh - 2rem));
    padding: 0;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    color: var(--ink);
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) auto;
  }
  .wide {
    width: min(58rem, calc(100vw - 1.5rem));
  }
  .whole {
    width: calc(100vw - 1.5rem);
    height: calc(100vh - 2rem);
    max-height: none;
  }
  dialog::backdrop {
    background: rgb(10 16 15 / 45%);
  }
  header,
  footer {
    display: flex;
    align-items: center;
    gap: 0.6rem;
    padding: 0.6rem 1rem;
    border-block-end: 1px solid var(--line);
  }
  h2 {
    font: 600 1.1rem var(--text);
    margin-inline-end: auto;
  }
  .body {
    overflow: auto;
    padding: 0.9rem 1rem;
  }
  footer {
    border-block: 1px solid var(--line);
    border-block-end: 0;
    justify-content: end;
  }
</style>
