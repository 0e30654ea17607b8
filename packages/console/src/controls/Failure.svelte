<script lang="ts">
  let { text }: { text: string | undefined } = $props();
</script>

<!-- What has just gone wrong, which screen readers say at once. -->
{#if text}<p role="alert">{text}</p>{/if}

<style>
  p {
    color: var(--bad);
  }
</style>
