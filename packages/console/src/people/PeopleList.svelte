<script lang="ts">
  import type { AnswerOf } from '@pallmist/api';
  import ListBox from '../controls/ListBox.svelte';
  import Button from '../controls/Button.svelte';
  import { noneYet } from '../controls/none-yet.ts';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';

  const { draft }: { draft: Draft } = $props();
  const empty = { login: '', name: '', password: '', roles: [] as string[], mail: '' };
  let people: AnswerOf<'listPeople'>['people'] | undefined = $state.raw();
  let form = $state({ ...empty });
  let said: string | undefined = $state();
  const roles = $derived([...new Set(Object.values(draft.definition?.gates ?? {}).flatMap((gate) => gate.roles ?? []))]);

  async function load() {
    try {
      people = (await client.call('listPeople', { app: draft.app })).people;
    } catch (error) {
      said = explain(error);
    }
  }
  void load();

  async function save(event: SubmitEvent) {
    event.preventDefault();
    said = undefined;
    const { login, mail, ...given } = $state.snapshot(form);
    try {
      await client.call('putPerson', { app: draft.app, login }, { ...given, ...(mail === '' ? {} : { mail }) });
      said = `${given.name} can sign in as ${login}.`;
      form = { ...empty };
    } catch (error) {
      said = explain(error);
    }
    await load();
  }
  async function remove(login: string) {
    try {
      await client.call('removePerson', { app: draft.app, login });
      said = `${login} can no longer sign in.`;
    } catch (error) {
      said = explain(error);
    }
    await load();
  }
</script>

<section aria-label="People">
  <h1>People</h1>
  <p>They sign in to the published app and to the draft. Changes take effect at once.</p>
  <ul>
    {#each people ?? [] as person (person.login)}
      <li>
        <span><strong>{person.name}</strong> <code>{person.login}</code> {person.roles.join(', ')} {person.mail ?? ''}</span>
        {#if me.mayChange}
          <Button small look="quiet" onclick={() => (form = { ...empty, ...person, mail: person.mail ?? '' })}>Change</Button>
          <Button small look="danger" aria-label="Remove {person.name}" onclick={() => remove(person.login)}>Remove</Button>
        {/if}
      </li>
    {:else}<li>{noneYet(people, 'Nobody can sign in yet. Add the first person below.', said)}</li>{/each}
  </ul>
  {#if me.mayChange}
    <form onsubmit={save}>
      <h2>Add or change a person</h2>
      <TextBox label="Login name" code required value={form.login} onset={(text) => (form.login = text)} />
      <TextBox label="Name" required value={form.name} onset={(text) => (form.name = text)} />
      <TextBox
        label="Password"
        type="password"
        autocomplete="new-password"
        required
        value={form.password}
        help="A new one ends their sessions."
        onset={(text) => (form.password = text)}
      />
      <ListBox
        label="Roles"
        value={form.roles}
        list="roles"
        placeholder="none"
        help="Separated by commas. Gates can require roles."
        onset={(roles) => (form.roles = roles ?? [])}
      />
      <datalist id="roles"
        >{#each roles as role (role)}<option value={role}></option>{/each}</datalist
      >
      <TextBox
        label="Mail address"
        type="email"
        value={form.mail}
        placeholder="none"
        help="Where sign-in links go, if sign-in by mail is on."
        onset={(text) => (form.mail = text)}
      />
      <div><Button type="submit" look="main">Save</Button></div>
    </form>
  {/if}
  <p role="status">{said ?? ''}</p>
</section>

<style>
  h1 {
    font: 600 1.3rem var(--text);
  }
  h2 {
    font: 600 1rem var(--plain);
  }
  p {
    margin: 0.3rem 0 0.7rem;
    color: var(--quiet);
  }
  ul {
    list-style: none;
    margin: 0 0 1rem;
    padding: 0;
    border-block-start: 1px solid var(--line);
  }
  li {
    display: flex;
    gap: 0.5rem;
    align-items: center;
    padding: 0.3rem 0;
    border-block-end: 1px solid var(--line);
  }
  li span {
    flex: 1;
    overflow-wrap: anywhere;
  }
  code {
    color: var(--quiet);
  }
  form {
    display: grid;
    gap: 0.6rem;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 0.9rem;
  }
</style>
