<script lang="ts">
  import type { AnswerOf } from '@pallmist/api';
  import { fromPointer, toPointer } from '@pallmist/app/address';
  import { addTo, freeName, slugOf, usesOfMail, valueAt, sampleAddress } from '@pallmist/app/editing';
  import Group from '../controls/Group.svelte';
  import AddForm from '../controls/AddForm.svelte';
  import Button from '../controls/Button.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import PlaceList from '../problems/PlaceList.svelte';
  import { client, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';

  const { draft }: { draft: Draft } = $props();
  const mails = $derived(Object.keys(draft.definition?.mails ?? {}));
  const mail = $derived(place.text('mail') ?? mails[0]);
  const declared = $derived(draft.definition?.mails?.[mail ?? '']);
  const at = $derived(toPointer(['mails', mail ?? '']));
  const uses = $derived(draft.definition && mail !== undefined ? usesOfMail(draft.definition, mail) : []);
  let preview: AnswerOf<'previewMail'> | undefined = $state.raw();
  let said: string | undefined = $state();

  function add(wanted: string) {
    if (!draft.definition) return false;
    const name = freeName(slugOf(wanted), mails, '-');
    const value = { to: '{saved.mail}', subject: 'Thank you', text: 'Hello,\n\nthank you. We have your message.' };
    const taken = draft.edit([addTo(draft.definition, 'mails', name, value)], `Added the mail “${name}”`);
    if (taken) place.change({ mail: name });
    return taken;
  }
  function addLink(wanted: string) {
    const name = freeName(slugOf(wanted, 'link'), Object.keys(declared?.links ?? {}), '-');
    const [page] = Object.keys(draft.definition?.pages ?? {});
    return draft.set(at + toPointer(['links', name]), { text: 'Open', to: { page } }, `Added the link “${name}”`);
  }
  async function look(send: boolean) {
    said = undefined;
    const [use] = uses;
    const [, page = ''] = fromPointer(use?.pointer ?? '');
    const form = use && (valueAt(draft.data, use.pointer) as { name?: string } | undefined)?.name;
    if (use === undefined || form === undefined || mail === undefined || !draft.compiled) {
      said = 'No form sends this mail yet. Choose it in a form’s properties, then look again.';
      return;
    }
    await draft.flush();
    try {
      preview = await client.call(
        'previewMail',
        { app: draft.app, mail },
        { page, component: form, address: inDraft(sampleAddress(draft.compiled, page, undefined) ?? draft.compiled.mount), send },
      );
      if (send) said = 'The test mail is in the outbox. It is not sent.';
    } catch (error) {
      said = explain(error);
    }
  }
  const inDraft = (address: string) => `/~/draft/${draft.app}${address.slice(draft.compiled?.mount.length ?? 0)}`;
  const set = (key: string, value: unknown) => draft.set(`${at}/${key}`, value, `Changed the mail “${mail ?? ''}”`);
</script>

<main>
  <aside>
    <h1>Mails</h1>
    {#if me.isOwner}
      <p>
        <a href={place.href('webhooks', { app: draft.app })} onclick={(event) => place.follow(event)}>Webhooks</a> notify programs when forms
        save records.
      </p>
    {/if}
    <ul>
      {#each mails as one (one)}
        <li>
          <a
            href={place.href('mails', { app: draft.app, mail: one })}
            aria-current={one === mail ? 'true' : undefined}
            onclick={(event) => place.follow(event)}>{one}</a
          >
        </li>
      {:else}<li>None yet. A form can send a mail when it is saved.</li>{/each}
    </ul>
    {#if me.mayChange}
      <AddForm label="Name of a new mail" placeholder="thanks" button="Add" onadd={add} />
    {/if}
    <p><a href={place.href('outbox')} onclick={(event) => place.follow(event)}>Outbox</a></p>
  </aside>
  {#if mail !== undefined && declared}
    <section aria-label="The mail">
      <TextBox
        label="To"
        file="to"
        code
        value={declared.to}
        help={'Values in braces: {saved.mail} is a field of what the form has saved.'}
        problems={draft.problemsAt(`${at}/to`)}
        disabled={!me.mayChange}
        onset={(text) => set('to', text)}
      />
      <TextBox
        label="Subject"
        file="subject"
        value={declared.subject}
        problems={draft.problemsAt(`${at}/subject`)}
        disabled={!me.mayChange}
        onset={(text) => set('subject', text)}
      />
      <TextBox
        label="Text"
        file="text"
        lines={9}
        value={declared.text}
        help={'{link.NAME} is the address of a link below.'}
        problems={draft.problemsAt(`${at}/text`)}
        disabled={!me.mayChange}
        onset={(text) => set('text', text)}
      />
      <h2>Links</h2>
      {#each Object.entries(declared.links ?? {}) as [link, { text, to }] (link)}
        {@const below = at + toPointer(['links', link])}
        <Group label={`{link.${link}}`} tone="query">
          <TextBox label="Words" value={text} onset={(words) => draft.set(`${below}/text`, words, `Changed the link “${link}”`)} />
          <ChoiceBox
            label="Leads to"
            value={to.page}
            options={Object.keys(draft.definition?.pages ?? {})}
            problems={draft.problemsAt(`${below}/to`)}
            onset={(page) => page !== undefined && draft.set(`${below}/to`, { page }, `Changed the link “${link}”`)}
          />
          {#each draft.compiled?.pages.get(to.page)?.parameters ?? [] as parameter (parameter.name)}
            <TextBox
              label="{parameter.name}{parameter.required ? ', required' : ''}"
              code
              value={String(to.values?.[parameter.name] ?? '')}
              placeholder={parameter.declaration.type}
              problems={draft.problemsAt(`${below}/to/values/${parameter.name}`)}
              onset={(value) =>
                draft.set(`${below}/to/values/${parameter.name}`, value === '' ? undefined : value, `Changed the link “${link}”`)}
            />
          {/each}
          <div><Button small look="danger" onclick={() => draft.set(below, undefined, `Removed the link “${link}”`)}>Remove</Button></div>
        </Group>
      {/each}
      {#if me.mayChange}
        <AddForm label="Name of a new link" placeholder="record" button="Add a link" onadd={addLink} />
      {/if}
      <h2>Sent by</h2>
      <PlaceList {draft} places={uses} none="No form sends it yet." />
      {#if me.mayChange && uses.length === 0}
        <p><Button small look="danger" onclick={() => draft.set(at, undefined, `Removed the mail “${mail}”`)}>Remove the mail</Button></p>
      {/if}
    </section>
    <section aria-label="Preview">
      <h2>Preview</h2>
      <p>
        <Button onclick={() => look(false)}>Look at it</Button>
        {#if me.mayChange}<Button onclick={() => look(true)}>Send a test into the outbox</Button>{/if}
      </p>
      <p role="status">{said ?? ''}</p>
      {#if preview}
        <article aria-label="Preview of the mail">
          <p><strong>To</strong> {preview.recipient}</p>
          <p><strong>Subject</strong> {preview.subject}</p>
          {#if preview.problem}<p class="bad">{preview.problem}</p>{/if}
          <pre>{preview.text}</pre>
        </article>
      {/if}
    </section>
  {/if}
</main>

<style>
  main {
    display: grid;
    grid-template-columns: 14rem minmax(0, 1.2fr) minmax(0, 1fr);
    gap: 1.6rem;
    padding: 1rem 1.2rem;
    max-width: 84rem;
    margin-inline: auto;
  }
  h1 {
    font: 600 1.3rem var(--text);
  }
  h2 {
    font: 600 1rem var(--plain);
    margin: 0.6rem 0 0.2rem;
  }
  section {
    display: grid;
    gap: 0.6rem;
    align-content: start;
  }
  ul {
    list-style: none;
    margin: 0.3rem 0;
    padding: 0;
  }
  a[aria-current] {
    font-weight: 600;
  }
  article {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 0.8rem 1rem;
    overflow-wrap: anywhere;
  }
  article p,
  p {
    margin: 0 0 0.3rem;
  }
  pre {
    font: inherit;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  .bad {
    color: var(--bad);
  }
  @media (max-width: 60rem) {
    main {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
