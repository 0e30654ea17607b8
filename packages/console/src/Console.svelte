<script lang="ts">
  import { client, explain, keyInLink, needsSignIn } from './service/calls.ts';
  import { me } from './service/me.svelte.ts';
  import { place, type ConsolePage } from './service/place.svelte.ts';
  import AppWorkbench from './shell/AppWorkbench.svelte';
  import Enter from './shell/Enter.svelte';
  import ServiceScreens from './shell/ServiceScreens.svelte';

  const outside: readonly ConsolePage[] = ['apps', 'new', 'outbox', 'team', 'keys'];
  let link = $state.raw(keyInLink());
  let refused: string | undefined = $state();
  const app = $derived(outside.includes(place.page) ? undefined : place.text('app'));

  async function enter(): Promise<'in' | 'out'> {
    if (link?.kind === 'owner') {
      const { key } = link;
      link = undefined;
      await client.call('enterConsole', {}, { key }).catch((error: unknown) => {
        refused = explain(error);
      });
    }
    if (link?.kind === 'invited') return 'out';
    try {
      me.builder = await client.call('whoAmI', {});
      return 'in';
    } catch (error) {
      if (!needsSignIn(error)) refused = explain(error);
      return 'out';
    }
  }
  let entered = $state(enter());
</script>

{#await entered}
  <p class="wait">Opening the console …</p>
{:then at}
  {#if at === 'out'}
    <Enter
      {refused}
      invitation={link?.key}
      onentered={() => {
        link = undefined;
        refused = undefined;
        entered = enter();
      }}
    />
  {:else if app !== undefined}
    {#key app}<AppWorkbench {app} />{/key}
  {:else}
    <ServiceScreens />
  {/if}
{/await}

<style>
  .wait {
    margin: 4rem auto;
    width: fit-content;
  }
</style>
