<script lang="ts">
  import type { TableNode } from '@pallmist/core/view';
  import { follow } from '../follow.ts';
  import type { LivePage } from '../live-page.ts';

  const { node, live }: { node: TableNode; live: LivePage } = $props();
  const marks = { ascending: '▲', descending: '▼', none: '' };
</script>

{#if node.rows.length === 0}
  <p class="empty">{node.empty}</p>
{:else}
  <!-- A region that scrolls has to be reachable by keyboard. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="scroll" role="region" aria-label={node.label} tabindex="0">
    <table class:busy={live.busy}>
      <caption>{node.label}</caption>
      <thead>
        <tr>
          {#each node.columns as column, index (index)}
            <th scope="col" class={column.align} aria-sort={column.sort ? column.sort.direction : undefined}>
              {#if column.sort}
                <a href={column.sort.href} onclick={follow(live, column.sort)}
                  >{column.label}<span aria-hidden="true">{marks[column.sort.direction]}</span></a
                >
              {:else}{column.label}{/if}
            </th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each node.rows as row (row.key)}
          <tr class:leads={row.href !== undefined}>
            {#each row.cells as cell, index (index)}
              <td class={node.columns[index]?.align} class:whole={node.columns[index]?.whole}>
                {#if index === 0 && row.href !== undefined}<a href={row.href}>{cell || row.key}</a>{:else}{cell}{/if}
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}

<style>
  .empty {
    background: var(--sheet);
    border: 1px dashed var(--edge);
    border-radius: var(--round);
    padding: 1.5rem;
    color: var(--quiet);
  }
  .scroll {
    overflow-x: auto;
    margin-block: 0.6rem 1rem;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    background: var(--sheet);
    font-variant-numeric: tabular-nums;
  }
  .busy tbody {
    opacity: 0.55;
  }
  caption {
    position: absolute;
    clip-path: inset(50%);
    height: 1px;
    width: 1px;
    overflow: hidden;
  }
  th,
  td {
    text-align: start;
    padding: 0.45rem 0.8rem;
    border-block-end: 1px solid var(--line);
    vertical-align: top;
  }
  .whole {
    white-space: nowrap;
  }
  .end {
    text-align: end;
  }
  th {
    font-weight: 600;
    white-space: nowrap;
    border-block-end: 2px solid var(--edge);
  }
  th a {
    color: inherit;
    text-decoration: none;
  }
  th a:hover {
    text-decoration: underline;
  }
  th span {
    display: inline-block;
    width: 1.1em;
    font-size: 0.7em;
    text-align: center;
    color: var(--leaf);
  }
  .leads {
    position: relative;
  }
  .leads:hover {
    background: var(--leaf-soft);
  }
  /* The link of a row is as large as the row. */
  .leads a::after {
    content: '';
    position: absolute;
    inset: 0;
  }
</style>
