<script lang="ts">
  import type { Links } from '@pallmist/api';
  import { addFormerAddress } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import Table from '../controls/Table.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import Note from '../controls/Note.svelte';

  const { draft, tried }: { draft: Draft; tried: Links['tried'] } = $props();

  type Meant = NonNullable<Links['tried'][number]['meant']>;
  const patchFor = ({ page, template }: Meant) => (draft.definition ? addFormerAddress(draft.definition, page, template) : []);
</script>

<Note>
  No page has these addresses, and visitors follow them again and again: at least five times, on two days. Make one a former address of the
  page that was meant, and it leads there once you publish.
</Note>
<Table head={['Address', 'Visits', 'Last', 'Probably meant', '~Change']}>
  {#each tried as one (one.path)}
    <tr>
      <td><code>{one.path}</code></td>
      <td>{one.tries.toLocaleString('en')} on {one.days} days</td>
      <td>{one.day}</td>
      <td>
        {#if one.meant}<code>{one.meant.address}</code>{:else}<span class="quiet">no similar page</span>{/if}
      </td>
      <td class="number">
        {#if one.meant && me.mayChange}
          {@const meant = one.meant}
          {@const patch = patchFor(meant)}
          {#if patch.length > 0}
            <Button
              small
              aria-label="Make it a former address: {one.path} leads to {meant.page}"
              onclick={() => draft.edit(patch, `${meant.template} leads to the page “${meant.page}”`)}>Make it a former address</Button
            >
          {:else}<span class="quiet">in the draft</span>{/if}
        {/if}
      </td>
    </tr>
  {/each}
</Table>

<style>
  .quiet {
    color: var(--quiet);
    font-size: 0.8125rem;
  }
  code {
    font-family: var(--code);
  }
</style>
