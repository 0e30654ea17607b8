<script lang="ts">
  import { client, explain } from './calls.ts';
  import { place } from './place.svelte.ts';
  import Room from './Room.svelte';

  const { app }: { app: string } = $props();
  const asked = $derived(client.call('listArrivals', { app }));

  type Count = { parameter: string; value: string; day: string; arrivals: number; submissions: number };

  /** Sums over all days, the most arrivals first. */
  function totals(counts: readonly Count[]) {
    const sums: Record<string, { parameter: string; value: string; arrivals: number; submissions: number; days: number }> = {};
    for (const { parameter, value, arrivals, submissions } of counts) {
      const sum = (sums[`${parameter} ${value}`] ??= { parameter, value, arrivals: 0, submissions: 0, days: 0 });
      sum.arrivals += arrivals;
      sum.submissions += submissions;
      sum.days++;
    }
    return Object.values(sums).sort((a, b) => b.arrivals - a.arrivals);
  }
</script>

<Room>
  <p><a href={place.href('apps')} onclick={(event) => place.follow(event)}><span aria-hidden="true">←</span> Apps</a></p>
  <h1>Arrivals at {app}</h1>
  {#await asked}
    <p>Looking …</p>
  {:then { arrivals }}
    {@const rows = totals(arrivals)}
    {@const most = Math.max(1, ...rows.map((row) => row.arrivals))}
    {#if rows.length === 0}
      <p>Nobody has come with anything to remember yet. A parameter of the app with <code>reach: visit</code> is remembered.</p>
    {:else}
      <table>
        <thead>
          <tr
            ><th scope="col">Came with</th><th scope="col">Arrivals and forms sent</th><th scope="col" class="end">Arrivals</th><th
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
                  <rect class="came" y="1" height="9" width={(row.arrivals / most) * 300} rx="2" />
                  <rect class="sent" y="12" height="9" width={(row.submissions / most) * 300} rx="2" />
                </svg>
              </td>
              <td class="end">{row.arrivals}</td>
              <td class="end">{row.submissions}</td>
              <td class="end">{row.days}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  {:catch error}
    <p role="alert">{explain(error)}</p>
  {/await}
</Room>

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
