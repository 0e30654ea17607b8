<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { copyPage, pageTitle, renamePage, retitlePage, usesOfPage } from '@pallmist/app/editing';
  import ListBox from '../controls/ListBox.svelte';
  import GuideLink from '../controls/GuideLink.svelte';
  import Button from '../controls/Button.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import CheckBox from '../controls/CheckBox.svelte';
  import ProblemList from '../controls/ProblemList.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { placeLink } from '../problems/place-link.ts';
  import PlaceList from '../problems/PlaceList.svelte';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import DataBox from '../controls/DataBox.svelte';
  import RemovePage from './RemovePage.svelte';
  import RowsList from '../content/RowsList.svelte';
  import SampleSets from './SampleSets.svelte';

  const { draft, page }: { draft: Draft; page: string } = $props();
  const definition = $derived(draft.definition);
  const declared = $derived(definition?.pages[page]);
  const at = $derived(toPointer(['pages', page]));
  const published = $derived(draft.publishedEdition?.pages[page] !== undefined);
  const uses = $derived(definition ? usesOfPage(definition, page) : []);
  const groups = $derived([...new Set(Object.values(definition?.pages ?? {}).flatMap(({ group }) => group ?? []))]);
  const gates = $derived([
    { value: 'signed-in', label: 'who is signed in' },
    ...Object.keys(definition?.gates ?? {}).map((gate) => ({ value: gate, label: `gate “${gate}”` })),
  ]);
  const admit = $derived(declared?.admit);
  let removing = $state(false);
  let keepOld = $state(true);
  let refusedName: string | undefined = $state();

  function rename(to: string) {
    refusedName = undefined;
    if (!definition || to === page) return;
    if (!/^[A-Za-z][A-Za-z0-9_-]{0,59}$/.test(to)) refusedName = 'A name has letters, digits, “_” and “-”, and begins with a letter.';
    else if (definition.pages[to]) refusedName = `There is a page “${to}” already.`;
    else if (draft.edit(renamePage(definition, page, to, keepOld && published), `Renamed the page “${page}” to “${to}”`))
      place.change({ page: to });
  }
  function copy() {
    if (!definition) return;
    const made = copyPage(definition, page);
    if (draft.edit(made.patch, `Copied the page “${page}”`)) place.change({ page: made.name });
  }
</script>

{#if declared && definition}
  <h2>Page “{pageTitle(declared.title, page)}” <GuideLink to="app-file#pages" about="pages" /></h2>
  <div class="fields">
    <TextBox
      label="Title"
      file="title"
      value={declared.title}
      help="Appears in the browser’s title bar. It can contain values in braces."
      problems={draft.problemsAt(`${at}/title`)}
      disabled={!me.mayChange}
      onset={(title) => draft.edit(retitlePage(definition, page, title, published), 'Changed the page’s title', `${at}/title`)}
    />
    <TextBox
      label="Name"
      value={page}
      code
      when="done"
      help="How the app file and links name the page."
      refused={refusedName}
      disabled={!me.mayChange}
      onset={(name) => rename(name.trim())}
    />
    {#if published}<CheckBox
        label="Keep old names and addresses working"
        checked={keepOld}
        help="The page is published, so people may have them."
        onset={(checked) => (keepOld = checked)}
      />{/if}
    <TextBox
      label="Address"
      file="address"
      value={declared.address}
      code
      when="done"
      help="The address template. The pieces above the page shape it too."
      problems={draft.problemsAt(`${at}/address`)}
      disabled={!me.mayChange}
      onset={(address) => draft.set(`${at}/address`, address, 'Changed the address')}
    />
    <TextBox
      label="Group"
      file="group"
      value={declared.group ?? ''}
      when="done"
      list="groups"
      placeholder="none"
      help="The heading under which the page is listed here."
      disabled={!me.mayChange}
      onset={(group) => draft.set(`${at}/group`, group.trim() === '' ? undefined : group.trim(), 'Changed the page’s group')}
    />
    <datalist id="groups"
      >{#each groups as group (group)}<option value={group}></option>{/each}</datalist
    >
    {#if typeof admit === 'object'}
      <DataBox
        label="Who can open it"
        file="admit"
        value={admit}
        help="A gate of its own: roles, a condition, or both."
        problems={draft.problemsAt(`${at}/admit`)}
        onset={(value) => draft.set(`${at}/admit`, value, 'Changed the gate')}
      />
    {:else}
      <ChoiceBox
        label="Who can open it"
        file="admit"
        value={admit === 'everyone' ? undefined : admit}
        none="everyone"
        options={gates}
        problems={draft.problemsAt(`${at}/admit`)}
        disabled={!me.mayChange}
        help="Other visitors read why, sign in, and continue to the page they wanted. You create gates under “People”."
        onset={(gate) => draft.set(`${at}/admit`, gate, 'Changed whom the page admits')}
      />
    {/if}
  </div>

  <RowsList {draft} {page} />
  <SampleSets {draft} {page} />

  <details open={(declared.arrival ?? []).length > 0}>
    <summary>At arrival</summary>
    <DataBox
      label="Rules"
      file="arrival"
      value={declared.arrival}
      help={'A list; each rule has “when”, and “set” or “notice”: [{"when": "has(param.via)", "notice": "Welcome!"}]'}
      problems={draft.problemsAt(`${at}/arrival`)}
      onset={(value) => draft.set(`${at}/arrival`, value, 'Changed what happens at arrival')}
    />
  </details>
  <details open={(declared.formerAddresses ?? []).length + (declared.formerNames ?? []).length > 0}>
    <summary>Former addresses and names</summary>
    <TextBox
      label="Former addresses"
      file="formerAddresses"
      lines={2}
      code
      when="done"
      value={(declared.formerAddresses ?? []).join('\n')}
      help="One per line. They redirect to the page permanently."
      problems={draft.problemsAt(`${at}/formerAddresses`)}
      onset={(text) => {
        const list = text
          .split('\n')
          .map((line) => line.trim())
          .filter(Boolean);
        draft.set(`${at}/formerAddresses`, list.length > 0 ? list : undefined, 'Changed the former addresses');
      }}
    />
    <ListBox
      label="Former names"
      file="formerNames"
      code
      value={declared.formerNames}
      onset={(names) => draft.set(`${at}/formerNames`, names, 'Changed the former names')}
    />
  </details>

  <h3>Led to by</h3>
  <PlaceList {draft} places={uses} none="Nothing in the app leads to this page." />
  {#if draft.problemsAt(at).length > 0}
    <h3>Problems</h3>
    <ProblemList
      problems={draft.problemsAt(at)}
      placeOf={(problem) => placeLink(draft.app, definition, problem.pointer ?? at)}
      onfix={(patch, problem) => draft.edit(patch, `Fixed: ${problem.message}`)}
    />
  {/if}
  {#if me.mayChange}
    <div class="actions">
      <Button small onclick={copy}>Copy the page</Button>
      <Button small look="danger" onclick={() => (removing = true)}>Remove the page</Button>
    </div>
  {/if}
  {#if removing}<RemovePage {draft} {page} onclose={() => (removing = false)} />{/if}
{/if}

<style>
  h2 {
    font: 600 1.05rem var(--text);
    margin-block-end: 0.6rem;
    overflow-wrap: anywhere;
  }
  h3,
  summary {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
    margin: 0.9rem 0 0.3rem;
    cursor: default;
  }
  summary {
    cursor: pointer;
  }
  .fields {
    display: grid;
    gap: 0.6rem;
  }
  .actions {
    display: flex;
    gap: 0.5rem;
    margin-block-start: 1rem;
  }
</style>
