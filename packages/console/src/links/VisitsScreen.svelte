<script lang="ts">
  import ScreenPage from '../controls/ScreenPage.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client, explain } from '../service/calls.ts';

  const { draft }: { draft: Draft } = $props();
  const app = $derived(draft.app);
  const asked = $derived(client.call('listVisits', { app }));

  type Count = { parameter: string; value: string; day: string; came: number; formsSent: number };

  /** Sums over all days, the most visits first. */
  function totals(counts: readonly Count[]) {
    const sums: Record<string, { parameter: string; value: string; came: number; formsSent: number; days: number }> = {};
    for (const { parameter, value, came, formsSent } of counts) {
      const sum = (sums[`${parameter} ${value}`] ??= { parameter, value, came: 0, formsSent: 0, days: 0 });
      sum.came += came;
      sum.formsSent += formsSent;
      sum.days++;
    }
    return Object.values(sums).sort((a, b) => b.came - a.came);
  }
</script>

<ScreenPage title="Visits">
  {#await asked}
    <p>Loading …</p>
  {:then { visits }}
    {@const rows = totals(visits)}
    {@const most = Math.max(1, ...rows.map((row) => row.came))}
    {#if rows.length === 0}
      <p>
        No visit has brought a value to remember yet. Under Settings, declare a parameter of the app with <code>reach: visit</code>, such as
        where visitors heard of you.
      </p>
    {:else}
      <table>
        <thead>
          <tr
            ><th scope="col">Came with</th><th scope="col">Visits and forms sent</th><th scope="col" class="end">Visits</th><th
              scope="col"
              class="end">Forms sent</th
            ><th scope="col" class="end">Days</th></tr
          >
        </thead>
        <tbody>
          {#each rows as row (row.parameter + row.value)}
            <tr>
              <th scope="row"><code>{row.parameter}={row.value}</code></th>
              <td>
                <!-- The plot: two bars to one scale; the figures beside it say the same. -->
                <svg viewBox="0 0 300 22" width="300" height="22" aria-hidden="true">
                  <rect class="came" y="1" height="9" width={(row.came / most) * 300} rx="2" />
                  <rect class="sent" y="12" height="9" width={(row.formsSent / most) * 300} rx="2" />
                </svg>
              </td>
              <td class="end">{row.came}</td>
              <td class="end">{row.formsSent}</td>
              <td class="end">{row.days}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  {:catch error}
    <p role="alert">{explain(error)}</p>
  {/await}
</ScreenPage>

<style>
  table {
    border-collapse: collapse;
    background: var(--sheet);
    width: 100%;
  }
  th,
  td {
    text-align: start;
    padding: 0.5rem 0.8rem;
    border-block-end: 1px solid var(--line);
  }
  tbody th {
    font-weight: 400;
  }
  .end {
    text-align: end;
    font-variant-numeric: tabular-nums;
  }
  svg {
    max-width: 100%;
    display: block;
  }
  .came {
    fill: var(--query);
  }
  .sent {
    fill: var(--leaf);
  }
  code {
    font-family: var(--code);
  }
</style>
