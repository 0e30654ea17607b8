<script lang="ts">
  import { declareRecordBack, declareRecordGone, hasAddresses } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import RowForm from '../controls/RowForm.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import Note from '../controls/Note.svelte';

  interface Props {
    draft: Draft;
    collection: string;
    /** The texts of its fields. */
    record: Readonly<Record<string, string>>;
    /** Creates the record again. */
    onback: () => Promise<void>;
    onsaid: (sentence: string) => void;
  }
  const { draft, collection, record, onback, onsaid }: Props = $props();
  const definition = $derived(draft.definition);
  const key = $derived(record[definition?.collections?.[collection]?.keyField ?? ''] ?? '');
  const shared = $derived(definition !== undefined && hasAddresses(definition, collection));
  const declared = $derived(definition !== undefined && declareRecordBack(definition, collection, record).length > 0);
  let asked = $state(false);
  let reason = $state('');

  function declare(): void {
    if (definition === undefined) return;
    const sentence = reason.trim();
    draft.edit(declareRecordGone(definition, collection, record, sentence === '' ? {} : { reason: sentence }), `Declared ${key} as gone`);
    asked = false;
    onsaid(`Once you publish, links to ${key} tell visitors that it is gone.`);
  }
  async function bringBack(): Promise<void> {
    // The service refuses the key as long as the draft declares it as gone.
    if (definition !== undefined && declared) {
      draft.edit(declareRecordBack(definition, collection, record), `Brought ${key} back`);
      await draft.flush();
    }
    await onback();
  }
</script>

<p>
  <Button small onclick={bringBack}>Bring it back</Button>
  {#if shared && !declared}
    <Button small aria-expanded={asked} onclick={() => (asked = !asked)}>Tell visitors that it is gone</Button>
  {/if}
</p>
{#if asked}
  <RowForm label="Declare {key} as gone" onsubmit={declare}>
    <TextBox
      label="Message for visitors who follow a link to it"
      placeholder="It was removed."
      value={reason}
      focus
      onset={(text) => (reason = text)}
    />
    <Button type="submit">Declare it as gone</Button>
  </RowForm>
  <Note>No other record can take its key. This takes effect when you publish.</Note>
{/if}

<style>
  p {
    margin: 0.35rem 0;
  }
</style>
