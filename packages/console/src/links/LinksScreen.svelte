<script lang="ts">
  import type { Links, Traced } from '@pallmist/api';
  import Button from '../controls/Button.svelte';
  import ScreenPage from '../controls/ScreenPage.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import EditionBars from './EditionBars.svelte';
  import SeenPages from './SeenPages.svelte';

  const { draft }: { draft: Draft } = $props();
  let links: Links | undefined = $state.raw();
  let traced: { address: string; told: Traced } | undefined = $state.raw();
  let wanted = $state(place.text('address') ?? '');
  let printed = $state({ address: '', note: '' });
  let said: string | undefined = $state();
  const last = $derived(Math.max(1, ...(links?.pages ?? []).flatMap(({ editions }) => editions)));

  async function doing(work: () => Promise<void>) {
    said = undefined;
    try {
      await work();
    } catch (error) {
      said = explain(error);
    }
  }
  const load = () =>
    doing(async () => {
      links = await client.call('getLinks', { app: draft.app });
    });
  void load();

  // The address that is tried is in the console's own address: Back tries the one before.
  const tried = $derived(place.text('address'));
  $effect(() => {
    const address = tried;
    if (address === undefined) traced = undefined;
    else
      void doing(async () => {
        traced = { address, told: await client.call('traceAddress', { app: draft.app }, { address }) };
      });
  });
  function submitted(event: SubmitEvent) {
    event.preventDefault();
    place.change({ address: wanted.trim() === '' ? undefined : wanted.trim() });
  }

  const note = (event: SubmitEvent) => {
    event.preventDefault();
    return doing(async () => {
      links = await client.call('addPrinted', { app: draft.app }, printed);
      printed = { address: '', note: '' };
    });
  };
  const forget = (id: string) =>
    doing(async () => {
      await client.call('removePrinted', { app: draft.app, id });
      await load();
    });

  const todaySays: Record<Traced['today']['status'], string> = {
    found: 'Today it opens the page',
    refused: 'Today it is refused by the page',
    gone: 'Today it is declared as gone.',
    'unknown-page': 'Today no page has it.',
    malformed: 'It is not an address.',
  };
  const editionsIn = (editions: readonly number[]) =>
    editions.length === 1 ? `Edition ${editions[0]}` : `Editions ${editions[0]} to ${editions.at(-1)}`;
</script>

<ScreenPage title="Links">
  <p>
    Addresses that people have keep their meaning. <a href="/~/docs/links-that-last" target="_blank" rel="noopener"
      >How Pallmist compares editions</a
    >
  </p>
  {#if said}<p class="bad" role="alert">{said}</p>{/if}

  <h2>Try an old link</h2>
  <form onsubmit={submitted} aria-label="Try an old link">
    <TextBox label="Address" code value={wanted} placeholder="/garden/specimens/QM-0412" onset={(text) => (wanted = text)} />
    <Button type="submit" look="main">Try it</Button>
  </form>
  {#if traced}
    {@const { today, earlier } = traced.told}
    <section aria-label="How each edition reads it" aria-live="polite">
      <p>
        <code>{traced.address}</code>:
        {#if today.leadsTo}leads to <code>{today.leadsTo}</code>.{:else}{todaySays[today.status]} {today.page ?? ''}{/if}
      </p>
      {#each today.problems.filter(({ severity }) => severity !== 'note') as problem (problem.message)}<p class="bad">
          {problem.message}
        </p>{/each}
      {#if earlier.length > 0}
        <table>
          <thead><tr><th scope="col">Read by</th><th scope="col">Page</th><th scope="col">Values</th></tr></thead>
          <tbody>
            {#each earlier as one (one.editions.join() + one.page)}
              <tr>
                <td>{editionsIn(one.editions)}</td>
                <td>{one.page}</td>
                <td>
                  {#each one.values as { name, text, origin }, index (name)}
                    {index > 0 ? ', ' : ''}<code class:quiet={origin === 'default'}>{name}={text}</code>
                  {:else}none{/each}
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
        <p class="quiet">Values in grey are defaults: the address does not have them.</p>
      {:else}<p>No edition knew it.</p>{/if}
    </section>
  {/if}

  <h2>Printed addresses</h2>
  <p class="quiet">Nobody can change what is printed, so publishing cannot change what these addresses mean.</p>
  {#if links && links.printed.length > 0}
    <table>
      <thead>
        <tr
          ><th scope="col">Address</th><th scope="col">Printed on</th><th scope="col">Noted</th><th scope="col"
            ><span class="says">Remove</span></th
          ></tr
        >
      </thead>
      <tbody>
        {#each links.printed as one (one.id)}
          <tr>
            <td><code>{one.address}</code></td>
            <td>{one.note}</td>
            <td>{one.at.slice(0, 10)}, {one.by}</td>
            <td class="end"
              >{#if me.mayChange}<Button small look="danger" aria-label="Forget {one.address}" onclick={() => forget(one.id)}>Forget</Button
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
  {#if me.mayChange}
    <form onsubmit={note} aria-label="Note a printed address">
      <TextBox label="Printed address" code required value={printed.address} onset={(address) => (printed = { ...printed, address })} />
      <TextBox
        label="Printed on"
        required
        placeholder="Plant labels, spring 2026"
        value={printed.note}
        onset={(text) => (printed = { ...printed, note: text })}
      />
      <Button type="submit">Note it</Button>
    </form>
  {/if}

  {#if links && links.seen.length > 0}
    <h2>Visits of the last 90 days</h2>
    <p class="quiet">Pallmist counts each parameter by itself, and keeps no text of a visitor.</p>
    <SeenPages seen={links.seen} />
  {/if}

  {#if links && links.consents.length > 0}
    <h2>Intended changes</h2>
    <table>
      <thead><tr><th scope="col">Edition</th><th scope="col">What changed</th><th scope="col">Why</th><th scope="col">Who</th></tr></thead>
      <tbody>
        {#each links.consents as one, index (index)}
          <tr><td>{one.edition}</td><td>{one.words}</td><td>{one.why}</td><td>{one.by}, {one.at.slice(0, 10)}</td></tr>
        {/each}
      </tbody>
    </table>
  {/if}

  {#if links}
    <h2>Published addresses</h2>
    <p class="quiet">Each version of a page, and the editions that had it: what its addresses meant did not change in between.</p>
    <table>
      <thead><tr><th scope="col">Page</th><th scope="col">Address</th><th scope="col">Editions 1 to {last}</th></tr></thead>
      <tbody>
        {#each links.pages as one (one.page + one.editions.join())}
          <tr>
            <th scope="row">{one.page}</th>
            <td><code>{one.address}</code></td>
            <td><EditionBars editions={one.editions} {last} /></td>
          </tr>
        {:else}<tr><td colspan="3">Nothing is published yet.</td></tr>{/each}
      </tbody>
    </table>
  {/if}
</ScreenPage>

<style>
  h2 {
    font: 600 1rem var(--plain);
    margin: 1.4rem 0 0.4rem;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 0.6rem;
    align-items: end;
    max-width: 52rem;
    margin-block: 0.5rem;
  }
  form > :global(:not(button)) {
    flex: 1 1 16rem;
  }
  table {
    border-collapse: collapse;
    background: var(--sheet);
    width: 100%;
    font-size: 0.875rem;
  }
  th,
  td {
    text-align: start;
    padding: 0.4rem 0.7rem;
    border-block-end: 1px solid var(--line);
    overflow-wrap: anywhere;
    vertical-align: top;
  }
  tbody th {
    font-weight: 400;
  }
  .end {
    text-align: end;
  }
  p {
    margin: 0.4rem 0;
  }
  .quiet {
    color: var(--quiet);
    font-size: 0.8125rem;
  }
  .bad {
    color: var(--bad);
  }
  code {
    font-family: var(--code);
  }
  .says {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
</style>
