<script lang="ts">
  import Button from '../controls/Button.svelte';
  import CheckBox from '../controls/CheckBox.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { findingGroups } from './finding-groups.ts';
  import type { DraftRehearsal } from './rehearsal.svelte.ts';
  import SideBySide from './SideBySide.svelte';
  import Failure from '../controls/Failure.svelte';
  import Note from '../controls/Note.svelte';

  const { draft, rehearsal }: { draft: Draft; rehearsal: DraftRehearsal } = $props();

  let beside: string | undefined = $state();
  const editionsIn = (editions: readonly number[]) =>
    editions.length === 1 ? `edition ${editions[0]}` : `editions ${editions[0]} to ${editions.at(-1)}`;
</script>

<Failure text={rehearsal.failure} />
<div aria-live="polite">
  {#if rehearsal.working && !rehearsal.told}
    <p>Reading addresses of earlier editions …</p>
  {:else if rehearsal.told && rehearsal.findings.length === 0}
    <p class="good">Every address of earlier editions means the same after publishing.</p>
  {/if}
</div>
{#each findingGroups as { fate, group, title } (title)}
  {@const some = rehearsal.findings.filter((finding) => finding.fate === fate)}
  {@const others = (rehearsal.told?.others ?? []).filter((one) => one.group === group)}
  {#if some.length > 0}
    <h3>{title}</h3>
    <ul>
      {#each some as finding (finding.id)}
        {@const answer = rehearsal.answer(finding.id)}
        <li class={fate} class:agreed={answer.agreed}>
          <p>{finding.words}</p>
          <Note>
            <code>{finding.witness}</code> was valid in {editionsIn(finding.editions)}.
            {#if finding.visits > 0}It concerns {finding.visits === 1 ? '1 visit' : `${finding.visits.toLocaleString('en')} visits`} of the last
              30 days.{/if}
          </Note>
          <p>
            <Button small aria-label="Compare both pages of {finding.witness}" onclick={() => (beside = finding.witness)}
              >Compare both pages</Button
            >
          </p>
          {#if finding.short.length > 0}
            <Note>
              Short addresses that it concerns: {#each finding.short as code, index (code)}{index > 0 ? ', ' : ''}<code>~s/{code}</code
                >{/each}
            </Note>
          {/if}
          {#each finding.printed as { address, note } (address + note)}
            <p class="printed"><code>{address}</code> is printed: {note}</p>
          {/each}
          {#if me.mayChange}
            <div class="ways">
              {#each finding.repairs as repair (repair.words)}
                <Button small look={repair.certain ? 'main' : 'plain'} onclick={() => draft.edit(repair.patch, repair.words)}>
                  {repair.kind === 'repair' ? 'Repair' : 'Put back'}
                </Button>
                <span>{repair.words}</span>
              {/each}
            </div>
            {#if finding.printed.length > 0}
              <p class="printed">Printed addresses need a repair: nobody can change them.</p>
            {:else if finding.needsConsent}
              <CheckBox label="I intend this change" checked={answer.agreed} onset={(agreed) => rehearsal.set(finding.id, { agreed })} />
              {#if answer.agreed}
                <TextBox
                  label="Why"
                  help="Saved with the edition."
                  value={answer.why}
                  onset={(why) => rehearsal.set(finding.id, { why })}
                />
              {/if}
            {/if}
          {/if}
        </li>
      {/each}
    </ul>
  {/if}
  {#if others.length > 0}
    <h3>{title}</h3>
    <ul>
      {#each others as { words } (words)}<li class="noted">{words}</li>{/each}
    </ul>
  {/if}
{/each}

{#if beside !== undefined}<SideBySide {draft} address={beside} onclose={() => (beside = undefined)} />{/if}

<style>
  h3 {
    font: 600 0.9375rem var(--plain);
    margin: 0.9rem 0 0.35rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 0.5rem;
  }
  li {
    border-inline-start: 0.25rem solid var(--bad);
    background: var(--sheet);
    padding: 0.5rem 0.8rem;
    border-radius: 2px;
    overflow-wrap: anywhere;
    font-size: 0.9rem;
  }
  .gone,
  .refused {
    border-color: var(--warn);
  }
  .noted,
  .agreed {
    border-color: var(--edge);
  }
  p {
    margin: 0 0 0.3rem;
  }
  .good {
    color: var(--good);
  }
  .printed {
    color: var(--bad);
    font-size: 0.8125rem;
  }
  .ways {
    display: grid;
    grid-template-columns: max-content minmax(0, 1fr);
    gap: 0.35rem 0.6rem;
    align-items: center;
    margin-block: 0.4rem;
  }
</style>
