<script lang="ts">
  import { toPointer, type ParameterDeclaration, type Values, writeAddress } from '@pallmist/app/address';
  import { addParameter, pageTitle, type LinkDefinition, type WantedType, rawValue } from '@pallmist/app/editing';
  import AddForm from '../controls/AddForm.svelte';
  import Group from '../controls/Group.svelte';
  import Button from '../controls/Button.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import ValueBox from '../content/ValueBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import Note from '../controls/Note.svelte';

  interface Props {
    draft: Draft;
    /** The page that it stands on. */
    page: string;
    frame: PageInFrame;
    label: string;
    help: string | undefined;
    pointer: string;
    link: LinkDefinition | undefined;
    row: string | undefined;
    saved?: string | undefined;
    onremove?: (() => void) | undefined;
  }
  const { draft, page, frame, label, help, pointer, link, row, saved, onremove }: Props = $props();
  const definition = $derived(draft.definition);
  const target = $derived(draft.compiled?.pages.get(link?.page ?? ''));
  // In a block, all values may be one input.
  const values = $derived(typeof link?.values === 'object' ? link.values : {});
  const parameters = $derived.by(() => {
    const all = [...(target?.parameters ?? [])];
    return [...all.filter(({ required }) => required), ...all.filter(({ required }) => !required)];
  });
  /** What is filled in and the destination does not know. */
  const strays = $derived(Object.keys(values).filter((name) => !parameters.some((one) => one.name === name)));
  const own = $derived(draft.problemsAt(pointer).filter(({ pointer: at }) => at === pointer));

  const wantedOf = ({ type }: ParameterDeclaration): WantedType =>
    type === 'integer'
      ? 'int'
      : type === 'number'
        ? 'double'
        : type === 'boolean'
          ? 'bool'
          : type === 'list'
            ? 'list'
            : type === 'packed'
              ? 'any'
              : 'string';

  function set(name: string, value: string) {
    const at = pointer + toPointer(['values', name]);
    draft.set(at, value === '' ? undefined : value, `Changed what the link sends as “${name}”`);
  }
  function declare(wanted: string) {
    if (!definition || link === undefined) return false;
    const made = addParameter(definition, link.page, wanted, { type: 'text', blank: 'absent' });
    return draft.edit(made.patch, `Declared “${made.name}” on “${link.page}”`);
  }
  function choose(name: string | undefined) {
    if (name === undefined) return;
    const kept = Object.fromEntries(Object.entries(values).filter(([parameter]) => draft.compiled?.pages.get(name)?.byName.has(parameter)));
    const { values: _, ...rest } = link ?? { page: name };
    const next = { ...rest, page: name, ...(Object.keys(kept).length > 0 ? { values: kept } : {}) };
    draft.set(pointer, next, `The link leads to “${name}”`);
  }

  /** The address for the row at hand, with the values of the page that is shown. */
  const result = $derived.by(() => {
    if (!draft.compiled || link === undefined || target === undefined) return undefined;
    const given: Values = {};
    for (const [name, value] of Object.entries(values)) given[name] = rawValue(value, frame.values, row) as never;
    const { keep } = link;
    const present = (frame.values.param ?? {}) as Values;
    const carried =
      keep === undefined ? {} : Object.fromEntries(Object.entries(present).filter(([name]) => keep === true || keep.includes(name)));
    return writeAddress(draft.compiled, link.page, { ...carried, ...given }).address;
  });
  const inDraft = $derived(result?.replace(draft.compiled?.mount ?? '', `/~/draft/${draft.app}`));
</script>

<Group {label} file="link" tone="query" {help}>
  <ChoiceBox
    label="Destination"
    value={link?.page}
    options={Object.entries(definition?.pages ?? {}).map(([name, one]) => ({
      value: name,
      label: `${pageTitle(one.title ?? '', name)} ${one.address}`,
    }))}
    problems={[...own, ...draft.problemsAt(`${pointer}/page`)]}
    disabled={!me.mayChange}
    onset={choose}
  >
    {#snippet beside()}
      {#if link}<Button small look="quiet" onclick={() => place.change({ page: link.page, part: undefined })}>Go there</Button>{/if}
    {/snippet}
  </ChoiceBox>
  {#each parameters as parameter (parameter.name)}
    <ValueBox
      {draft}
      {page}
      {frame}
      label="{parameter.name}{parameter.required ? ', required' : ''}"
      help={parameter.declaration.label}
      placeholder={parameter.required ? `needs a ${parameter.declaration.type}` : `not sent (${parameter.declaration.type})`}
      into="value"
      wanted={wantedOf(parameter.declaration)}
      {row}
      {saved}
      problems={draft.problemsAt(pointer + toPointer(['values', parameter.name]))}
      value={String(values[parameter.name] ?? '')}
      onset={(value) => set(parameter.name, value)}
    />
  {/each}
  {#each strays as name (name)}
    <p class="bad">
      The page does not know “{name}”.
      <Button small onclick={() => set(name, '')}>Do not send it</Button>
    </p>
  {/each}
  {#if link && me.mayChange}
    <details>
      <summary>More</summary>
      <ChoiceBox
        label="Present values that go along"
        file="keep"
        value={link.keep === undefined ? undefined : link.keep === true ? 'all' : 'some'}
        none="none"
        options={[
          { value: 'all', label: 'all that the destination knows' },
          ...(Array.isArray(link.keep) ? [{ value: 'some', label: link.keep.join(', ') }] : []),
        ]}
        problems={draft.problemsAt(`${pointer}/keep`)}
        onset={(keep) => keep !== 'some' && draft.set(`${pointer}/keep`, keep === 'all' ? true : undefined, 'Changed what goes along')}
      />
      <ChoiceBox
        label="Values of the visit that go along"
        file="withVisit"
        value={link.withVisit === undefined ? undefined : link.withVisit === true ? 'all' : 'some'}
        none="none"
        options={[
          { value: 'all', label: 'all' },
          ...(Array.isArray(link.withVisit) ? [{ value: 'some', label: link.withVisit.join(', ') }] : []),
        ]}
        problems={draft.problemsAt(`${pointer}/withVisit`)}
        onset={(visit) =>
          visit !== 'some' && draft.set(`${pointer}/withVisit`, visit === 'all' ? true : undefined, 'Changed what goes along')}
      />
      <ChoiceBox
        label="Opens in"
        file="window"
        value={link.window}
        none="the same window"
        options={[{ value: 'new', label: 'a new window' }]}
        onset={(window) => draft.set(`${pointer}/window`, window, 'Changed where the link opens')}
      />
      <AddForm
        label="Name of a new parameter of the destination"
        placeholder="parameter"
        button="Declare it on “{link.page}”"
        onadd={declare}
      />
    </details>
  {/if}
  {#if result !== undefined}
    <p class="result">
      For this {row === undefined ? 'page' : 'row'}: <a href={inDraft} target="_blank" rel="noopener"><code>{result}</code></a>
    </p>
  {:else if link && target}<Note>The address appears once every required value is given and the page shows a row.</Note>{/if}
  {#if onremove && me.mayChange}<div><Button small look="quiet" onclick={onremove}>Take the link out</Button></div>{/if}
</Group>

<style>
  code {
    font-size: 0.75rem;
    font-weight: 400;
  }
  p {
    margin: 0;
    font-size: 0.8125rem;
    overflow-wrap: anywhere;
  }
  .bad {
    color: var(--bad);
  }
  summary {
    cursor: pointer;
    font-size: 0.8125rem;
  }
  details {
    display: grid;
    gap: 0.4rem;
  }
</style>
