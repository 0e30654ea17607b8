<script lang="ts">
  import type { Traced } from '@pallmist/api';
  import Button from '../controls/Button.svelte';
  import RowForm from '../controls/RowForm.svelte';
  import Table from '../controls/Table.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import { client, explain } from '../service/calls.ts';
  import { place } from '../service/place.svelte.ts';
  import Failure from '../controls/Failure.svelte';
  import Note from '../controls/Note.svelte';

  const { app }: { app: string } = $props();
  let wanted = $state(place.text('address') ?? '');
  let traced: { address: string; told: Traced } | undefined = $state.raw();
  let said: string | undefined = $state();

  // The address that is tried is in the console's own address: Back tries the one before.
  const tried = $derived(place.text('address'));
  $effect(() => {
    const address = tried;
    if (address === undefined) traced = undefined;
    else void trace(address);
  });
  async function trace(address: string) {
    said = undefined;
    try {
      traced = { address, told: await client.call('traceAddress', { app }, { address }) };
    } catch (error) {
      said = explain(error);
    }
  }
  const tryIt = () => {
    place.change({ address: wanted.trim() === '' ? undefined : wanted.trim() });
  };

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

<RowForm label="Try an old link" onsubmit={tryIt}>
  <TextBox label="Address" code value={wanted} placeholder="/garden/specimens/QM-0412" onset={(text) => (wanted = text)} />
  <Button type="submit" look="main">Try it</Button>
</RowForm>
<Failure text={said} />
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
      <Table head={['Read by', 'Page', 'Values']}>
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
      </Table>
      <Note>Values in grey are defaults: the address does not have them.</Note>
    {:else}<p>No edition knew it.</p>{/if}
  </section>
{/if}

<style>
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
</style>
