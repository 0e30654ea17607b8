<script lang="ts">
  import { namePattern, parseTemplate, toPointer, type ParameterDeclaration } from '@pallmist/app/address';
  import { removeParameter, renameParameter, usesOfParameter } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import CheckBox from '../controls/CheckBox.svelte';
  import GuideLink from '../controls/GuideLink.svelte';
  import { typeGuide } from '../controls/guides.ts';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import PlaceList from '../problems/PlaceList.svelte';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import ParameterAttributes from './ParameterAttributes.svelte';
  import { sentences } from './sentences.ts';

  const { draft, page, name }: { draft: Draft; page: string; name: string } = $props();
  const definition = $derived(draft.definition);
  const declaration = $derived(definition?.pages[page]?.parameters?.[name] as ParameterDeclaration | undefined);
  const at = $derived(toPointer(['pages', page, 'parameters', name]));
  const segments = $derived(parseTemplate(definition?.pages[page]?.address ?? '/').template.segments);
  const inPath = $derived(segments.some((segment) => 'parameter' in segment && segment.parameter === name));
  const others = $derived(Object.keys(definition?.pages[page]?.parameters ?? {}).filter((other) => other !== name));
  const uses = $derived(definition ? usesOfParameter(definition, page, name) : []);
  const own = $derived(draft.problemsAt(at).filter(({ pointer }) => pointer === at));
  let keepOld = $state(true);
  let refusedName: string | undefined = $state();
  const isNew = $derived(/^new\d*$/.test(name));

  function rename(to: string) {
    refusedName = undefined;
    if (!definition || to === name) return;
    if (!namePattern.test(to)) refusedName = 'A name has letters, digits, “_” and “-”, and begins with a letter.';
    else if (definition.pages[page]?.parameters?.[to]) refusedName = `The page has a parameter “${to}” already.`;
    else if (draft.edit(renameParameter(definition, page, name, to, keepOld && !isNew), `Renamed “${name}” to “${to}”`))
      place.change({ parameter: to });
  }
  function remove() {
    if (definition && draft.edit(removeParameter(definition, page, name), `Removed the parameter “${name}”`))
      place.change({ parameter: undefined });
  }
</script>

{#if declaration && definition}
  <h2>
    {inPath ? 'Path parameter' : 'Query parameter'} “{name}”
    <GuideLink to={typeGuide(declaration.type)} about="parameters of the type {declaration.type}" />
  </h2>
  <div class="fields">
    <TextBox
      label="Name"
      value={name}
      code
      when="done"
      focus={isNew}
      refused={refusedName}
      help={isNew ? 'It stands in addresses, so choose a short one: tab, q, house.' : sentences.name}
      problems={own}
      disabled={!me.mayChange}
      onset={(text) => rename(text.trim())}
    />
    {#if !isNew && !inPath}
      <CheckBox label="Keep the old name working" checked={keepOld} onset={(checked) => (keepOld = checked)} />
    {/if}
  </div>
  <ParameterAttributes {draft} {at} {name} {declaration} {inPath} {others} />

  <h3>Used</h3>
  <PlaceList {draft} places={uses} none="Nothing is bound to it, nothing reads it and nothing sends it yet." />
  {#if me.mayChange}<p class="actions"><Button small look="danger" onclick={remove}>Remove the parameter</Button></p>{/if}
{/if}

<style>
  h2 {
    font: 600 1.05rem var(--text);
    margin-block-end: 0.6rem;
    overflow-wrap: anywhere;
  }
  h3 {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
    margin: 0.9rem 0 0.3rem;
  }
  .fields {
    display: grid;
    gap: 0.6rem;
  }
  .actions {
    margin-block: 1rem 0;
  }
</style>
