<script lang="ts">
  import type { Choosing } from './choosing.svelte.ts';

  interface Props {
    label: string;
    placeholder: string;
    /** The id of the list box. Its options have the ids `{list}-0`, `{list}-1` and so on. */
    list: string;
    choosing: Pick<Choosing<unknown>, 'count' | 'index' | 'keyed'>;
    text: string;
  }
  let { label, placeholder, list, choosing, text = $bindable() }: Props = $props();
</script>

<input
  type="search"
  aria-label={label}
  {placeholder}
  role="combobox"
  aria-expanded={choosing.count > 0}
  aria-controls={list}
  aria-activedescendant={choosing.count > 0 ? `${list}-${choosing.index}` : undefined}
  bind:value={text}
  oninput={() => (choosing.index = 0)}
  onkeydown={(event) => choosing.keyed(event)}
/>

<style>
  input {
    width: 100%;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--paper);
    padding: 0.35rem 0.6rem;
    margin-block-end: 0.6rem;
  }
</style>
