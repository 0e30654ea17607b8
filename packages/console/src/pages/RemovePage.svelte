<script lang="ts">
  import { canLeadTo, describePlace, pageTitle, removePage, usesOfPage } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import Modal from '../controls/Modal.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';

  const { draft, page, onclose }: { draft: Draft; page: string; onclose: () => void } = $props();
  const definition = $derived(draft.definition);
  const title = $derived(pageTitle(definition?.pages[page]?.title ?? '', page));
  const uses = $derived(definition ? usesOfPage(definition, page) : []);
  const heirs = $derived(
    Object.entries(definition?.pages ?? {}).flatMap(([name, other]) =>
      definition && canLeadTo(definition, page, name) ? [{ value: name, label: pageTitle(other.title, name) }] : [],
    ),
  );
  const published = $derived(draft.publishedEdition?.pages[page] !== undefined);
  let leadTo: string | undefined = $state();

  function remove() {
    if (definition) draft.edit(removePage(definition, page, leadTo), `Removed the page “${title}”`);
    onclose();
  }
</script>

<Modal title="Remove “{title}”" {onclose}>
  {#if uses.length > 0}
    <p>These links will break:</p>
    <ul>
      {#each uses as use (use.pointer)}<li>{describePlace(definition ?? { pages: {} }, use.pointer).words}</li>{/each}
    </ul>
  {:else}<p>Nothing in the app leads to it.</p>{/if}
  {#if published}<p>It is published: people may have its address.</p>{/if}
  {#if heirs.length > 0}
    <ChoiceBox
      label="Its addresses then lead"
      value={leadTo}
      none="nowhere"
      options={heirs}
      help="Old addresses still work: they lead to the page that you choose."
      onset={(name) => (leadTo = name)}
    />
  {/if}
  {#snippet actions()}
    <Button onclick={onclose}>Keep it</Button>
    <Button look="danger" onclick={remove}>Remove the page</Button>
  {/snippet}
</Modal>

<style>
  p {
    margin: 0 0 0.5rem;
  }
  ul {
    margin: 0 0 0.8rem;
    padding-inline-start: 1.2rem;
  }
</style>
