<script lang="ts">
  import type { Snippet } from 'svelte';

  let { children }: { children: Snippet } = $props();
</script>

<!-- A sentence that explains, beside what people came for. -->
<p>{@render children()}</p>

<style>
  p {
    color: var(--quiet);
    font-size: 0.8125rem;
    margin: 0.4rem 0;
    overflow-wrap: anywhere;
  }
</style>
