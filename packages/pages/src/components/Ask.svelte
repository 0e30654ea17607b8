<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import BoxField from './BoxField.svelte';
  import HiddenFields from './HiddenFields.svelte';
  import SubmitButton from './SubmitButton.svelte';

  const { node, live }: { node: NodeOf<'ask'>; live: LivePage } = $props();

  function submitted(event: SubmitEvent) {
    if (!live.hydrated || !(event.currentTarget instanceof HTMLFormElement)) return;
    event.preventDefault();
    const given = [...new FormData(event.currentTarget)].filter((entry): entry is [string, string] => entry[1] !== '');
    const query = new URLSearchParams(given).toString();
    live.open(query === '' ? node.form.action : `${node.form.action}?${query}`);
  }
</script>

<form method="get" action={node.form.action} aria-label={node.label} onsubmit={submitted}>
  <HiddenFields form={node.form} />
  {#each node.boxes as box (box.name)}<BoxField {box} id="{node.id}-{box.name}" asking />{/each}
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
