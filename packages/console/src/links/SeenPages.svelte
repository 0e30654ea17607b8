<script lang="ts">
  import type { Links } from '@pallmist/api';
  import Table from '../controls/Table.svelte';

  const { seen }: { seen: Links['seen'] } = $props();

  const width = 180;
  const height = 22;

  function sumBy(rows: Links['seen'], keyOf: (row: Links['seen'][number]) => string): [key: string, count: number][] {
    const sums: Record<string, number> = {};
    for (const row of rows) sums[keyOf(row)] = (sums[keyOf(row)] ?? 0) + row.count;
    return Object.entries(sums).sort(([, one], [, other]) => other - one);
  }
  const days = $derived([...new Set(seen.map(({ day }) => day))].sort());
  const pages = $derived(
    sumBy(
      seen.filter(({ page, parameter }) => page !== '' && parameter === ''),
      ({ page }) => page,
    ),
  );
  const unknown = $derived(
    sumBy(
      seen.filter(({ page }) => page === ''),
      ({ parameter }) => parameter,
    ).slice(0, 20),
  );

  /** How often a page was opened on each day, as bars to one scale. */
  function bars(page: string) {
    const byDay = new Map(
      sumBy(
        seen.filter((row) => row.page === page && row.parameter === ''),
        ({ day }) => day,
      ),
    );
    const most = Math.max(1, ...byDay.values());
    return days.map((day, index) => ({ day, x: (index / days.length) * width, size: ((byDay.get(day) ?? 0) / most) * height }));
  }
  /** What visitors gave, parameter by parameter, the most frequent first. */
  const given = (page: string) =>
    sumBy(
      seen.filter((row) => row.page === page && row.parameter !== '' && row.state !== 'absent'),
      ({ parameter, state, bucket }) => `${parameter}: ${state}${bucket === '' ? '' : `, ${bucket}`}`,
    ).slice(0, 8);
</script>

<Table head={['Page', 'By day', 'Visits', 'Values in the address']}>
  {#each pages as [page, count] (page)}
    <tr>
      <th scope="row">{page}</th>
      <td>
        <svg viewBox="0 0 {width} {height}" {width} {height} aria-hidden="true">
          {#each bars(page) as { day, x, size } (day)}
            <rect {x} y={height - size} width={Math.max(1, Math.min(12, width / days.length - 1))} height={size} />
          {/each}
        </svg>
      </td>
      <td class="number">{count.toLocaleString('en')}</td>
      <td>
        <ul>
          {#each given(page) as [words, times] (words)}<li>{words} ({times.toLocaleString('en')})</li>{:else}<li>none</li>{/each}
        </ul>
      </td>
    </tr>
  {/each}
</Table>
{#if unknown.length > 0}
  <h3>Addresses that no page has</h3>
  <ul>
    {#each unknown as [path, times] (path)}<li><code>{path}</code> ({times.toLocaleString('en')})</li>{/each}
  </ul>
{/if}

<style>
  h3 {
    font: 600 0.9375rem var(--plain);
    margin: 0.9rem 0 0.3rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    font-size: 0.8125rem;
  }
  rect {
    fill: var(--leaf);
  }
  svg {
    max-width: 100%;
    display: block;
  }
  code {
    font-family: var(--code);
  }
</style>
