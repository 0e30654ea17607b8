<script lang="ts">
  import type { Box, Say } from '@pallmist/app/view';
  import type { TypedTexts } from '../typed-texts.svelte.ts';
  import Labelled from './Labelled.svelte';

  interface Props {
    box: Box;
    say: Say;
    /** What was typed into the boxes of the form. */
    typed: TypedTexts;
    /** Unique on the page: what the box’s help and problem are named after. */
    id: string;
    /** The form that the box belongs to, where it does not stand inside it. */
    form?: string | undefined;
    /** The label is for screen readers only. */
    bare?: boolean;
    /** No field is required, so none is marked as required. */
    asking?: boolean;
  }
  const { box, say, typed, id, form, bare = false, asking = false }: Props = $props();
  const about = $derived([box.help && `${id}-help`, box.problem && `${id}-problem`].filter(Boolean).join(' ') || undefined);
  const label = $derived(box.required || asking || box.kind === 'check' ? box.label : say('{0} (may stay empty)', box.label));
  // Written out for each element: a spread would bring along code that every page loads.
  const invalid = $derived(box.problem ? ('true' as const) : undefined);
  const said = $derived(bare ? box.label : undefined);
</script>

{#snippet control()}
  {#if box.kind === 'select'}
    <select {id} name={box.name} {form} aria-invalid={invalid} aria-describedby={about} aria-label={said} required={box.required}>
      {#each box.options ?? [] as option (option.value)}
        <option value={option.value} selected={option.value === typed.text(box.name, box.value)}>{option.text}</option>
      {/each}
    </select>
  {:else if box.kind === 'lines'}
    <textarea
      {id}
      name={box.name}
      {form}
      aria-invalid={invalid}
      aria-describedby={about}
      aria-label={said}
      rows={box.lines}
      maxlength={box.maxLength}
      required={box.required}
      value={typed.text(box.name, box.value)}></textarea>
  {:else if box.kind === 'file'}
    <!-- What is kept already goes along by its name; a file that is chosen takes its place. -->
    <input type="hidden" name={box.name} value={box.value} {form} />
    <input
      {id}
      name="~file.{box.name}"
      {form}
      aria-invalid={invalid}
      aria-describedby={about}
      aria-label={said}
      type="file"
      accept={box.accept}
      required={box.required && !box.present}
    />
  {:else if box.kind === 'check'}
    <input
      {id}
      name={box.name}
      {form}
      aria-invalid={invalid}
      aria-describedby={about}
      aria-label={said}
      type="checkbox"
      value="true"
      checked={typed.ticked(box.name, box.value === 'true')}
    />
  {:else}
    <input
      {id}
      name={box.name}
      {form}
      aria-invalid={invalid}
      aria-describedby={about}
      aria-label={said}
      type={box.kind}
      value={typed.text(box.name, box.value)}
      min={box.min}
      max={box.max}
      step={box.step}
      maxlength={box.maxLength}
      required={box.required}
      autocomplete={box.autocomplete}
    />
  {/if}
{/snippet}

<div class:check={box.kind === 'check'}>
  {#if bare}{@render control()}{:else}
    <Labelled {label}>{@render control()}</Labelled>
  {/if}
  {#if box.present}
    <p>
      {say('Kept:')}
      {#if box.present.href}<a href={box.present.href} target="_blank" rel="noopener">{box.present.text}</a>{:else}{box.present.text}{/if}
      {#if !box.required}<label><input type="checkbox" name="~none.{box.name}" value="yes" {form} /> {say('Take it away')}</label>{/if}
    </p>
  {/if}
  {#if box.help && !bare}<p id="{id}-help">{box.help}</p>{/if}
  {#if box.problem}<p id="{id}-problem" class="problem">{box.problem}</p>{/if}
</div>

<style>
  div {
    min-width: 0;
  }
  p {
    margin: 0.15rem 0 0;
    font-size: 0.85rem;
    color: var(--quiet);
  }
  .problem {
    color: var(--bad);
    font-weight: 600;
  }
  select,
  input:not([type='checkbox']),
  textarea {
    width: 100%;
  }
  .check :global(label) {
    display: flex;
    flex-direction: row-reverse;
    justify-content: start;
    align-items: center;
    gap: 0.5rem;
  }
</style>
