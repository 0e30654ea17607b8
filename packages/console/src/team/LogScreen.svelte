<script lang="ts">
  import ScreenPage from '../controls/ScreenPage.svelte';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client, explain } from '../service/calls.ts';
  import { place } from '../service/place.svelte.ts';

  const { draft }: { draft: Draft } = $props();
  const load = () =>
    Promise.all([client.call('listChanges', { app: draft.app }), client.call('listEditions', { app: draft.app })]).then(
      ([{ changes }, { editions }]) =>
        [
          ...changes.map(({ at, by, what, revision }) => ({ at, by, what, key: `c${revision}`, edition: undefined as number | undefined })),
          ...editions.map(({ publishedAt, by = '', note = '', number }) => ({
            at: publishedAt,
            by,
            what: `Published edition ${number}${note === '' ? '' : `: ${note}`}`,
            key: `e${number}`,
            edition: number as number | undefined,
          })),
        ].sort((one, other) => other.at.localeCompare(one.at)),
    );
  let asked = $state(load());
</script>

<ScreenPage title="Log">
  <p>
    Every change and every published edition, with its author. <Button small look="quiet" onclick={() => (asked = load())}
      >Look again</Button
    >
  </p>
  {#await asked}
    <p>Loading …</p>
  {:then entries}
    <table>
      <thead><tr><th scope="col">When (UTC)</th><th scope="col">Who</th><th scope="col">What</th></tr></thead>
      <tbody>
        {#each entries as entry (entry.key)}
          <tr class:edition={entry.edition !== undefined}>
            <td>{entry.at.slice(0, 16).replace('T', ' ')}</td>
            <td>{entry.by}</td>
            <td>
              {#if entry.edition !== undefined}<a
                  href={place.href('publish', { app: draft.app, edition: entry.edition })}
                  onclick={(event) => place.follow(event)}>{entry.what}</a
                >{:else}{entry.what}{/if}
            </td>
          </tr>
        {:else}<tr><td colspan="3">No changes yet.</td></tr>{/each}
      </tbody>
    </table>
  {:catch error}
    <p role="alert">{explain(error)}</p>
  {/await}
</ScreenPage>

<style>
  p {
    margin: 0.3rem 0 0.8rem;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    background: var(--sheet);
    font-size: 0.9rem;
  }
  th,
  td {
    text-align: start;
    vertical-align: top;
    padding: 0.25rem 0.7rem;
    border-block-end: 1px solid var(--line);
    overflow-wrap: anywhere;
  }
  td:first-child {
    white-space: nowrap;
    color: var(--quiet);
  }
  .edition td {
    background: var(--leaf-soft);
  }
</style>
