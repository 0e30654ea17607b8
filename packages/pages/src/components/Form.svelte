<script lang="ts">
  import type { FormNode } from '@pallmist/core/view';
  import type { LivePage } from '../live-page.ts';
  import BoxField from './BoxField.svelte';

  const { node, live }: { node: FormNode; live: LivePage } = $props();

  function submitted(event: SubmitEvent) {
    if (!live.taken || !(event.currentTarget instanceof HTMLFormElement)) return;
    event.preventDefault();
    live.send(event.currentTarget);
  }
</script>

{#key live.saves}
  <form
    method="post"
    action={node.action}
    enctype={node.files ? 'multipart/form-data' : undefined}
    aria-label={node.label}
    onsubmit={submitted}
    class:alone={node.boxes.length === 0}
  >
    <input type="hidden" name="~form" value={node.name} />
    {#if node.seen}<input type="hidden" name="~seen" value={node.seen} />{/if}
    {#if node.problem}<p role="alert" tabindex="-1">{node.problem}</p>{/if}
    {#each node.boxes as box (box.name)}<BoxField {box} id="{node.id}-{box.name}" />{/each}
    <button class:removes={node.removes} disabled={live.busy}>{node.button}</button>
  </form>
{/key}

<style>
  form {
    display: grid;
    gap: 0.8rem;
    max-width: 34rem;
    margin-block: 0.8rem 1.2rem;
  }
  form:not(.alone) {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 1.1rem 1.3rem;
  }
  p {
    margin: 0;
    border-inline-start: 0.3rem solid var(--bad);
    background: var(--bad-soft);
    padding: 0.5rem 0.8rem;
    border-radius: var(--round);
  }
  button {
    justify-self: start;
    background: var(--leaf);
    color: var(--on-leaf);
    border: 1px solid var(--leaf);
    border-radius: var(--round);
    padding: 0.5rem 1.3rem;
    cursor: pointer;
  }
  button.removes {
    background: none;
    border-color: var(--bad);
    color: var(--bad);
  }
  button:disabled {
    opacity: 0.6;
  }
</style>
