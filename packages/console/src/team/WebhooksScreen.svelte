<script lang="ts">
  import type { AnswerOf } from '@pallmist/api';
  import Button from '../controls/Button.svelte';
  import CheckBox from '../controls/CheckBox.svelte';
  import Group from '../controls/Group.svelte';
  import ListBox from '../controls/ListBox.svelte';
  import RowForm from '../controls/RowForm.svelte';
  import ScreenPage from '../controls/ScreenPage.svelte';
  import Table from '../controls/Table.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client, explain } from '../service/calls.ts';
  import Failure from '../controls/Failure.svelte';
  import Note from '../controls/Note.svelte';

  const { draft }: { draft: Draft } = $props();
  type Webhook = AnswerOf<'listWebhooks'>['webhooks'][number];
  type Event = Webhook['events'][number];
  const events: readonly { name: Event; label: string }[] = [
    { name: 'record.created', label: 'A form has added a record' },
    { name: 'record.changed', label: 'A form has changed a record' },
    { name: 'record.removed', label: 'A form has removed a record' },
  ];
  let webhooks: Webhook[] = $state.raw([]);
  let made: AnswerOf<'makeWebhook'> | undefined = $state.raw();
  let sent: { id: string; deliveries: AnswerOf<'listDeliveries'>['deliveries'] } | undefined = $state.raw();
  let said: string | undefined = $state();
  let url = $state('');
  let wanted: Event[] = $state(events.map(({ name }) => name));
  let collections: string[] | undefined = $state();

  async function run(work: () => Promise<AnswerOf<'makeWebhook'> | undefined>): Promise<void> {
    said = made = undefined;
    try {
      made = await work();
      ({ webhooks } = await client.call('listWebhooks', { app: draft.app }));
    } catch (error) {
      said = explain(error);
    }
  }
  void run(() => Promise.resolve(undefined));

  const make = () =>
    run(async () => {
      const body = { url: url.trim(), events: wanted, ...(collections === undefined ? {} : { collections }) };
      const answer = await client.call('makeWebhook', { app: draft.app }, body);
      url = '';
      return answer;
    });
  const renew = (id: string) => run(() => client.call('renewWebhookSecret', { app: draft.app, id }));
  const remove = (id: string) =>
    run(async () => {
      await client.call('removeWebhook', { app: draft.app, id });
      if (sent?.id === id) sent = undefined;
      return undefined;
    });
  async function show(id: string): Promise<void> {
    try {
      sent = { id, deliveries: (await client.call('listDeliveries', { app: draft.app, id })).deliveries };
    } catch (error) {
      said = explain(error);
    }
  }
</script>

<ScreenPage title="Webhooks">
  <p>
    Pallmist notifies your program when a form saves a record: it sends a signed message, and retries until the program accepts it. <a
      href="/~/docs/http"
      target="_blank"
      rel="noopener">How a program checks the signature</a
    >
  </p>
  <Failure text={said} />
  {#if made}
    <p role="status">The secret that signs the messages to {made.webhook.url} is shown once. Copy it now: <code>{made.secret}</code></p>
  {/if}
  {#if webhooks.length > 0}
    <Table head={['Address', 'When', 'Collections', '~Change']}>
      {#each webhooks as webhook (webhook.id)}
        <tr>
          <td><code>{webhook.url}</code></td>
          <td>{webhook.events.join(', ')}</td>
          <td>{webhook.collections.length === 0 ? 'all' : webhook.collections.join(', ')}</td>
          <td class="number">
            <Button small aria-label="What was sent to {webhook.url}" onclick={() => show(webhook.id)}>What was sent</Button>
            <Button small aria-label="New secret for {webhook.url}" onclick={() => renew(webhook.id)}>New secret</Button>
            <Button small look="danger" aria-label="Remove {webhook.url}" onclick={() => remove(webhook.id)}>Remove</Button>
          </td>
        </tr>
      {/each}
    </Table>
  {/if}
  {#if sent}
    <h2>What was sent</h2>
    {#if sent.deliveries.length === 0}<Note>No deliveries yet. Submit a form of the published app.</Note>
    {:else}
      <Table head={['When', 'Event', 'State', 'Tries', 'Problem']}>
        {#each sent.deliveries as delivery (delivery.number)}
          <tr>
            <td>{delivery.writtenAt.slice(0, 19).replace('T', ' ')}</td>
            <td>{delivery.type}</td>
            <td>{delivery.state}</td>
            <td>{delivery.tries}</td>
            <td>{delivery.problem}</td>
          </tr>
        {/each}
      </Table>
    {/if}
  {/if}
  <RowForm label="Make a webhook" onsubmit={make}>
    <TextBox label="Address of the program" code required placeholder="https://…" value={url} onset={(text) => (url = text)} />
    <ListBox
      label="Only records of these collections"
      code
      placeholder="all"
      value={collections}
      onset={(names) => (collections = names)}
    />
    <Group label="When">
      {#each events as event (event.name)}
        <CheckBox
          label={event.label}
          checked={wanted.includes(event.name)}
          onset={(checked) => (wanted = checked ? [...wanted, event.name] : wanted.filter((one) => one !== event.name))}
        />
      {/each}
    </Group>
    <Button type="submit" disabled={url.trim() === '' || wanted.length === 0}>Make the webhook</Button>
  </RowForm>
</ScreenPage>

<style>
  h2 {
    font: 600 1.05rem var(--text);
    margin-block: 1.2rem 0.4rem;
  }
  p {
    margin: 0.4rem 0;
    overflow-wrap: anywhere;
  }
</style>
