<script lang="ts">
  import type { SignUpNode } from '@pallmist/app/view';
  import BoxField from './BoxField.svelte';
  import Press from './Press.svelte';
  import Sheet from './Sheet.svelte';

  const { node }: { node: SignUpNode } = $props();
</script>

<!-- Sent as a document: whoever comes in begins anew. -->
<form method="post" action={node.action}>
  <input type="hidden" name="~form" value="~join" />
  <input type="hidden" name="~wanted" value={node.back} />
  <Sheet problem={node.problem}>
    {#each node.boxes as box (box.name)}<BoxField {box} id="{node.id}-{box.name}" />{/each}
    <Press>{node.button}</Press>
  </Sheet>
</form>

<style>
  form {
    max-width: 24rem;
    margin-block: 1rem;
  }
</style>
