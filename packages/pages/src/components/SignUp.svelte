<script lang="ts">
  import type { SignUpNode } from '@pallmist/core/view';
  import BoxField from './BoxField.svelte';

  const { node }: { node: SignUpNode } = $props();
</script>

<!-- Sent as a document: whoever comes in begins anew. -->
<form method="post" action={node.action}>
  <input type="hidden" name="~form" value="~join" />
  <input type="hidden" name="~back" value={node.back} />
  {#if node.problem}<p role="alert">{node.problem}</p>{/if}
  {#each node.boxes as box (box.name)}<BoxField {box} id="{node.id}-{box.name}" />{/each}
  <button>{node.button}</button>
</form>

<style>
  form {
    display: grid;
    gap: 0.9rem;
    max-width: 24rem;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 1.3rem;
    margin-block: 1rem;
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
    border: 0;
    border-radius: var(--round);
    padding: 0.55rem 1.4rem;
    cursor: pointer;
  }
</style>
