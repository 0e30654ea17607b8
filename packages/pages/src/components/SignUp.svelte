<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import { TypedTexts } from '../typed-texts.svelte.ts';
  import BoxField from './BoxField.svelte';
  import SubmitButton from './SubmitButton.svelte';
  import FormCard from './FormCard.svelte';

  const { node, live }: { node: NodeOf<'sign-up'>; live: LivePage } = $props();
  const typed = new TypedTexts();
</script>

<!-- Sent as a document: a person who signs up gets a new page. -->
<form method="post" action={node.action} oninput={typed.take}>
  <input type="hidden" name="~form" value="~join" />
  <input type="hidden" name="~wanted" value={node.back} />
  <FormCard problem={node.problem}>
    {#each node.boxes as box (box.name)}<BoxField {box} {typed} say={live.shown.say} id="{node.id}-{box.name}" />{/each}
    <SubmitButton>{node.button}</SubmitButton>
  </FormCard>
</form>

<style>
  form {
    max-width: 24rem;
    margin-block: 1rem;
  }
</style>
