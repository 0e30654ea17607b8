<script lang="ts">
  import { toPointer, type Problem } from '@pallmist/app/address';
  import { valueAt, type Component, collectionShownBy } from '@pallmist/app/editing';
  import AddForm from '../controls/AddForm.svelte';
  import Group from '../controls/Group.svelte';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import ValueBox from './ValueBox.svelte';

  interface Props {
    draft: Draft;
    page: string;
    frame: PageInFrame;
    label: string;
    file: string;
    help: string | undefined;
    problems: readonly Problem[];
    pointer: string;
    row: string | undefined;
    component: Component;
  }
  const { draft, page, frame, label, file, help, problems, pointer, row, component }: Props = $props();
  const entries = $derived(Object.entries((valueAt(draft.data, pointer) as Record<string, unknown> | undefined) ?? {}));
  const fields = $derived(
    file === 'set'
      ? Object.keys(draft.definition?.collections?.[collectionShownBy(draft.definition, page, component) ?? '']?.fields ?? {})
      : [],
  );
  const below = (key: string) => pointer + toPointer([key]);

  const isName = (name: string) => /^[A-Za-z][\w-]*$/.test(name);
  const add = (name: string) => draft.set(below(name), '', `Added “${name}” to “${label.toLowerCase()}”`);
</script>

<Group {label} {file} {problems} {help}>
  {#each entries as [key, value] (key)}
    <div class="line">
      <ValueBox
        {draft}
        {page}
        {frame}
        label={key}
        {row}
        into="value"
        problems={draft.problemsAt(below(key))}
        value={String(value as string)}
        onset={(next) => draft.set(below(key), next, `Changed “${key}”`)}
      />
      {#if me.mayChange}
        <Button small look="quiet" aria-label="Remove {key}" onclick={() => draft.set(below(key), undefined, `Removed “${key}”`)}
          >Remove</Button
        >
      {/if}
    </div>
  {/each}
  {#if me.mayChange}
    <AddForm
      label="Name of what is added to {label.toLowerCase()}"
      placeholder="name"
      button="Add"
      offered={fields}
      accepts={isName}
      onadd={add}
    />
  {/if}
</Group>

<style>
  .line {
    display: flex;
    gap: 0.3rem;
    align-items: end;
  }
  .line > :global(.field) {
    flex: 1;
  }
</style>
