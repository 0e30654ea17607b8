<script lang="ts">
  import { fromPointer, readAddress, writeAddress } from '@pallmist/app/address';
  import { describeComponent, usesOfParameter, valueAt, type Component } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { placeLink } from '../problems/place-link.ts';
  import { client, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import AddressBar from './AddressBar.svelte';
  import AddressSteps from './AddressSteps.svelte';
  import type { PageInFrame } from './page-in-frame.svelte.ts';
  import MissingSamples from './MissingSamples.svelte';
  import ReadingTable from './ReadingTable.svelte';
  import { sampleAddress } from '@pallmist/app/editing';

  const { draft, page, frame }: { draft: Draft; page: string; frame: PageInFrame } = $props();

  const draftMount = $derived(`/~/draft/${draft.app}`);
  const mount = $derived(draft.compiled?.mount ?? '');
  const set = $derived(place.text('sample'));
  const sampled = $derived(draft.compiled && sampleAddress(draft.compiled, page, draft.definition?.pages[page]?.sampleSets?.[set ?? '']));
  /** The address in the app, as the public will see it. */
  const address = $derived(place.text('at') ?? sampled ?? '');
  let typed: string | undefined = $state();
  const reading = $derived(draft.compiled && readAddress(draft.compiled, typed ?? address));
  const mode = $derived(place.text('mode') ?? 'build');
  let width: 'wide' | 'tablet' | 'phone' = $state('wide');
  let scheme: 'system' | 'light' | 'dark' = $state('system');
  let scripts = $state(true);
  let as = $state('');
  let failure: string | undefined = $state();
  let below: 'none' | 'reading' | 'steps' = $state('none');
  let element: HTMLIFrameElement | undefined = $state();
  let people: { login: string; name: string }[] = $state.raw([]);
  $effect(() => {
    void client.call('listPeople', { app: draft.app }).then(
      (found) => (people = found.people),
      () => undefined,
    );
  });

  const toDraft = (own: string) => (mount !== '' && own.startsWith(mount) ? draftMount + own.slice(mount.length) : draftMount + own);
  const fromDraft = (shown: string) => (shown.startsWith(draftMount) ? mount + shown.slice(draftMount.length) || '/' : shown);

  $effect(() => {
    if (element) frame.attach(element);
  });
  $effect(() => {
    draft.shown = (shown) => {
      frame.sent(shown);
    };
  });
  // What is shown follows the address above it …
  $effect(() => {
    // A page that the service has not heard of yet would be one that is not there.
    if (element && address !== '' && (draft.saved || !draft.connected)) frame.open(toDraft(address));
  });
  // … and is drawn again, in its place, whenever the service has taken a change.
  let shownSave = -1;
  $effect(() => {
    const { saves } = draft;
    if (shownSave >= 0 && saves !== shownSave) frame.refresh();
    shownSave = saves;
  });
  $effect(() => {
    frame.pick(mode === 'build');
  });
  $effect(() => {
    frame.point(mode === 'build' ? place.text('part') : undefined);
  });
  $effect(() => {
    frame.onpicked = (picked) => {
      place.change({ part: picked });
    };
    frame.onaddress = (shown, cause) => {
      if (!shown.startsWith(draftMount)) return;
      const own = fromDraft(shown);
      const found = draft.compiled && readAddress(draft.compiled, own).page;
      const follow = (changes: { page?: string; at: string | undefined }) => {
        if (cause === 'history') place.replace(changes);
        else place.change(changes);
      };
      if (found !== undefined && found !== page) follow({ page: found, at: own });
      else if (own === address) return;
      else if (own !== sampled || place.text('at') !== undefined) follow({ at: own === sampled ? undefined : own });
    };
  });

  const languageName = $derived(draft.definition?.language ?? '');
  const languages = $derived(Object.keys(draft.definition?.choices?.[draft.definition.parameters?.[languageName]?.of ?? ''] ?? {}));
  /** The same page in another language, which stands in the address. */
  function speak(tag: string) {
    if (!draft.compiled || reading?.page === undefined) return;
    const written = writeAddress(draft.compiled, reading.page, { ...reading.values, [languageName]: tag }).address;
    if (written !== undefined) place.change({ at: written });
  }

  async function tryAs(login: string) {
    as = login;
    failure = undefined;
    try {
      const tried = await client.call('tryAs', { app: draft.app }, { login: login === '' ? null : login, to: toDraft(address) });
      frame.show(toDraft(address), tried.address);
    } catch (error) {
      failure = explain(error);
    }
  }

  const componentAt = (at: string | undefined) => {
    const found = at === undefined ? undefined : valueAt(draft.data, `/pages/${page}/${at}`);
    return found === undefined ? undefined : describeComponent(found as Component);
  };
  const shortWords = (pointer: string) => {
    const found = fromPointer(pointer);
    for (let length = found.length; length > 3; length--) {
      const value = valueAt(draft.data, `/${found.slice(0, length).join('/')}`);
      if (typeof value === 'object' && value !== null && 'show' in value) return describeComponent(value as Component);
    }
    return found.slice(2, 4).join(' ');
  };
  const feeds = (parameter: string) =>
    draft.definition
      ? usesOfParameter(draft.definition, page, parameter)
          .filter(({ how }) => how === 'bound' || how === 'read')
          .map(({ pointer }) => ({
            ...placeLink(draft.app, draft.definition ?? ({ pages: {} } as never), pointer),
            words: shortWords(pointer),
          }))
      : [];
</script>

<svelte:window onmessage={(event) => frame.hear(event)} />

<div class="try">
  {#if draft.compiled}
    <AddressBar
      app={draft.compiled}
      {address}
      ongo={(own) => {
        typed = undefined;
        const found = draft.compiled && readAddress(draft.compiled, own).page;
        frame.open(toDraft(own), true);
        place.change({ ...(found === undefined ? {} : { page: found }), at: own });
      }}
      ontype={(text) => (typed = text)}
    />
  {/if}
  <div class="tools" role="group" aria-label="How the page is shown">
    <Button small look="quiet" aria-pressed={mode === 'build'} onclick={() => place.change({ mode: mode === 'build' ? 'try' : 'build' })}
      >Click selects</Button
    >
    <Button small look="quiet" onclick={() => frame.step(-1)}>Back</Button>
    <Button small look="quiet" onclick={() => frame.step(1)}>Forward</Button>
    <Button small look="quiet" onclick={() => frame.reload()}>Reload</Button>
    <label
      >Width <select aria-label="Width" bind:value={width}
        ><option value="wide">wide</option><option value="tablet">tablet</option><option value="phone">phone</option></select
      ></label
    >
    <label
      >Colours <select aria-label="Colours" bind:value={scheme}
        ><option value="system">as here</option><option value="light">light</option><option value="dark">dark</option></select
      ></label
    >
    <label
      >As <select aria-label="As" value={as} onchange={({ currentTarget }) => tryAs(currentTarget.value)}
        ><option value="">signed out</option>{#each people as person (person.login)}<option value={person.login}>{person.name}</option
          >{/each}</select
      ></label
    >
    {#if languages.length > 0}
      <label
        >Language <select
          aria-label="Language"
          value={String(reading?.values[languageName] ?? '')}
          onchange={({ currentTarget }) => speak(currentTarget.value)}
          >{#each languages as tag (tag)}<option value={tag}>{tag}</option>{/each}</select
        ></label
      >
    {/if}
    {#if Object.keys(draft.definition?.pages[page]?.sampleSets ?? {}).length > 0}
      <label
        >Samples <select
          aria-label="Samples"
          value={set ?? ''}
          onchange={({ currentTarget }) => place.change({ sample: currentTarget.value || undefined, at: undefined })}
          ><option value="">of the parameters</option
          >{#each Object.keys(draft.definition?.pages[page]?.sampleSets ?? {}) as name (name)}<option value={name}>{name}</option
            >{/each}</select
        ></label
      >
    {/if}
    <label><input type="checkbox" bind:checked={scripts} /> JavaScript</label>
    {#if place.text('at') !== undefined}<Button small look="quiet" onclick={() => place.change({ at: undefined })}>Samples again</Button
      >{/if}
    <a href={toDraft(address)} target="_blank" rel="noopener">Open in a tab</a>
  </div>
  {#if failure}<p class="note" role="alert">{failure}</p>{/if}
  {#if me.drafts === undefined}
    <p class="note" role="alert">
      The service has no address for drafts yet. Give it a name in your proxy that leads to the port for drafts, and set
      <code>PALLMIST_DRAFT_URL</code> to it.
    </p>
  {/if}
  {#if frame.ledTo !== undefined}
    <p class="note" role="status">
      This address leads on to <code>{fromDraft(frame.ledTo).split('?')[0]}</code>{as === ''
        ? '. Choose a person under “As” to see the page itself.'
        : '.'}
    </p>
  {/if}
  {#if address === ''}
    <MissingSamples {draft} {page} />
  {/if}
  <div class="stage">
    {#key scripts}
      <iframe
        bind:this={element}
        class={width}
        style:color-scheme={scheme === 'system' ? 'light dark' : scheme}
        title="The page {page}, as the draft has it"
        sandbox={scripts
          ? 'allow-same-origin allow-forms allow-scripts allow-popups allow-modals allow-downloads'
          : 'allow-same-origin allow-forms allow-popups allow-downloads'}
      ></iframe>
    {/key}
  </div>
  <div class="below">
    <div class="switch" role="group" aria-label="Below the page">
      <Button small look="quiet" aria-pressed={below === 'reading'} onclick={() => (below = below === 'reading' ? 'none' : 'reading')}
        >Read as</Button
      >
      {#if reading && below !== 'reading'}
        <span class="line">
          {reading.page ?? 'no page'}{#each reading.parameters as { name, text, origin, problem } (name)}<span
              class:wrong={problem !== undefined}
            >
              · {name}
              {#if text !== undefined}<code>{text}</code>{/if}
              {problem === undefined ? origin : 'wrong'}</span
            >{/each}
        </span>
      {/if}
      <Button small look="quiet" aria-pressed={below === 'steps'} onclick={() => (below = below === 'steps' ? 'none' : 'steps')}
        >Steps: {frame.steps.length}</Button
      >
    </div>
    {#if below !== 'none'}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -- what scrolls can be scrolled by keys -->
      <div
        class="reading"
        role="group"
        aria-label={below === 'reading' ? 'How the address is read' : 'What changed the address'}
        tabindex="0"
      >
        {#if below === 'steps'}<AddressSteps steps={frame.steps} ofApp={fromDraft} {componentAt} />
        {:else if reading && draft.compiled}<ReadingTable {reading} app={draft.compiled} {feeds} />{/if}
      </div>
    {/if}
  </div>
</div>

<style>
  .try {
    display: grid;
    grid-template-rows: auto auto auto minmax(14rem, 1fr) auto;
    gap: 0.35rem;
    min-height: 0;
    min-width: 0;
  }
  .tools {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.25rem 0.5rem;
    font-size: 0.8125rem;
    color: var(--quiet);
  }
  .tools a {
    margin-inline-start: auto;
  }
  select {
    border: 1px solid var(--line);
    border-radius: var(--round);
    background: var(--sheet);
    font-size: 0.8125rem;
    max-width: 9rem;
  }
  .stage {
    grid-row: 4;
    min-height: 0;
    overflow: auto;
    background: var(--sunk);
    border: 1px solid var(--edge);
    border-radius: var(--round);
  }
  iframe {
    display: block;
    border: 0;
    width: 100%;
    height: 100%;
    margin-inline: auto;
    background: var(--paper);
  }
  .tablet {
    width: 820px;
    max-width: none;
  }
  .phone {
    width: 390px;
  }
  .below {
    grid-row: 5;
    min-width: 0;
  }
  .switch {
    display: flex;
    align-items: center;
    gap: 0.4rem;
  }
  .switch > :global(button) {
    flex: none;
  }
  .line {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    font-size: 0.875rem;
    color: var(--quiet);
  }
  .wrong {
    color: var(--bad);
  }
  .reading {
    max-height: 22vh;
    overflow: auto;
    margin-block-start: 0.3rem;
  }
  .note {
    margin: 0;
    font-size: 0.8125rem;
    color: var(--warn);
  }
</style>
