<script lang="ts">
  import Button from '../controls/Button.svelte';
  import Modal from '../controls/Modal.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';

  const { draft, conflict }: { draft: Draft; conflict: NonNullable<Draft['conflict']> } = $props();
</script>

<Modal title="The same place was changed twice" onclose={() => draft.settleConflict('mine')}>
  <p>Another builder changed the same places before your change reached the service.</p>
  <h3>Their changes (saved)</h3>
  <ul>
    {#each conflict.others as other (other.revision)}<li><strong>{other.by}</strong>: {other.what}</li>{:else}<li>
        The draft was replaced as a whole.
      </li>{/each}
  </ul>
  <h3>Your changes (not saved)</h3>
  <ul>
    {#each conflict.mine as mine, index (index)}<li>{mine.what}</li>{/each}
  </ul>
  {#snippet actions()}
    <Button onclick={() => draft.settleConflict('theirs')}>Keep theirs and drop mine</Button>
    <Button look="main" onclick={() => draft.settleConflict('mine')}>Put mine on top</Button>
  {/snippet}
</Modal>

<style>
  p {
    margin: 0 0 0.8rem;
  }
  h3 {
    font-size: 0.9rem;
  }
  ul {
    margin: 0.2rem 0 0.8rem;
    padding-inline-start: 1.2rem;
  }
</style>
