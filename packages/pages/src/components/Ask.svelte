<script lang="ts">
  import { formAddress, type NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import HiddenFields from './HiddenFields.svelte';
  import ParameterField from './ParameterField.svelte';
  import SubmitButton from './SubmitButton.svelte';

  const { node, live }: { node: NodeOf<'ask'>; live: LivePage } = $props();

  function submitted(event: SubmitEvent) {
    if (!live.hydrated || !(event.currentTarget instanceof HTMLFormElement)) return;
    const given = [...new FormData(event.currentTarget)].filter((entry): entry is [string, string] => typeof entry[1] === 'string');
    const address = formAddress(node.form, given);
    if (address === undefined) return;
    event.preventDefault();
    live.open(address);
  }
</script>

<form method="get" action={node.form.action} aria-label={node.label} onsubmit={submitted}>
  <HiddenFields form={node.form} />
  {#each node.boxes as box (box.name)}<ParameterField {box} id="{node.id}-{box.name}" />{/each}
  <span><SubmitButton>{node.button}</SubmitButton></span>
</form>

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    align-items: start;
    gap: 0.8rem;
    margin-block: 0.8rem;
  }
  span {
    margin-block-start: 1.45rem;
  }
</style>
