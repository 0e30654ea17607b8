<script lang="ts">
  import ScreenPage from '../controls/ScreenPage.svelte';
  import EmptyState from '../controls/EmptyState.svelte';
  import ProblemList from '../controls/ProblemList.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { placeLink } from './place-link.ts';

  const { draft }: { draft: Draft } = $props();
  const order = { error: 0, warning: 1, note: 2 };
  const problems = $derived([...draft.checked.problems].sort((one, other) => order[one.severity] - order[other.severity]));
</script>

<ScreenPage title="Problems">
  {#if problems.length === 0}
    <EmptyState title="No problems"
      ><p>The check finds nothing wrong. Errors would keep the app from being published; warnings would not.</p></EmptyState
    >
  {:else}
    <p>
      {draft.errors}
      {draft.errors === 1 ? 'error' : 'errors'}, {draft.warnings}
      {draft.warnings === 1 ? 'warning' : 'warnings'}. Errors keep the app from being published.
    </p>
    <ProblemList
      {problems}
      placeOf={(problem) => placeLink(draft.app, draft.definition ?? ({ pages: {} } as never), problem.pointer ?? '')}
      onfix={me.mayChange ? (patch, problem) => draft.edit(patch, `Fixed: ${problem.message}`) : undefined}
    />
  {/if}
</ScreenPage>

<style>
  p {
    margin: 0 0 0.6rem;
  }
</style>
