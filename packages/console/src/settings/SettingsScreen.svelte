<script lang="ts">
  import { toPointer, type ParameterDeclaration } from '@pallmist/app/address';
  import { addTo, freeName, identifierOf, slugOf, typefaces } from '@pallmist/app/editing';
  import ScreenPage from '../controls/ScreenPage.svelte';
  import ListBox from '../controls/ListBox.svelte';
  import AddForm from '../controls/AddForm.svelte';
  import Button from '../controls/Button.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import DataBox from '../controls/DataBox.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import ParameterAttributes from '../parameters/ParameterAttributes.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import PlainLink from '../links/PlainLink.svelte';
  import { me } from '../service/me.svelte.ts';

  const { draft }: { draft: Draft } = $props();
  const definition = $derived(draft.definition);
  const look = $derived(definition?.look ?? {});
  const navigation = $derived(definition?.navigation ?? []);
  const pages = $derived(Object.keys(definition?.pages ?? {}));
  const zones = Intl.supportedValuesOf('timeZone');
  const set = (pointer: string, value: unknown, what: string) => draft.set(pointer, value, what);
  const otherThan = (usual: string) =>
    Object.entries(typefaces).flatMap(([value, { label }]) => (value === usual ? [] : [{ value, label }]));
  const without = (index: number) => navigation.filter((_, at) => at !== index);
  const setNavigation = (next: typeof navigation) => set('/navigation', next.length > 0 ? next : undefined, 'Changed the navigation');

  function addParameter(wanted: string) {
    if (!definition) return false;
    const name = freeName(identifierOf(wanted), Object.keys(definition.parameters ?? {}));
    return draft.edit([addTo(definition, 'parameters', name, { type: 'text', blank: 'absent' })], `Added the app’s parameter “${name}”`);
  }
  function addSite(wanted: string) {
    if (!definition) return false;
    const name = freeName(slugOf(wanted), Object.keys(definition.sites ?? {}), '-');
    return draft.edit([addTo(definition, 'sites', name, { base: 'https://www.example' })], `Added the site “${name}”`);
  }
</script>

{#if definition}
  <ScreenPage columns>
    <section aria-label="The app">
      <h1>Settings</h1>
      <TextBox
        label="Title"
        file="title"
        value={definition.title}
        problems={draft.problemsAt('/title')}
        disabled={!me.mayChange}
        onset={(text) => set('/title', text, 'Changed the app’s title')}
      />
      <TextBox
        label="Mount"
        file="mount"
        code
        when="done"
        value={definition.mount}
        help={draft.publishedEdition
          ? 'Where the app stands on the site. If you change it, list the old place under “Former mounts”.'
          : 'Where the app stands on the site.'}
        problems={draft.problemsAt('/mount')}
        disabled={!me.mayChange}
        onset={(text) => set('/mount', text.trim(), 'Changed the mount')}
      />
      <ListBox
        label="Former mounts"
        file="formerMounts"
        code
        value={definition.formerMounts}
        help="Earlier paths of the app, separated by commas. Their addresses redirect to today’s."
        problems={draft.problemsAt('/formerMounts')}
        disabled={!me.mayChange}
        onset={(mounts) => set('/formerMounts', mounts, 'Changed the former mounts')}
      />
      <DataBox
        label="Addresses that are gone (JSON)"
        file="gone"
        value={definition.gone}
        help="Addresses that no longer exist, each with a message for visitors and where they can go instead."
        problems={draft.problemsAt('/gone')}
        onset={(gone) => set('/gone', gone, 'Changed the addresses that are gone')}
      />
      <ChoiceBox
        label="Time zone"
        file="timeZone"
        value={definition.timeZone}
        none="UTC"
        options={zones}
        help="In which “today” is meant."
        problems={draft.problemsAt('/timeZone')}
        disabled={!me.mayChange}
        onset={(zone) => set('/timeZone', zone, 'Changed the time zone')}
      />
      <ChoiceBox
        label="Language parameter"
        file="language"
        value={definition.language}
        none="none"
        options={Object.keys(definition.parameters ?? {})}
        problems={draft.problemsAt('/language')}
        disabled={!me.mayChange}
        onset={(name) => set('/language', name, 'Changed the parameter of the language')}
      />

      <h2>Look</h2>
      <TextBox
        label="Colour of links and buttons"
        file="accent"
        type="color"
        value={look.accent ?? '#17695a'}
        help="Pallmist adjusts its lightness where the contrast would be too low."
        problems={draft.problemsAt('/look')}
        disabled={!me.mayChange}
        onset={(colour) => set('/look/accent', colour, 'Changed the colour')}
      />
      <ChoiceBox
        label="Headings"
        file="text"
        value={look.text}
        none={typefaces.book.label}
        options={otherThan('book')}
        disabled={!me.mayChange}
        onset={(value) => set('/look/text', value, 'Changed the headings')}
      />
      <ChoiceBox
        label="All other text"
        file="body"
        value={look.body}
        none={typefaces.plain.label}
        options={otherThan('plain')}
        disabled={!me.mayChange}
        onset={(value) => set('/look/body', value, 'Changed the typeface')}
      />
      <ChoiceBox
        label="Corners"
        file="corners"
        value={look.corners}
        none="round"
        options={[{ value: 'square', label: 'square' }]}
        disabled={!me.mayChange}
        onset={(value) => set('/look/corners', value, 'Changed the corners')}
      />
      {#if definition.look && me.mayChange}<div>
          <Button small onclick={() => set('/look', undefined, 'Took the look back')}>The usual look again</Button>
        </div>{/if}
    </section>
    <section aria-label="Navigation, parameters and sites">
      <h2>Navigation</h2>
      <p>Links at the top of every page.</p>
      {#each navigation as entry, index (index)}
        <div class="pair">
          <TextBox
            label="Words"
            value={entry.text}
            problems={draft.problemsAt(`/navigation/${index}/text`)}
            disabled={!me.mayChange}
            onset={(text) => set(`/navigation/${index}/text`, text, 'Changed the navigation')}
          />
          {#if me.mayChange}
            <Button
              small
              look="quiet"
              disabled={index === 0}
              aria-label="Move {entry.text} up"
              onclick={() => setNavigation([...navigation.slice(0, index - 1), entry, ...without(index).slice(index - 1)])}>Up</Button
            >
            <Button small look="quiet" aria-label="Remove {entry.text}" onclick={() => setNavigation(without(index))}>Remove</Button>
          {/if}
        </div>
        <PlainLink {draft} label="{entry.text} leads to" pointer="/navigation/{index}/to" />
      {/each}
      {#if me.mayChange && pages.length > 0}<div>
          <Button small onclick={() => setNavigation([...navigation, { text: 'New', to: { page: pages[0] ?? '' } }])}>Add a link</Button>
        </div>{/if}

      <h2>Parameters of the app</h2>
      <p>Query parameters of every page: a language, or where a visitor came from.</p>
      {#each Object.entries(definition.parameters ?? {}) as [name, declaration] (name)}
        {@const at = toPointer(['parameters', name])}
        <details>
          <summary><code>{name}</code> {declaration.type}{declaration.of ? ` of ${declaration.of}` : ''}</summary>
          <ParameterAttributes {draft} {at} {name} declaration={declaration as ParameterDeclaration} inPath={false} others={[]} ofApp />
          {#if me.mayChange}<Button small look="danger" onclick={() => set(at, undefined, `Removed the app’s parameter “${name}”`)}
              >Remove {name}</Button
            >{/if}
        </details>
      {/each}
      {#if me.mayChange}
        <AddForm label="Name of a new parameter of the app" placeholder="via" button="Add a parameter" onadd={addParameter} />
      {/if}

      <h2>Sites</h2>
      <p>Other sites that the component “Site link” may lead to.</p>
      {#each Object.entries(definition.sites ?? {}) as [name, { base, withVisit }] (name)}
        {@const at = toPointer(['sites', name])}
        <div class="pair">
          <TextBox
            label={name}
            code
            value={base}
            when="done"
            problems={draft.problemsAt(at)}
            disabled={!me.mayChange}
            onset={(text) => set(`${at}/base`, text.trim(), `Changed the site “${name}”`)}
          />
          <ListBox
            label="Values of the visit"
            value={withVisit}
            placeholder="none"
            disabled={!me.mayChange}
            onset={(names) => set(`${at}/withVisit`, names, `Changed the site “${name}”`)}
          />
          {#if me.mayChange}<Button
              small
              look="quiet"
              aria-label="Remove {name}"
              onclick={() => set(at, undefined, `Removed the site “${name}”`)}>Remove</Button
            >{/if}
        </div>
      {/each}
      {#if me.mayChange}
        <AddForm label="Name of a new site" placeholder="shop" button="Add a site" onadd={addSite} />
      {/if}
    </section>
  </ScreenPage>
{/if}

<style>
  section {
    display: grid;
    gap: 0.6rem;
    align-content: start;
  }
  h1 {
    font: 600 1.3rem var(--text);
  }
  h2 {
    font: 600 1.05rem var(--text);
    margin-block-start: 0.8rem;
  }
  p {
    margin: 0;
    color: var(--quiet);
    font-size: 0.875rem;
  }
  .pair {
    display: flex;
    gap: 0.4rem;
    align-items: end;
  }
  .pair > :global(.field) {
    flex: 1;
  }
  summary {
    cursor: pointer;
  }
</style>
