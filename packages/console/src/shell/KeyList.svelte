<script lang="ts">
  import Modal from '../controls/Modal.svelte';

  const { onclose }: { onclose: () => void } = $props();
  const keys = [
    ['Ctrl+K', 'Find pages, parameters, components and commands'],
    ['Ctrl+Z, Ctrl+Shift+Z', 'Undo, redo'],
    ['Ctrl+S', 'Save now (changes are saved automatically within a second)'],
    ['Arrow keys', 'Move through a list, the outline, or the address'],
    ['Alt+arrow keys', 'Move the page, the component, or the piece of the address'],
    ['Enter', 'In the outline: go on to the properties'],
    ['Delete', 'Remove the focused item (you can undo this)'],
    ['Ctrl+C, Ctrl+X, Ctrl+V', 'Copy, cut and paste components in the outline, on other pages too'],
    ['{', 'In a text or a value: pick a value'],
    ['Ctrl+click', 'In the page that is shown: use it instead of selecting'],
    ['Esc', 'Close a dialog, or discard what you typed in a name'],
    ['?', 'This list'],
  ];
</script>

<Modal title="Keys" {onclose}>
  <dl>
    {#each keys as [key, what] (key)}
      <div>
        <dt><kbd>{key}</kbd></dt>
        <dd>{what}</dd>
      </div>
    {/each}
  </dl>
</Modal>

<style>
  dl {
    margin: 0;
    display: grid;
    gap: 0.45rem;
  }
  div {
    display: grid;
    grid-template-columns: 12rem 1fr;
    gap: 0.8rem;
  }
  dd {
    margin: 0;
  }
  kbd {
    font: 0.8125rem var(--code);
  }
</style>
