<script lang="ts">
  import type { BuilderAccount } from '@pallmist/api';
  import Button from '../controls/Button.svelte';
  import { noneYet } from '../controls/none-yet.ts';
  import TextBox from '../controls/TextBox.svelte';
  import { client, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';

  type Role = BuilderAccount['role'];
  const roles: Record<Role, string> = {
    owner: 'owner: everything, with team and keys',
    builder: 'builder: changes and publishes apps',
    viewer: 'viewer: looks at drafts and tries them',
  };
  let builders: readonly BuilderAccount[] | undefined = $state.raw();
  let mail = $state('');
  let role: Role = $state('builder');
  let send = $state(false);
  let link: string | undefined = $state();
  let said: string | undefined = $state();

  async function load() {
    try {
      builders = (await client.call('listBuilders', {})).builders;
    } catch (error) {
      said = explain(error);
    }
  }
  void load();

  async function run(work: () => Promise<unknown>, done: string) {
    said = undefined;
    try {
      await work();
      said = done;
    } catch (error) {
      said = explain(error);
    }
    await load();
  }
  function invite(event: SubmitEvent) {
    event.preventDefault();
    void run(async () => {
      link = (await client.call('inviteBuilder', {}, { mail: mail.trim(), role, send })).link;
      mail = '';
    }, 'The invitation is open for seven days.');
  }
</script>

<h1>Team</h1>
<p>The owner needs no account. Invite others to give them one.</p>
<ul>
  {#each builders ?? [] as builder (builder.id)}
    <li>
      <span
        ><strong>{builder.name === '' ? builder.mail : builder.name}</strong>
        {builder.name === '' ? '' : builder.mail}{builder.invited ? ', invited' : ''}</span
      >
      {#if me.isOwner}
        <select
          aria-label="Role of {builder.mail}"
          value={builder.role}
          onchange={({ currentTarget }) =>
            run(() => client.call('setBuilderRole', { id: builder.id }, { role: currentTarget.value as Role }), 'The role is changed.')}
        >
          {#each Object.entries(roles) as [name, words] (name)}<option value={name}>{words}</option>{/each}
        </select>
        <Button
          small
          look="danger"
          onclick={() => run(() => client.call('removeBuilder', { id: builder.id }), `${builder.mail} is removed.`)}>Remove</Button
        >
      {:else}<span>{builder.role}</span>{/if}
    </li>
  {:else}<li>{noneYet(builders, 'There are no other builders yet.', said)}</li>{/each}
</ul>
{#if me.isOwner}
  <form onsubmit={invite}>
    <h2>Invite a builder</h2>
    <TextBox label="Mail address" type="email" required value={mail} onset={(text) => (mail = text)} />
    <label
      >Role
      <select bind:value={role}
        >{#each Object.entries(roles) as [name, words] (name)}<option value={name}>{words}</option>{/each}</select
      >
    </label>
    <label class="line"
      ><input type="checkbox" bind:checked={send} /> Send the link by mail (it goes to the outbox if no mail server is set)</label
    >
    <div><Button type="submit" look="main" disabled={mail.trim() === ''}>Invite</Button></div>
  </form>
{/if}
<p role="status">{said ?? ''}</p>
{#if link}<p>Send them this link. It works once:<br /><code>{link}</code></p>{/if}

<style>
  h1 {
    font: 600 1.5rem var(--text);
  }
  h2 {
    font: 600 1.05rem var(--text);
  }
  p {
    margin: 0.4rem 0 0.8rem;
    overflow-wrap: anywhere;
  }
  ul {
    list-style: none;
    margin: 0 0 1.2rem;
    padding: 0;
    border-block-start: 1px solid var(--line);
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 1rem;
    align-items: center;
    padding: 0.45rem 0;
    border-block-end: 1px solid var(--line);
  }
  li span:first-child {
    flex: 1;
  }
  form {
    display: grid;
    gap: 0.7rem;
    max-width: 30rem;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 1rem;
  }
  label {
    display: grid;
    gap: 0.2rem;
    font-weight: 600;
    font-size: 0.875rem;
  }
  .line {
    display: flex;
    gap: 0.5rem;
    font-weight: 400;
  }
  select {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.2rem;
  }
</style>
