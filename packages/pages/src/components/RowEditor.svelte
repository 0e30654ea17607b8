<script lang="ts">
  import type { TableNode } from '@pallmist/app/view';
  import { follow } from '../follow.ts';
  import type { LivePage } from '../live-page.ts';
  import { untrack } from 'svelte';
  import { TypedRecord } from '../typed-texts.svelte.ts';
  import BoxField from './BoxField.svelte';
  import SubmitButton from './SubmitButton.svelte';

  interface Props {
    node: TableNode;
    edited: NonNullable<TableNode['edited']>;
    live: LivePage;
  }
  const { node, edited, live }: Props = $props();
  const form = $derived(edited.form);
  const typed = new TypedRecord(() => edited.form.seen);
  // What the service says of this form, the visitor reads beside the record as it is now.
  $effect.pre(() => {
    if (live.answers > 0) untrack(() => edited.form.problem !== undefined && typed.answered());
  });

  /** Moves the focus into the first box of the edited row. */
  function beginTyping(boxes: HTMLElement) {
    boxes.querySelector<HTMLElement>('input:not([type="hidden"]), select, textarea')?.focus();
  }

  function submitted(event: SubmitEvent) {
    if (!live.hydrated || !(event.currentTarget instanceof HTMLFormElement)) return;
    event.preventDefault();
    live.send(event.currentTarget);
  }
</script>

<tr>
  {#if node.choose}<td></td>{/if}
  {#if node.columns.length > 1}<td>{edited.title}</td>{/if}
  <td colspan={Math.max(1, node.columns.length - 1)}>
    <form
      id={form.id}
      method="post"
      action={form.action}
      enctype={form.files ? 'multipart/form-data' : undefined}
      aria-label="{node.label}: {edited.key}"
      onsubmit={submitted}
      oninput={typed.takeRecord}
      {@attach beginTyping}
    >
      <input type="hidden" name="~form" value={form.name} />
      {#if typed.seen}<input type="hidden" name="~seen" value={typed.seen} />{/if}
      {#if form.once}<input type="hidden" name="~once" value={form.once} />{/if}
      {#if form.problem}<p class="problem" role="alert" tabindex="-1">{form.problem}</p>{/if}
      {#each form.boxes as box (box.name)}<BoxField {box} {typed} say={live.shown.say} id="{form.id}-{box.name}" />{/each}
    </form>
  </td>
  <td class="acts">
    <SubmitButton form={form.id} disabled={live.busy}>{form.button}</SubmitButton>
    <a href={edited.cancel.href} onclick={follow(live, edited.cancel)}>{edited.cancel.text}</a>
  </td>
</tr>

<style>
  td {
    background: var(--leaf-soft);
  }
  form {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(11rem, 1fr));
    gap: 0.6rem 1rem;
  }
  .problem {
    grid-column: 1 / -1;
    margin: 0;
    border-inline-start: 0.3rem solid var(--bad);
    background: var(--bad-soft);
    padding: 0.5rem 0.8rem;
    border-radius: var(--round);
  }
  .acts {
    white-space: nowrap;
  }
  .acts a {
    margin-inline-start: 0.6rem;
  }
</style>
