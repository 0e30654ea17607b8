<script lang="ts">
  import { describePlace } from '@pallmist/app/editing';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { placeLink } from './place-link.ts';

  interface Props {
    draft: Draft;
    places: readonly { pointer: string; how?: string }[];
    /** The text for an empty list. */
    none: string;
  }
  const { draft, places, none }: Props = $props();
</script>

{#if draft.definition}
  {@const { definition } = draft}
  <ul>
    {#each places as { pointer, how } (`${how ?? ''} ${pointer}`)}
      {@const link = placeLink(draft.app, definition, pointer)}
      <li>
        {#if how !== undefined}<span>{how}</span>{/if}
        <a href={link.href} onclick={link.follow}>{describePlace(definition, pointer).words}</a>
      </li>
    {:else}<li><span>{none}</span></li>{/each}
  </ul>
{/if}

<style>
  ul {
    margin: 0;
    padding-inline-start: 1.1rem;
    font-size: 0.875rem;
  }
  span {
    color: var(--quiet);
    font-size: 0.8125rem;
  }
</style>
