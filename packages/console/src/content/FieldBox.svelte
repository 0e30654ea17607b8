<script lang="ts">
  import type { Problem } from '@pallmist/app/address';
  import { type Component, collectionShownBy } from '@pallmist/app/editing';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';

  interface Props {
    draft: Draft;
    page: string;
    label: string;
    file: string;
    help: string | undefined;
    problems: readonly Problem[];
    component: Component;
    value: string;
    onset: (path: string | undefined) => void;
  }
  const { draft, page, label, file, help, problems, component, value, onset }: Props = $props();
  const options = $derived.by(() => {
    const { definition } = draft;
    const fields = definition?.collections?.[collectionShownBy(definition, page, component) ?? '']?.fields ?? {};
    // A form saves fields of its own record; what is shown may be a field of a record that is referred to.
    const through = component.show !== 'form';
    return Object.entries(fields).flatMap(([name, field]) => {
      const words = field.label ?? name;
      const own = { value: name, label: words };
      if (field.type !== 'record' || !through) return [own];
      const target = definition?.collections?.[field.of ?? '']?.fields ?? {};
      return [
        own,
        ...Object.entries(target).map(([inner, { label: said }]) => ({ value: `${name}.${inner}`, label: `${words}: ${said ?? inner}` })),
      ];
    });
  });
</script>

<ChoiceBox
  {label}
  {file}
  {help}
  {problems}
  value={value === '' ? undefined : value}
  {options}
  none="none"
  disabled={!me.mayChange}
  {onset}
/>
