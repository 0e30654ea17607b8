<script lang="ts">
  import type { AddressStep } from './page-in-frame.svelte.ts';

  interface Props {
    steps: readonly AddressStep[];
    /** The address as the public will see it. */
    ofApp: (address: string) => string;
    /** What a place of the page is called. */
    componentAt: (place: string | undefined) => string | undefined;
  }
  const { steps, ofApp, componentAt }: Props = $props();
  const causes: Record<string, string> = {
    arrival: 'a page was loaded',
    change: 'a value was changed',
    link: 'a link was followed',
    history: 'Back or Forward',
    order: 'the address above the page was changed',
    refresh: 'the draft was changed',
  };
</script>

<ol reversed>
  {#each steps.toReversed() as step, index (steps.length - index)}
    <li>
      <code>{ofApp(step.address)}</code>
      <span>{causes[step.cause] ?? step.cause}{componentAt(step.place) ? `, by ${componentAt(step.place)}` : ''}</span>
    </li>
  {/each}
</ol>

<style>
  ol {
    margin: 0;
    padding-inline-start: 2rem;
    font-size: 0.8125rem;
  }
  code {
    overflow-wrap: anywhere;
  }
  span {
    color: var(--quiet);
  }
</style>
