<script lang="ts">
  import { formAddress, type NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import { TypedTexts } from '../typed-texts.svelte.ts';
  import HiddenFields from './HiddenFields.svelte';
  import ParameterField from './ParameterField.svelte';
  import SubmitButton from './SubmitButton.svelte';

  const { node, live }: { node: NodeOf<'ask'> | NodeOf<'filters'>; live: LivePage } = $props();
  /** What is typed and not applied stays, whatever other links and controls do; Apply and Clear begin again. */
  const typed = new TypedTexts();
  const clear = $derived(node.show === 'filters' ? node.clear : undefined);

  function submitted(event: SubmitEvent) {
    if (!live.hydrated || !(event.currentTarget instanceof HTMLFormElement)) return;
    const given = [...new FormData(event.currentTarget)].filter((entry): entry is [string, string] => typeof entry[1] === 'string');
    const address = formAddress(node.form, given);
    // The service answers what has no address: it shows what is missing.
    if (address === undefined) return;
    event.preventDefault();
    live.open(address);
    typed.clear();
  }
</script>

<form
  class={node.show}
  method="get"
  action={node.form.action}
  aria-label={node.label}
  autocomplete="off"
  onsubmit={submitted}
  oninput={typed.take}
>
  <HiddenFields form={node.form} />
  {#each node.boxes as box (box.name)}<ParameterField {box} {typed} say={live.shown.say} id="{node.id}-{box.name}" />{/each}
  <span>
    <SubmitButton>{node.button}</SubmitButton>
    {#if clear}<a href={clear.href} onclick={() => typed.clear()}>{clear.text}</a>{/if}
  </span>
</form>

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    /* A help below one box moves no other. */
    align-items: start;
    gap: 0.8rem 1.2rem;
    margin-block: 0.8rem;
  }
  .filters {
    padding: 0.8rem 1rem;
    border: 1px solid var(--line);
    border-radius: var(--round, 6px);
  }
  span {
    display: flex;
    align-items: center;
    gap: 1rem;
    /* As high as a label. */
    margin-block-start: 1.45rem;
  }
  a {
    display: inline-block;
    min-height: 24px;
    padding-block: 0.3rem;
  }
</style>
