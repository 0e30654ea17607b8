<script lang="ts">
  import type { AnyNode, NodeOf } from '@pallmist/app/view';
  import type { Snippet } from 'svelte';
  import { follow } from '../follow.ts';
  import type { LivePage } from '../live-page.ts';

  const { node, live, render }: { node: NodeOf<'dialog'>; live: LivePage; render: Snippet<[AnyNode[]]> } = $props();

  /** Drawn open by the service; the browser makes it modal, which keeps the focus inside and returns it afterwards. */
  function modal(dialog: HTMLDialogElement) {
    dialog.removeAttribute('open');
    dialog.showModal();
    // A visitor who opens a form wants to fill it in.
    dialog.querySelector<HTMLElement>('form :is(input:not([type="hidden"]), select, textarea)')?.focus();
    return () => {
      dialog.close();
    };
  }

  function cancelled(event: Event) {
    event.preventDefault();
    live.change(node.close.change);
  }
</script>

<dialog open aria-labelledby="{node.id}-label" oncancel={cancelled} {@attach modal}>
  <div class="head">
    <h2 id="{node.id}-label">{node.label}</h2>
    <a href={node.close.href} onclick={follow(live, node.close)}>{node.close.text}</a>
  </div>
  {@render render(node.content)}
</dialog>

<style>
  dialog {
    inset-block-start: 4rem;
    width: min(40rem, calc(100vw - 2rem));
    max-height: calc(100dvh - 6rem);
    overflow: auto;
    border: 1px solid var(--edge);
    border-radius: calc(var(--round) * 2);
    background: var(--sheet);
    color: var(--ink);
    padding: 1.1rem 1.4rem 1.4rem;
    box-shadow: 0 1.5rem 4rem rgb(0 0 0 / 35%);
    z-index: 3;
  }
  dialog::backdrop {
    background: rgb(10 20 18 / 45%);
  }
  /* The dialog is the sheet that the form stands on. */
  dialog :global(form) {
    max-width: none;
    border: 0;
    padding: 0;
    background: none;
    margin-block-end: 0;
  }
  .head {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 1rem;
  }
  h2 {
    margin: 0;
    font-family: var(--text);
    font-size: 1.35rem;
    overflow-wrap: anywhere;
  }
</style>
