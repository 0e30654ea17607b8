<script lang="ts">
  import Group from './Group.svelte';

  interface Props {
    label: string;
    file: string;
    help?: string | undefined;
    options: readonly { value: string; label: string }[];
    chosen: readonly string[];
    disabled: boolean;
    /** Gets what is chosen, in the order of the options. */
    onset: (chosen: string[]) => void;
  }
  const { label, file, help, options, chosen, disabled, onset }: Props = $props();

  function check(changed: string, checked: boolean) {
    onset(options.map(({ value }) => value).filter((value) => (value === changed ? checked : chosen.includes(value))));
  }
</script>

<Group {label} {file} {help}>
  <div>
    {#each options as { value, label: words } (value)}
      <label
        ><input
          type="checkbox"
          checked={chosen.includes(value)}
          {disabled}
          onchange={({ currentTarget }) => check(value, currentTarget.checked)}
        />
        {words}</label
      >
    {/each}
  </div>
</Group>

<style>
  div {
    font-size: 0.875rem;
    display: flex;
    flex-wrap: wrap;
    gap: 0.15rem 0.9rem;
  }
</style>
