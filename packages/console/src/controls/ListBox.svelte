<script lang="ts">
  import type { ComponentProps } from 'svelte';
  import TextBox from './TextBox.svelte';

  interface Props extends Omit<ComponentProps<typeof TextBox>, 'value' | 'when' | 'onset' | 'lines' | 'type'> {
    /** Items without commas. The box shows them separated by commas. */
    value: readonly string[] | undefined;
    /** Gets undefined for an empty box: the app file then leaves the key out. */
    onset: (items: string[] | undefined) => void;
  }
  const { value, onset, ...rest }: Props = $props();

  function set(text: string) {
    const items = text
      .split(',')
      .map((item) => item.trim())
      .filter((item) => item !== '');
    onset(items.length > 0 ? items : undefined);
  }
</script>

<TextBox {...rest} when="done" value={(value ?? []).join(', ')} onset={set} />
