<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { addTo, freeName, slugOf, usesOfGate } from '@pallmist/app/editing';
  import ListBox from '../controls/ListBox.svelte';
  import Group from '../controls/Group.svelte';
  import AddForm from '../controls/AddForm.svelte';
  import Button from '../controls/Button.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';

  const { draft }: { draft: Draft } = $props();
  const gates = $derived(Object.entries(draft.definition?.gates ?? {}));

  function add(wanted: string) {
    if (!draft.definition) return false;
    const name = freeName(
      slugOf(wanted),
      gates.map(([gate]) => gate),
      '-',
    );
    return draft.edit([addTo(draft.definition, 'gates', name, { roles: [name] })], `Added the gate “${name}”`);
  }
</script>

<section aria-label="Gates">
  <h2>Gates</h2>
  <p>A gate decides who can open a page. Choose one in the page’s properties.</p>
  {#each gates as [gate, declared] (gate)}
    {@const at = toPointer(['gates', gate])}
    {@const uses = draft.definition ? usesOfGate(draft.definition, gate).length : 0}
    <Group label={gate} note="{uses} {uses === 1 ? 'page' : 'pages'}" tone="path">
      <ListBox
        label="Roles"
        file="roles"
        value={declared.roles}
        placeholder="any"
        help="People with one of these roles, separated by commas."
        problems={draft.problemsAt(`${at}/roles`)}
        disabled={!me.mayChange}
        onset={(roles) => draft.set(`${at}/roles`, roles, `Changed the roles of the gate “${gate}”`)}
      />
      <TextBox
        label="And only if"
        file="when"
        code
        when="done"
        value={declared.when ?? ''}
        placeholder="person.login == record.note.author"
        help="A CEL expression on person, param and record."
        problems={draft.problemsAt(`${at}/when`)}
        disabled={!me.mayChange}
        onset={(text) =>
          draft.set(`${at}/when`, text.trim() === '' ? undefined : text.trim(), `Changed the condition of the gate “${gate}”`)}
      />
      {#if me.mayChange && uses === 0}
        <div>
          <Button small look="danger" onclick={() => draft.set(at, undefined, `Removed the gate “${gate}”`)}>Remove the gate</Button>
        </div>
      {/if}
    </Group>
  {:else}<p>None yet.</p>{/each}
  {#if me.mayChange}
    <AddForm label="Name of a new gate" placeholder="keepers" button="Add a gate" onadd={add} />
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 0.8rem;
  }
  h2 {
    font: 600 1.3rem var(--text);
  }
  p {
    margin: 0;
    color: var(--quiet);
  }
</style>
