<script lang="ts">
  import type { Problem } from '@pallmist/app/address';
  import TextBox from './TextBox.svelte';

  interface Props {
    label: string;
    value: unknown;
    help?: string | undefined;
    file?: string;
    problems?: readonly Problem[];
    onset: (value: unknown) => void;
  }
  const { label, value, help, file, problems = [], onset }: Props = $props();
  let refused: string | undefined = $state();
  let typed: string | undefined = $state();

  /** Text that is not valid JSON stays in the box, with a message below it. */
  function set(text: string) {
    refused = undefined;
    typed = undefined;
    if (text.trim() === '') {
      onset(undefined);
      return;
    }
    try {
      onset(JSON.parse(text) as unknown);
    } catch (error) {
      typed = text;
      refused = `This is not JSON: ${error instanceof Error ? error.message : String(error)}.`;
    }
  }
</script>

<!-- What has no editor of its own is edited as JSON, which YAML is too. -->
<TextBox
  {label}
  {help}
  {file}
  {problems}
  {refused}
  lines={4}
  code
  when="done"
  value={typed ?? (value === undefined ? '' : JSON.stringify(value, null, 2))}
  onset={set}
/>
