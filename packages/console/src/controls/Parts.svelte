<script lang="ts">
  import type { AddressPart } from '@pallmist/app/address';

  const { parts }: { parts: AddressPart[] } = $props();
</script>

<!-- Path parameters and query parameters differ by form and by colour: a box, and a line beneath. -->
<span class="parts"
  >{#each parts as part, index (index)}<span class={part.kind} title={part.parameter}>{part.text}</span>{#if part.kind === 'fixed'}<wbr
      />{/if}{/each}</span
>

<style>
  .parts {
    font-family: var(--code);
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  .path {
    color: var(--path);
    background: var(--path-soft);
    box-shadow: 0 0 0 1.5px var(--path);
    border-radius: 3px;
  }
  .query {
    color: var(--query);
    background: var(--query-soft);
    border-block-end: 2px dotted var(--query);
  }
  .name {
    color: var(--query);
  }
  .strange {
    color: var(--quiet);
    text-decoration: line-through;
  }
  .fragment {
    color: var(--quiet);
  }
</style>
