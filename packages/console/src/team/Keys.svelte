<script lang="ts">
  import Button from '../controls/Button.svelte';
  import { client, explain } from '../service/calls.ts';
  import Tokens from './Tokens.svelte';

  let asked = $state(client.call('listKeys', {}));
  let said: string | undefined = $state();
  let token: string | undefined = $state();

  async function run(work: () => Promise<string>) {
    try {
      said = await work();
    } catch (error) {
      said = explain(error);
    }
    asked = client.call('listKeys', {});
  }
</script>

<h1>Keys and sessions</h1>
<h2>Keys that seal values in addresses</h2>
{#await asked then { keys }}
  <ul>
    {#each keys as key (key.id)}
      <li>
        <code>{key.id}</code> made {key.madeAt.slice(0, 10)}{key.current ? ', seals now' : ', still opens'}
        {#if !key.current}<Button
            small
            look="danger"
            onclick={() =>
              run(() =>
                client
                  .call('forgetKey', { id: key.id })
                  .then(() => 'The key is forgotten: values that it sealed can no longer be decrypted.'),
              )}>Forget it</Button
          >{/if}
      </li>
    {/each}
  </ul>
{:catch error}<p role="alert">{explain(error)}</p>{/await}
<p>
  <Button onclick={() => run(() => client.call('rotateKeys', {}).then(() => 'A new key seals from now on; older ones still open.'))}
    >Make a new key</Button
  >
</p>
<h2>The owner’s token and sessions</h2>
<p>
  <Button
    onclick={() =>
      run(async () => {
        ({ token } = await client.call('renewToken', {}));
        return 'A new token is made; the one before is void.';
      })}>Make a new token</Button
  >
  <Button
    look="danger"
    onclick={() =>
      run(() =>
        client
          .call('endConsoleSessions', {})
          .then(({ ended }) => `The console is closed in ${ended} ${ended === 1 ? 'browser' : 'browsers'}, this one too.`),
      )}>Close the owner’s console everywhere</Button
  >
</p>
{#if token}<p>It is shown once. You can also find it in the file <code>api-token</code>: <code>{token}</code></p>{/if}
<p role="status">{said ?? ''}</p>
<Tokens />

<style>
  h1 {
    font: 600 1.5rem var(--text);
  }
  h2 {
    font: 600 1.05rem var(--text);
    margin-block: 1.2rem 0.4rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 0.3rem;
  }
  p {
    overflow-wrap: anywhere;
  }
</style>
