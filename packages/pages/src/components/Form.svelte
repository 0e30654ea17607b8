<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import BoxField from './BoxField.svelte';
  import SubmitButton from './SubmitButton.svelte';
  import FormCard from './FormCard.svelte';

  const { node, live }: { node: NodeOf<'form'>; live: LivePage } = $props();

  function submitted(event: SubmitEvent) {
    if (!live.hydrated || !(event.currentTarget instanceof HTMLFormElement)) return;
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
  >
    <input type="hidden" name="~form" value={node.name} />
    {#if node.seen}<input type="hidden" name="~seen" value={node.seen} />{/if}
    {#if node.once}<input type="hidden" name="~once" value={node.once} />{/if}
    <FormCard problem={node.problem} plain={node.boxes.length === 0}>
      {#each node.boxes as box (box.name)}<BoxField {box} say={live.shown.say} id="{node.id}-{box.name}" />{/each}
      <SubmitButton tone={node.removes ? 'removes' : 'main'} disabled={live.busy}>{node.button}</SubmitButton>
    </FormCard>
  </form>
{/key}

<style>
  form {
    margin-block: 0.8rem 1.2rem;
  }
</style>
