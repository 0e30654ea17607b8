<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import { untrack } from 'svelte';
  import { TypedRecord } from '../typed-texts.svelte.ts';
  import BoxField from './BoxField.svelte';
  import SubmitButton from './SubmitButton.svelte';
  import FormCard from './FormCard.svelte';

  const { node, live }: { node: NodeOf<'form'>; live: LivePage } = $props();

  const typed = new TypedRecord(() => node.seen);
  // What the service says of this form, the visitor reads beside the record as it is now.
  $effect.pre(() => {
    if (live.answers > 0) untrack(() => node.problem !== undefined && typed.answered());
  });
  /** What the form is about: after saving, and for another record, nothing is typed yet. */
  const about = $derived(`${String(live.saves)} ${node.of ?? ''}`);
  $effect.pre(() => {
    if (about !== '') untrack(() => typed.clear());
  });

  function submitted(event: SubmitEvent) {
    if (!live.hydrated || !(event.currentTarget instanceof HTMLFormElement)) return;
    event.preventDefault();
    live.send(event.currentTarget);
  }
</script>

{#key about}
  <form
    method="post"
    action={node.action}
    enctype={node.files ? 'multipart/form-data' : undefined}
    aria-label={node.label}
    onsubmit={submitted}
    oninput={typed.takeRecord}
  >
    <input type="hidden" name="~form" value={node.name} />
    {#if typed.seen}<input type="hidden" name="~seen" value={typed.seen} />{/if}
    {#if node.once}<input type="hidden" name="~once" value={node.once} />{/if}
    <FormCard problem={node.problem} plain={node.boxes.length === 0}>
      {#each node.boxes as box (box.name)}<BoxField {box} {typed} say={live.shown.say} id="{node.id}-{box.name}" />{/each}
      <SubmitButton tone={node.removes ? 'removes' : 'main'} disabled={live.busy}>{node.button}</SubmitButton>
    </FormCard>
  </form>
{/key}

<style>
  form {
    margin-block: 0.8rem 1.2rem;
  }
</style>
