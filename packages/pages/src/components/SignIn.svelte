<script lang="ts">
  import type { SignInNode } from '@pallmist/core/view';
  import Labelled from './Labelled.svelte';

  const { node }: { node: SignInNode } = $props();

  /** Browsers carry the part after “#” along to this page and send it nowhere: it goes on with the way back. */
  function withFragment(event: SubmitEvent) {
    const back = event.currentTarget instanceof HTMLFormElement ? event.currentTarget.elements.namedItem('~back') : null;
    if (back instanceof HTMLInputElement && back.value !== '' && !back.value.includes('#')) back.value += window.location.hash;
  }
</script>

{#if node.reason}<p class="reason" role="status">{node.reason}</p>{/if}
{#if node.signedInAs}
  <p>You are signed in as {node.signedInAs}. Signing in again changes the account.</p>
  <form class="out" method="post" action={node.signOut}>
    <button>Sign out here</button>
    <button name="~everywhere" value="yes">Sign out in every browser</button>
  </form>
{/if}
{#if node.entering}
  <form method="post" action={node.action}>
    <input type="hidden" name="~enter" value={node.entering.token} />
    <button>{node.entering.button}</button>
  </form>
{:else}
  <div class="ways">
    <form method="post" action={node.action} onsubmit={withFragment}>
      <input type="hidden" name="~back" value={node.back} />
      <Labelled label={node.name}>
        <input name="~name" autocomplete="username" required maxlength="100" autocapitalize="none" spellcheck="false" />
      </Labelled>
      <Labelled label={node.password}>
        <input name="~password" type="password" autocomplete="current-password" required maxlength="200" />
      </Labelled>
      <button>{node.button}</button>
    </form>
    {#if node.byMail}
      <form method="post" action={node.action} onsubmit={withFragment}>
        <input type="hidden" name="~back" value={node.back} />
        <Labelled label={node.byMail.label}>
          <input name="~mail" type="email" autocomplete="email" required maxlength="200" />
        </Labelled>
        <button class="second">{node.byMail.button}</button>
      </form>
    {/if}
  </div>
{/if}

<style>
  .reason {
    max-width: 32rem;
    border-inline-start: 0.3rem solid var(--leaf);
    background: var(--leaf-soft);
    padding: 0.6rem 0.9rem;
    border-radius: var(--round);
  }
  form {
    display: grid;
    gap: 0.9rem;
    max-width: 22rem;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 1.3rem;
    margin-block: 1rem;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    align-items: start;
    gap: 1rem;
    margin-block: 1rem;
  }
  .ways form {
    flex: 0 1 22rem;
    margin: 0;
  }
  form.out {
    display: flex;
    flex-wrap: wrap;
    background: none;
    border: 0;
    padding: 0;
    max-width: none;
  }
  button {
    justify-self: start;
    background: var(--leaf);
    color: var(--on-leaf);
    border: 0;
    border-radius: var(--round);
    padding: 0.55rem 1.4rem;
    cursor: pointer;
  }
  .out button,
  button.second {
    background: none;
    color: var(--leaf);
    border: 1px solid var(--leaf);
  }
</style>
