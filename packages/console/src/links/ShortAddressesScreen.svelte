<script lang="ts">
  import type { AnswerOf } from '@pallmist/api';
  import ScreenPage from '../controls/ScreenPage.svelte';
  import Button from '../controls/Button.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';

  const { draft }: { draft: Draft } = $props();
  let found: AnswerOf<'listShort'> | undefined = $state.raw();
  let address = $state('');
  let days = $state('');
  let said: string | undefined = $state();

  async function load() {
    try {
      found = await client.call('listShort', { app: draft.app });
    } catch (error) {
      said = explain(error);
    }
  }
  void load();
  async function make(event: SubmitEvent) {
    event.preventDefault();
    said = undefined;
    try {
      await client.call('makeShort', { app: draft.app }, { address: address.trim(), ...(days === '' ? {} : { days: Number(days) }) });
      address = '';
    } catch (error) {
      said = explain(error);
    }
    await load();
  }
  async function withdraw(code: string) {
    try {
      await client.call('withdrawShort', { app: draft.app, code });
      said = 'The short address no longer works.';
    } catch (error) {
      said = explain(error);
    }
    await load();
  }
</script>

<ScreenPage title="Short addresses">
  <p>They lead to a page of the published app with its values, and follow it when its address changes.</p>
  {#if found}
    <ul>
      {#each found.shortAddresses as one (one.code)}
        <li>
          <span
            ><a href={one.short} target="_blank" rel="noopener"><code>{one.short}</code></a> leads to
            <code>{one.address}</code>{one.endsAt ? `, until ${one.endsAt.slice(0, 10)}` : ''}</span
          >
          {#if one.printedOn !== null}<span class="printed">printed on {one.printedOn}</span>
          {:else if me.mayChange}<Button small look="danger" aria-label="Withdraw {one.code}" onclick={() => withdraw(one.code)}
              >Withdraw</Button
            >{/if}
        </li>
      {:else}<li>None yet.</li>{/each}
    </ul>
  {/if}
  {#if me.mayChange}
    <form onsubmit={make}>
      <TextBox
        label="Address in the app"
        code
        required
        value={address}
        placeholder="{draft.definition?.mount}/…"
        onset={(text) => (address = text)}
      />
      <TextBox label="Valid for, in days" type="number" value={days} placeholder="for ever" onset={(text) => (days = text)} />
      <div><Button type="submit" look="main" disabled={address.trim() === ''}>Make a short address</Button></div>
    </form>
  {/if}
  <p role="status">{said ?? ''}</p>
</ScreenPage>

<style>
  p {
    margin: 0.4rem 0 0.8rem;
  }
  ul {
    list-style: none;
    margin: 0 0 1rem;
    padding: 0;
    border-block-start: 1px solid var(--line);
  }
  li {
    display: flex;
    gap: 0.6rem;
    padding: 0.35rem 0;
    border-block-end: 1px solid var(--line);
    overflow-wrap: anywhere;
  }
  li span:first-child {
    flex: 1;
  }
  .printed {
    color: var(--quiet);
  }
  form {
    display: grid;
    gap: 0.6rem;
    max-width: 30rem;
  }
</style>
