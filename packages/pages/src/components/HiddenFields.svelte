<script lang="ts">
  import type { KeepingForm } from '@pallmist/app/view';

  const { form }: { form: KeepingForm } = $props();
</script>

{#each form.keeps as { name, value }, index (index)}
  <input type="hidden" {name} {value} />
{/each}
