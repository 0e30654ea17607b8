<script lang="ts">
  import type { Draft } from '../draft/draft.svelte.ts';
  import Gates from './Gates.svelte';
  import PeopleList from './PeopleList.svelte';
  import SignInSettings from './SignInSettings.svelte';

  const { draft }: { draft: Draft } = $props();
</script>

<main>
  <PeopleList {draft} />
  <div>
    <Gates {draft} />
    <SignInSettings {draft} />
  </div>
</main>

<style>
  main {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(26rem, 100%), 1fr));
    gap: 2rem;
    padding: 1rem 1.2rem;
    max-width: 80rem;
    margin-inline: auto;
  }
</style>
