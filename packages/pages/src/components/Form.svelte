<script lang="ts">
  import type { FormNode } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import BoxField from './BoxField.svelte';
  import Press from './Press.svelte';
  import Sheet from './Sheet.svelte';

  const { node, live }: { node: FormNode; live: LivePage } = $props();

  function submitted(event: SubmitEvent) {
    if (!live.taken || !(event.currentTarget instanceof HTMLFormElement)) return;
    event.preventDefault();
    live.send(event.currentTarget);
  }
</script>

{#key live.saves}
  <form
    method="post"
    action={node.action}
    enctype={node.files ? 'multipart/form-data' : undefined}
    aria-label={node.label}
    onsubmit={submitted}
  >
    <input type="hidden" name="~form" value={node.name} />
    {#if node.seen}<input type="hidden" name="~seen" value={node.seen} />{/if}
    {#if node.once}<input type="hidden" name="~once" value={node.once} />{/if}
    <Sheet problem={node.problem} plain={node.boxes.length === 0}>
      {#each node.boxes as box (box.name)}<BoxField {box} id="{node.id}-{box.name}" />{/each}
      <Press tone={node.removes ? 'removes' : 'main'} disabled={live.busy}>{node.button}</Press>
    </Sheet>
  </form>
{/key}

<style>
  form {
    margin-block: 0.8rem 1.2rem;
  }
</style>
