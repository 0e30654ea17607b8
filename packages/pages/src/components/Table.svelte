<script lang="ts">
  import type { ChangeAnchor, TableNode } from '@pallmist/app/view';
  import { follow } from '../follow.ts';
  import type { LivePage } from '../live-page.ts';
  import AnchorLink from './AnchorLink.svelte';
  import { rowEditor } from './row-editor.ts';
  import Empty from './Empty.svelte';
  import HiddenFields from './HiddenFields.svelte';
  import SubmitButton from './SubmitButton.svelte';

  const { node, live }: { node: TableNode; live: LivePage } = $props();
  const marks = { ascending: '▲', descending: '▼', none: '' };
  const chooseId = $derived(`choose-${node.choose?.name ?? ''}`);
  const editable = $derived(node.edited !== undefined || node.rows.some((row) => row.edit));
  const apart = $derived(node.edited && !node.rows.some((row) => row.key === node.edited?.key) ? node.edited : undefined);
  let region: HTMLElement | undefined = $state();
  /** The row that was edited last: it has the focus, wherever saving has moved it. */
  let left: string | undefined;

  $effect(() => {
    const { rows, edited } = node;
    if (edited !== undefined) left = edited.key;
    else if (left !== undefined && rows.length > 0) {
      const link = region?.querySelector<HTMLElement>(`[data-edits="${CSS.escape(left)}"]`);
      (link ?? region)?.focus();
    }
  });

  /** Who goes elsewhere is not called back. */
  function noteFocus(target: EventTarget | null) {
    if (node.edited === undefined && target instanceof HTMLElement && target !== region && target.dataset['edits'] !== left)
      left = undefined;
  }

  function edit(event: MouseEvent, anchor: ChangeAnchor) {
    if (live.hydrated && node.edited !== undefined && !live.mayLeave()) event.preventDefault();
    else follow(live, anchor)(event);
  }

  function chooseRow(key: string, chosen: boolean) {
    if (!live.hydrated || !node.choose) return;
    const { name, chosen: before } = node.choose;
    const keys = chosen ? [...before, key] : before.filter((other) => other !== key);
    live.change({ [name]: keys.length === 0 ? undefined : keys });
  }
</script>

{#if node.choose}
  <form method="get" action={node.choose.form.action} id={chooseId} class="choose">
    <HiddenFields form={node.choose.form} />
    <!-- What is chosen on other pages of the list stays chosen. -->
    {#each node.choose.chosen.filter((key) => !node.rows.some((row) => row.key === key)) as key (key)}
      <input type="hidden" name={node.choose.name} value={key} />
    {/each}
    {#if !live.hydrated && node.rows.length > 0}<SubmitButton>{live.shown.say('Keep what is chosen')}</SubmitButton>{/if}
  </form>
{/if}
{#if node.rows.length === 0 && !apart}
  <Empty text={node.empty} />
{:else}
  <!-- A region that scrolls has to be reachable by keyboard. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="scroll" role="region" aria-label={node.label} tabindex="0" bind:this={region} onfocusin={({ target }) => noteFocus(target)}>
    <table class:busy={live.busy} class:cards={node.cards}>
      <caption>{node.label}</caption>
      <thead>
        <tr>
          {#if node.choose}<th scope="col"><span class="visually-hidden">{live.shown.say('Chosen')}</span></th>{/if}
          {#each node.columns as column, index (index)}
            <th scope="col" class={column.align} aria-sort={column.sort ? column.sort.direction : undefined}>
              {#if column.sort}
                <a href={column.sort.href} onclick={follow(live, column.sort)}
                  >{column.label}<span class="mark" aria-hidden="true">{marks[column.sort.direction]}</span></a
                >
              {:else}{column.label}{/if}
            </th>
          {/each}
          {#if editable}<th scope="col"><span class="visually-hidden">{live.shown.say('Change')}</span></th>{/if}
        </tr>
      </thead>
      <tbody>
        <!-- The row that one types in may be on another page of the list. -->
        {#if apart && rowEditor.component}
          {@const RowEditor = rowEditor.component}
          <RowEditor {node} edited={apart} {live} />
        {/if}
        <!-- Rows are drawn over with other records, which is quicker than making new ones; the row that one types in stays itself. -->
        {#each node.rows as row, place (row.key === node.edited?.key ? row.key : place)}
          {#if node.edited && node.edited.key === row.key && rowEditor.component}
            {@const RowEditor = rowEditor.component}
            <RowEditor {node} edited={node.edited} {live} />
          {:else}
            <tr class:leads={row.href !== undefined} class:chosen={row.chosen}>
              {#if node.choose}
                <td class="above">
                  <input
                    type="checkbox"
                    form={chooseId}
                    name={node.choose.name}
                    value={row.key}
                    checked={row.chosen ?? false}
                    aria-label="{live.shown.say('Choose')} {row.cells[0]?.text || row.key}"
                    onchange={({ currentTarget }) => chooseRow(row.key, currentTarget.checked)}
                  />
                </td>
              {/if}
              {#each row.cells as cell, index (index)}
                <td
                  data-label={node.cards ? node.columns[index]?.label : undefined}
                  class={node.columns[index]?.align}
                  class:whole={node.columns[index]?.whole}
                  class:above={cell.href !== undefined}
                >
                  {#if index === 0 && row.href !== undefined}<a class="row" href={row.href}>{cell.text || row.key}</a>{:else}<AnchorLink
                      link={cell}
                    />{/if}
                </td>
              {/each}
              {#if row.edit}
                <td class="above">
                  <a
                    href={row.edit.href}
                    data-edits={row.key}
                    onclick={(event) => row.edit && edit(event, row.edit)}
                    aria-label="{live.shown.say('Edit')} {row.cells[0]?.text || row.key} ({row.key})">{row.edit.text}</a
                  >
                </td>
              {/if}
            </tr>
          {/if}
        {/each}
      </tbody>
    </table>
  </div>
{/if}

<style>
  .scroll {
    /* What is hidden inside is placed inside. */
    position: relative;
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
  table :global(td) {
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
  .mark {
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
  .chosen td {
    background: var(--leaf-soft);
  }
  /* What has an effect of its own stands above the row’s link. */
  .above {
    position: relative;
    z-index: 1;
  }
  .above :global(input) {
    accent-color: var(--leaf);
    width: 1.1rem;
    height: 1.1rem;
  }
  @media (max-width: 40rem) {
    .cards thead {
      position: absolute;
      clip-path: inset(50%);
    }
    .cards :is(tbody, tr) {
      display: block;
    }
    .cards tr {
      border: 1px solid var(--line);
      border-radius: var(--round);
      margin-block-end: 0.7rem;
      padding: 0.3rem 0;
    }
    .cards :global(td) {
      display: block;
      border: 0;
      text-align: start;
      padding-block: 0.15rem;
    }
    .cards td[data-label]:not([data-label=''])::before {
      content: attr(data-label) ': ';
      color: var(--quiet);
    }
  }
  /* The link of a row is as large as the row. */
  .row::after {
    content: '';
    position: absolute;
    inset: 0;
  }
</style>
