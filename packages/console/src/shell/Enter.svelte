<script lang="ts">
  import Button from '../controls/Button.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import { client, explain } from '../service/calls.ts';
  import Failure from '../controls/Failure.svelte';
  import Note from '../controls/Note.svelte';

  interface Props {
    refused: string | undefined;
    /** The key of an invitation. */
    invitation: string | undefined;
    onentered: () => void;
  }
  const { refused, invitation, onentered }: Props = $props();
  let name = $state('');
  let mail = $state('');
  let password = $state('');
  let failure: string | undefined = $state();
  let working = $state(false);

  async function send(event: SubmitEvent) {
    event.preventDefault();
    working = true;
    failure = undefined;
    try {
      if (invitation === undefined) await client.call('signInBuilder', {}, { mail, password });
      else await client.call('acceptInvitation', {}, { key: invitation, name, password });
      onentered();
    } catch (error) {
      failure = explain(error);
    } finally {
      working = false;
    }
  }
</script>

<main>
  <h1><img src="/~/console/icon.svg" alt="" width="32" height="32" /> Pallmist</h1>
  <Failure text={refused} />
  <form onsubmit={send}>
    {#if invitation === undefined}
      <h2>Sign in to the console</h2>
      <TextBox label="Mail address" type="email" autocomplete="username" value={mail} required onset={(value) => (mail = value)} />
      <TextBox
        label="Password"
        type="password"
        autocomplete="current-password"
        value={password}
        required
        onset={(value) => (password = value)}
      />
    {:else}
      <h2>You are invited</h2>
      <p>Choose a display name and a password.</p>
      <TextBox label="Your name" autocomplete="name" value={name} required onset={(value) => (name = value)} />
      <TextBox
        label="Password"
        type="password"
        autocomplete="new-password"
        help="At least eight characters, and not a common password."
        value={password}
        required
        onset={(value) => (password = value)}
      />
    {/if}
    <Failure text={failure} />
    <div><Button type="submit" look="main" disabled={working}>{invitation === undefined ? 'Sign in' : 'Open the console'}</Button></div>
  </form>
  {#if invitation === undefined}
    <Note>
      The owner opens the console by its one-time link. The service prints it when it starts, and keeps it in the file
      <code>console-link.txt</code> of the data directory.
    </Note>
  {/if}
</main>

<style>
  main {
    max-width: 26rem;
    margin: 3rem auto;
    padding: 0 1rem;
    display: grid;
    gap: 1rem;
  }
  h1 {
    font: 600 1.6rem var(--text);
    display: flex;
    align-items: center;
    gap: 0.6rem;
  }
  h2 {
    font: 600 1.1rem var(--text);
  }
  form {
    display: grid;
    gap: 0.8rem;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 1.2rem;
  }
  p {
    margin: 0;
  }
</style>
