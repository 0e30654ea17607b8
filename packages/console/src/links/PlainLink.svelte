<script lang="ts">
  import { valueAt, type LinkDefinition } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import LinkEditor from './LinkEditor.svelte';

  interface Props {
    draft: Draft;
    label: string;
    help?: string | undefined;
    /** JSON Pointer of the link. */
    pointer: string;
    /** Whether it may be left out. */
    optional?: boolean;
  }
  const { draft, label, help, pointer, optional = false }: Props = $props();
  /** It stands on no page that could be shown beside it. */
  const frame = new PageInFrame();
  const link = $derived(valueAt(draft.data, pointer) as LinkDefinition | undefined);
  const first = $derived(Object.keys(draft.definition?.pages ?? {})[0]);
</script>

{#if link === undefined}
  {#if me.mayChange && first !== undefined}
    <div>
      <Button small onclick={() => draft.set(pointer, { page: first }, `Added: ${label.toLowerCase()}`)}>Add: {label.toLowerCase()}</Button>
    </div>
    {#if help}<p>{help}</p>{/if}
  {/if}
{:else}
  <LinkEditor
    {draft}
    page=""
    {frame}
    {label}
    {help}
    {pointer}
    {link}
    row={undefined}
    onremove={optional ? () => draft.set(pointer, undefined, `Took out: ${label.toLowerCase()}`) : undefined}
  />
{/if}

<style>
  p {
    margin: 0;
    font-size: 0.8125rem;
    color: var(--quiet);
  }
</style>
