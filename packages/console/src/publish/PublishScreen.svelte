<script lang="ts">
  import type { Edition } from '@pallmist/api';
  import { comparePatch, describeChanges, type AppDefinition } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import { noneYet } from '../controls/none-yet.ts';
  import ProblemList from '../controls/ProblemList.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { placeLink } from '../problems/place-link.ts';
  import { client, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import ChangeList from './ChangeList.svelte';
  import LinkFindings from './LinkFindings.svelte';
  import QrCode from './QrCode.svelte';
  import { DraftRehearsal } from './rehearsal.svelte.ts';
  import Failure from '../controls/Failure.svelte';
  import Note from '../controls/Note.svelte';

  const { draft }: { draft: Draft } = $props();
  // svelte-ignore state_referenced_locally
  const rehearsal = new DraftRehearsal(draft);
  let note = $state('');
  let working = $state(false);
  let failure: string | undefined = $state();
  let published: { edition: number; mount: string } | undefined = $state();
  let editions: readonly Edition[] | undefined = $state.raw();
  let compared: { edition: Edition; data: AppDefinition } | undefined = $state.raw();
  const wanted = $derived(place.number('edition'));
  const changes = $derived(draft.definition ? describeChanges(draft.publishedEdition, draft.definition) : []);
  /** What is told below, with what earlier addresses mean, is not told twice. */
  const toldBelow = $derived(new Set((rehearsal.told?.others ?? []).map(({ words }) => words)));
  const older = $derived(compared && draft.definition ? describeChanges(compared.data, draft.definition) : []);
  const serious = $derived(draft.checked.problems.filter(({ severity }) => severity !== 'note'));
  const shared = $derived(published && `${window.location.origin}${published.mount}`);

  async function load() {
    try {
      editions = (await client.call('listEditions', { app: draft.app })).editions;
    } catch (error) {
      failure = explain(error);
    }
  }
  void load();
  $effect(() => {
    if (wanted === undefined) compared = undefined;
    else void compare(wanted);
  });

  async function compare(number: number) {
    try {
      const { data, source: _, ...edition } = await client.call('getEdition', { app: draft.app, number: String(number) });
      compared = { edition, data: data as AppDefinition };
    } catch (error) {
      failure = explain(error);
    }
  }
  async function publish() {
    working = true;
    failure = undefined;
    const outcome = await draft.publish(note.trim(), rehearsal.consents);
    working = false;
    if ('failure' in outcome) failure = outcome.failure;
    else {
      published = outcome;
      note = '';
      rehearsal.forget();
      await load();
    }
  }
  function bringBack() {
    if (!compared || draft.data === undefined) return;
    draft.edit(comparePatch(draft.data, compared.data), `Brought back edition ${compared.edition.number}`);
  }
  const day = (at: string) => at.slice(0, 16).replace('T', ' ');
</script>

<main>
  <section aria-label="Publish">
    <h1>Publish</h1>
    {#if published && shared}
      <div class="done" role="status">
        <p>Edition {published.edition} is served. Share its address:</p>
        <p><a href={shared} target="_blank" rel="noopener"><code>{shared}</code></a></p>
        <QrCode text={shared} />
      </div>
    {/if}
    {#if serious.length > 0}
      <h2>Problems</h2>
      <ProblemList
        problems={serious}
        placeOf={(problem) => placeLink(draft.app, draft.definition ?? ({ pages: {} } as never), problem.pointer ?? '')}
        onfix={me.mayChange ? (patch, problem) => draft.edit(patch, `Fixed: ${problem.message}`) : undefined}
      />
    {/if}
    <h2>{draft.publishedEdition ? 'What changes for visitors' : 'What will be there'}</h2>
    <ChangeList
      changes={changes.filter(({ words }) => !toldBelow.has(words))}
      none={changes.length === 0 ? 'Nothing differs from the edition that is served.' : 'Only what is listed below differs.'}
    />
    {#if draft.publishedEdition && draft.publishable}
      <h2>What earlier addresses mean</h2>
      <LinkFindings {draft} {rehearsal} />
    {/if}
    {#if me.mayChange}
      <div class="gap"></div>
      <TextBox label="Note" help="Why you publish. It appears in the log." lines={2} value={note} onset={(text) => (note = text)} />
      <Failure text={failure} />
      <p>
        <Button look="main" disabled={working || !draft.publishable || rehearsal.open.length > 0} onclick={publish}
          >{working ? 'Publishing …' : 'Publish'}</Button
        >
        {#if !draft.publishable}<span class="bad">Fix the errors first.</span>
        {:else if rehearsal.open.length > 0}<span class="bad">Repair each finding, or confirm that you intend it.</span>{/if}
      </p>
    {/if}
  </section>
  <section aria-label="Editions">
    <h2>Editions</h2>
    <ul>
      {#each editions ?? [] as edition (edition.number)}
        <li>
          <a
            href={place.href('publish', { app: draft.app, edition: edition.number })}
            aria-current={edition.number === wanted ? 'true' : undefined}
            onclick={(event) => place.follow(event)}>Edition {edition.number}</a
          >
          {day(edition.publishedAt)}{edition.by ? `, ${edition.by}` : ''}
          {#if edition.note}<Note>{edition.note}</Note>{/if}
          {#each rehearsal.consentsOf(edition.number) as consent (consent.words)}
            <Note>Intended by {consent.by}: {consent.words}{consent.why === '' ? '' : ` ${consent.why}`}</Note>
          {/each}
        </li>
      {:else}<li>{noneYet(editions, 'Nothing is published yet.', failure)}</li>{/each}
    </ul>
    {#if compared}
      <h2>Since edition {compared.edition.number}, the draft</h2>
      <ChangeList changes={older} none="The draft is the same as this edition." />
      {#if me.mayChange && older.length > 0}
        <p>
          <Button onclick={bringBack}>Bring this edition back into the draft</Button> You can undo it, and nothing changes for visitors until
          you publish.
        </p>
      {/if}
    {/if}
  </section>
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
    gap: 2rem;
    max-width: 74rem;
    margin: 1rem auto;
    padding: 0 1rem;
  }
  h1 {
    font: 600 1.3rem var(--text);
  }
  h2 {
    font: 600 1rem var(--plain);
    margin: 1rem 0 0.4rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 0.35rem;
  }
  a[aria-current] {
    font-weight: 600;
  }
  p {
    margin: 0.5rem 0;
  }
  .gap {
    height: 0.9rem;
  }
  .bad {
    color: var(--bad);
  }
  .done {
    background: var(--good-soft);
    border-inline-start: 0.3rem solid var(--good);
    padding: 0.4rem 0.9rem;
    margin-block: 0.6rem;
  }
  @media (max-width: 50rem) {
    main {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
