<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import Labelled from './Labelled.svelte';
  import SubmitButton from './SubmitButton.svelte';
  import FormCard from './FormCard.svelte';

  const { node, live }: { node: NodeOf<'sign-in'>; live: LivePage } = $props();

  /** Browsers carry the part after “#” along to this page and send it nowhere: it goes on with the way back. */
  function withFragment(event: SubmitEvent) {
    const back = event.currentTarget instanceof HTMLFormElement ? event.currentTarget.elements.namedItem('~wanted') : null;
    if (back instanceof HTMLInputElement && back.value !== '' && !back.value.includes('#')) back.value += window.location.hash;
  }
</script>

{#if node.reason}<p class="reason" role="status">{node.reason}</p>{/if}
{#if node.signedInAs}
  <p>{live.shown.say('You are signed in as {0}. Signing in again changes the account.', node.signedInAs)}</p>
  <form class="out" method="post" action={node.signOut}>
    <SubmitButton tone="second">{live.shown.say('Sign out here')}</SubmitButton>
    <SubmitButton tone="second" name="~everywhere" value="yes">{live.shown.say('Sign out in every browser')}</SubmitButton>
  </form>
{/if}
<div class="ways">
  {#if node.entering}
    <form method="post" action={node.action}>
      <input type="hidden" name="~enter" value={node.entering.token} />
      <FormCard><SubmitButton>{node.entering.button}</SubmitButton></FormCard>
    </form>
  {:else}
    <form method="post" action={node.action} onsubmit={withFragment}>
      <input type="hidden" name="~wanted" value={node.back} />
      <FormCard>
        <Labelled label={node.name}>
          <input name="~name" autocomplete="username" required maxlength="100" autocapitalize="none" spellcheck="false" />
        </Labelled>
        <Labelled label={node.password}>
          <input name="~password" type="password" autocomplete="current-password" required maxlength="200" />
        </Labelled>
        <SubmitButton>{node.button}</SubmitButton>
      </FormCard>
    </form>
    {#if node.byMail}
      <form method="post" action={node.action} onsubmit={withFragment}>
        <input type="hidden" name="~wanted" value={node.back} />
        <FormCard>
          <Labelled label={node.byMail.label}>
            <input name="~mail" type="email" autocomplete="email" required maxlength="200" />
          </Labelled>
          <SubmitButton tone="second">{node.byMail.button}</SubmitButton>
        </FormCard>
      </form>
    {/if}
  {/if}
</div>

<style>
  .reason {
    max-width: 32rem;
    border-inline-start: 0.3rem solid var(--leaf);
    background: var(--leaf-soft);
    padding: 0.6rem 0.9rem;
    border-radius: var(--round);
  }
  .ways,
  .out {
    display: flex;
    flex-wrap: wrap;
    align-items: start;
    gap: 1rem;
    margin-block: 1rem;
  }
  .ways form {
    flex: 0 1 22rem;
  }
</style>
