<script lang="ts">
  import type { KeepingForm } from '@pallmist/app/view';
  import type { Snippet } from 'svelte';
  import Keeps from './Keeps.svelte';
  import type { LivePage } from '../live-page.ts';
  import Press from './Press.svelte';

  const { form, live, children }: { form: KeepingForm; live: LivePage; children: Snippet } = $props();
</script>

<!-- A form of its own, which keeps what it does not show; with JavaScript it is never sent. -->
<form method="get" action={form.action} onsubmit={(event) => live.taken && event.preventDefault()}>
  <Keeps {form} />
  {@render children()}
  {#if !live.taken}<Press tone="second">Apply</Press>{/if}
</form>

<style>
  form {
    display: inline-flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 0.4rem;
    margin: 0.3rem 1rem 0.6rem 0;
    max-width: 100%;
  }
</style>
