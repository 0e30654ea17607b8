<script lang="ts">
  const { editions, last }: { editions: readonly number[]; last: number } = $props();

  const width = 180;
  /** Editions in a row, each run once. */
  const runs = $derived.by(() => {
    const found: { from: number; to: number }[] = [];
    for (const edition of editions) {
      const run = found.at(-1);
      if (run?.to === edition - 1) run.to = edition;
      else found.push({ from: edition, to: edition });
    }
    return found;
  });
  const words = $derived(runs.map(({ from, to }) => (from === to ? `${from}` : `${from} to ${to}`)).join(', '));
</script>

<span>
  <svg viewBox="0 0 {width} 12" {width} height="12" aria-hidden="true">
    <rect class="line" x="0" y="5.5" {width} height="1" />
    {#each runs as { from, to } (from)}
      <rect class="run" x={((from - 1) / last) * width} y="2" width={Math.max(3, ((to - from + 1) / last) * width - 1)} height="8" rx="2" />
    {/each}
  </svg>
  {words}
</span>

<style>
  span {
    display: inline-flex;
    gap: 0.5rem;
    align-items: center;
    font-variant-numeric: tabular-nums;
    white-space: nowrap;
  }
  .line {
    fill: var(--line);
  }
  .run {
    fill: var(--leaf);
  }
  @media (max-width: 45rem) {
    svg {
      display: none;
    }
  }
</style>
