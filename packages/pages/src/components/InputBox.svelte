<script lang="ts">
  import type { BoxNode } from '@pallmist/app/view';
  import { boxAttributes } from '../box-value.ts';
  import { TypedTexts } from '../typed-texts.svelte.ts';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import Labelled from './Labelled.svelte';

  const { node, live }: { node: BoxNode; live: LivePage } = $props();
  const typed = new TypedTexts();

  function changed({ currentTarget: box }: Event & { currentTarget: HTMLInputElement | HTMLTextAreaElement }) {
    if (!live.hydrated) return;
    box.setCustomValidity('');
    // The browser says beside the box what is wrong with it; the address keeps the last value that was right.
    if (box.validity.valid) box.setCustomValidity(live.enter(node.name, box.value) ?? '');
    // What is taken stands in the address now; what is refused stays in the box.
    if (box.reportValidity()) typed.clear();
  }
</script>

<Filter form={node.form} {live} {typed}>
  <Labelled label={node.label}>
    {#if node.lines}
      <textarea name={node.name} rows={node.lines} maxlength={node.maxLength} value={typed.text(node.name, node.value)} onchange={changed}
      ></textarea>
    {:else}
      <input {...boxAttributes(node)} name={node.name} value={typed.text(node.name, node.value)} onchange={changed} />
    {/if}
  </Labelled>
</Filter>

<style>
  textarea {
    width: 24rem;
    max-width: 100%;
  }
  input[type='color'] {
    width: 4rem;
    padding: 0.2rem;
  }
</style>
