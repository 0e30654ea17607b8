<script lang="ts">
  import { scopes, type AnswerOf, type Scope } from '@pallmist/api';
  import Button from '../controls/Button.svelte';
  import CheckBox from '../controls/CheckBox.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import Group from '../controls/Group.svelte';
  import RowForm from '../controls/RowForm.svelte';
  import Table from '../controls/Table.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import { client, explain } from '../service/calls.ts';
  import Failure from '../controls/Failure.svelte';
  import Note from '../controls/Note.svelte';

  type Made = AnswerOf<'makeToken'>;
  let tokens: AnswerOf<'listTokens'>['tokens'] = $state.raw([]);
  let apps: string[] = $state.raw([]);
  let made: Made | undefined = $state.raw();
  let said: string | undefined = $state();
  let name = $state('');
  let app: string | undefined = $state();
  let days = $state('');
  let chosen: Scope[] = $state([]);

  async function load(): Promise<void> {
    ({ tokens } = await client.call('listTokens', {}));
    apps = (await client.call('listApps', {})).apps.map((one) => one.app);
  }
  async function run(work: () => Promise<Made | undefined>): Promise<void> {
    said = made = undefined;
    try {
      made = await work();
      await load();
    } catch (error) {
      said = explain(error);
    }
  }
  void run(() => Promise.resolve(undefined));

  const make = () =>
    run(async () => {
      const body = { name, scopes: chosen, ...(app === undefined ? {} : { app }), ...(days === '' ? {} : { days: Number(days) }) };
      const answer = await client.call('makeToken', {}, body);
      name = days = '';
      chosen = [];
      return answer;
    });
  const renew = (id: string) => run(() => client.call('renewScopedToken', { id }));
  const end = (id: string) =>
    run(async () => {
      await client.call('endToken', { id });
      return undefined;
    });
</script>

<h2>Tokens for programs</h2>
<Note>A token lets a program do what its scopes allow, for one app or all apps, until it expires.</Note>
<Failure text={said} />
{#if made}
  <p role="status">The token “{made.made.name}” is shown once. Copy it now: <code>{made.token}</code></p>
{/if}
{#if tokens.length > 0}
  <Table head={['Token', 'May', 'For', 'Ends', 'Last used', '~Change']}>
    {#each tokens as token (token.id)}
      <tr>
        <td>{token.name}</td>
        <td><code>{token.scopes.join(' ')}</code></td>
        <td>{token.app ?? 'all apps'}</td>
        <td>{token.endsAt?.slice(0, 10) ?? 'never'}</td>
        <td>{token.usedOn ?? 'never'}</td>
        <td class="number">
          <Button small aria-label="Renew {token.name}" onclick={() => renew(token.id)}>Renew</Button>
          <Button small look="danger" aria-label="End {token.name}" onclick={() => end(token.id)}>End</Button>
        </td>
      </tr>
    {/each}
  </Table>
{/if}
<RowForm label="Make a token" onsubmit={make}>
  <TextBox label="What it is for" required placeholder="Nightly export" value={name} onset={(text) => (name = text)} />
  <ChoiceBox label="For" value={app} none="all apps" options={apps} onset={(one) => (app = one)} />
  <TextBox label="Ends after, in days" type="number" placeholder="never" value={days} onset={(text) => (days = text)} />
  <Group label="What it may do">
    {#each Object.entries(scopes) as [scope, sentence] (scope)}
      <CheckBox
        label={scope}
        help={sentence}
        checked={chosen.includes(scope as Scope)}
        onset={(checked) => (chosen = checked ? [...chosen, scope as Scope] : chosen.filter((one) => one !== scope))}
      />
    {/each}
  </Group>
  <Button type="submit" disabled={name.trim() === '' || chosen.length === 0}>Make the token</Button>
</RowForm>

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
