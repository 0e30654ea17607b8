<script lang="ts">
  import type { KeepingForm } from '@pallmist/app/view';
  import type { Snippet } from 'svelte';
  import HiddenFields from './HiddenFields.svelte';
  import type { TypedTexts } from '../typed-texts.svelte.ts';
  import type { LivePage } from '../live-page.ts';
  import SubmitButton from './SubmitButton.svelte';

  const { form, live, typed, children }: { form: KeepingForm; live: LivePage; typed?: TypedTexts; children: Snippet } = $props();
</script>

<!-- A form of its own, which keeps what it does not show; with JavaScript it is never sent. -->
<form method="get" action={form.action} oninput={typed?.take} onsubmit={(event) => live.hydrated && event.preventDefault()}>
  <HiddenFields {form} />
  {@render children()}
  {#if !live.hydrated}<SubmitButton tone="second">{live.shown.say('Apply')}</SubmitButton>{/if}
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
