<script lang="ts">
  import type { AskNode } from '@pallmist/core/view';
  import type { LivePage } from '../live-page.ts';
  import BoxField from './BoxField.svelte';
  import Keeps from './Keeps.svelte';

  const { node, live }: { node: AskNode; live: LivePage } = $props();

  function submitted(event: SubmitEvent) {
    if (!live.taken || !(event.currentTarget instanceof HTMLFormElement)) return;
    event.preventDefault();
    const given = [...new FormData(event.currentTarget)].filter((entry): entry is [string, string] => entry[1] !== '');
    const query = new URLSearchParams(given).toString();
    live.open(query === '' ? node.form.action : `${node.form.action}?${query}`);
  }
</script>

<form method="get" action={node.form.action} aria-label={node.label} onsubmit={submitted}>
  <Keeps form={node.form} />
  {#each node.boxes as box (box.name)}<BoxField {box} id="{node.id}-{box.name}" asking />{/each}
  <button>{node.button}</button>
</form>

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    align-items: start;
    gap: 0.8rem;
    margin-block: 0.8rem;
  }
  button {
    min-height: 2.5rem;
    margin-block-start: 1.45rem;
    background: var(--leaf);
    color: var(--on-leaf);
    border: 0;
    border-radius: var(--round);
    padding: 0 1.2rem;
    cursor: pointer;
  }
</style>
