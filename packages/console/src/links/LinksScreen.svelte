<script lang="ts">
  import type { Links } from '@pallmist/api';
  import ScreenPage from '../controls/ScreenPage.svelte';
  import Table from '../controls/Table.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client, explain } from '../service/calls.ts';
  import CompareEditions from './CompareEditions.svelte';
  import EditionBars from './EditionBars.svelte';
  import OldLink from './OldLink.svelte';
  import PrintedAddresses from './PrintedAddresses.svelte';
  import SeenPages from './SeenPages.svelte';
  import TriedAddresses from './TriedAddresses.svelte';
  import Failure from '../controls/Failure.svelte';
  import Note from '../controls/Note.svelte';

  const { draft }: { draft: Draft } = $props();
  let links: Links | undefined = $state.raw();
  let said: string | undefined = $state();
  const last = $derived(Math.max(1, ...(links?.pages ?? []).flatMap(({ editions }) => editions)));
  const mount = $derived((draft.publishedEdition?.mount ?? '').replace(/\/$/, ''));

  async function load() {
    try {
      links = await client.call('getLinks', { app: draft.app });
    } catch (error) {
      said = explain(error);
    }
  }
  void load();
</script>

<ScreenPage title="Links">
  <p>
    Addresses that people have keep their meaning. <a href="/~/docs/links-that-last" target="_blank" rel="noopener"
      >How Pallmist compares editions</a
    >
  </p>
  <Failure text={said} />

  <h2>Try an old link</h2>
  <OldLink app={draft.app} />

  {#if links}
    {#if links.tried.length > 0}
      <h2>Addresses that do not work</h2>
      <TriedAddresses {draft} tried={links.tried} />
    {/if}

    <h2>Printed addresses</h2>
    <PrintedAddresses app={draft.app} {mount} printed={links.printed} onchange={(changed) => (links = changed)} />

    {#if links.seen.length > 0}
      <h2>Visits of the last 90 days</h2>
      <Note>Pallmist counts each parameter by itself, and keeps no text of a visitor.</Note>
      <SeenPages seen={links.seen} />
    {/if}

    {#if links.consents.length > 0}
      <h2>Intended changes</h2>
      <Table head={['Edition', 'What changed', 'Why', 'Who']}>
        {#each links.consents as one, index (index)}
          <tr><td>{one.edition}</td><td>{one.words}</td><td>{one.why}</td><td>{one.by}, {one.at.slice(0, 10)}</td></tr>
        {/each}
      </Table>
    {/if}

    {#if last > 1}
      <h2>Compare two editions</h2>
      <CompareEditions app={draft.app} {last} />
    {/if}

    <h2>Published addresses</h2>
    <Note>Each version of a page, and the editions that had it: what its addresses meant did not change in between.</Note>
    <Table head={['Page', 'Address', `Editions 1 to ${last}`]}>
      {#each links.pages as one (one.page + one.editions.join())}
        <tr>
          <th scope="row">{one.page}</th>
          <td><code>{one.address}</code></td>
          <td><EditionBars editions={one.editions} {last} /></td>
        </tr>
      {:else}<tr><td colspan="3">Nothing is published yet.</td></tr>{/each}
    </Table>
  {/if}
</ScreenPage>

<style>
  h2 {
    font: 600 1rem var(--plain);
    margin: 1.4rem 0 0.4rem;
  }
  p {
    margin: 0.4rem 0;
  }
  code {
    font-family: var(--code);
  }
</style>
