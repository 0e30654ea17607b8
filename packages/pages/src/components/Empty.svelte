<script lang="ts">
  const { text }: { text: string } = $props();
</script>

<!-- What stands in the place of rows where there are none. -->
<p>{text}</p>

<style>
  p {
    background: var(--sheet);
    border: 1px dashed var(--edge);
    border-radius: var(--round);
    padding: 1.5rem;
    color: var(--quiet);
  }
</style>
