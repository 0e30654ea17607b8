<script lang="ts">
  interface Props {
    label: string;
    checked: boolean;
    help?: string | undefined;
    disabled?: boolean;
    onset: (checked: boolean) => void;
  }
  const { label, checked, help, disabled = false, onset }: Props = $props();
</script>

<div>
  <label>
    <input type="checkbox" {checked} {disabled} onchange={({ currentTarget }) => onset(currentTarget.checked)} />
    <span>{label}</span>
  </label>
  {#if help !== undefined}<p>{help}</p>{/if}
</div>

<style>
  label {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
    font-weight: 600;
    font-size: 0.875rem;
  }
  p {
    margin: 0 0 0 1.5rem;
    font-size: 0.8125rem;
    color: var(--quiet);
  }
</style>
