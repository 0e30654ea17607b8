<script lang="ts">
  import Button from './Button.svelte';

  interface Props {
    /** The accessible name of the box. */
    label: string;
    placeholder: string;
    button: string;
    /** Texts that the browser offers while you type. */
    offered?: readonly string[];
    /** Puts the cursor into the box at once, where a press of a button has opened the form. */
    focus?: boolean;
    accepts?: (text: string) => boolean;
    /** Returns whether the draft took the change. The box keeps its text otherwise. */
    onadd: (text: string) => boolean;
  }
  const { label, placeholder, button, offered = [], focus = false, accepts = () => true, onadd }: Props = $props();
  const id = $props.id();
  let typed = $state('');
  const text = $derived(typed.trim());
  const ready = $derived(text !== '' && accepts(text));

  function submitted(event: SubmitEvent) {
    event.preventDefault();
    if (ready && onadd(text)) typed = '';
  }
  function focused(node: HTMLInputElement) {
    if (focus) node.focus();
  }
</script>

<form onsubmit={submitted}>
  <input aria-label={label} {placeholder} list={offered.length > 0 ? id : undefined} maxlength="200" bind:value={typed} use:focused />
  {#if offered.length > 0}
    <datalist {id}
      >{#each offered as one (one)}<option value={one}></option>{/each}</datalist
    >
  {/if}
  <Button type="submit" small look={focus ? 'main' : 'plain'} disabled={!ready}>{button}</Button>
</form>

<style>
  form {
    display: flex;
    gap: 0.3rem;
    max-width: 24rem;
  }
  input {
    flex: 1;
    min-width: 0;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.15rem 0.4rem;
  }
</style>
