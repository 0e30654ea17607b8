<script lang="ts">
  import { reasons, freeAddress, freeName, type PageDefinition } from '@pallmist/app/editing';
  import { toPointer } from '@pallmist/app/address';
  import ListBox from '../controls/ListBox.svelte';
  import Button from '../controls/Button.svelte';
  import CheckBox from '../controls/CheckBox.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import PlainLink from '../links/PlainLink.svelte';
  import { me } from '../service/me.svelte.ts';

  const { draft }: { draft: Draft } = $props();
  const signIn = $derived(draft.definition?.signIn);
  const pages = $derived(Object.keys(draft.definition?.pages ?? {}));
  const set = (key: string, value: unknown, what: string) => draft.set(`/signIn/${key}`, value, what);
  const reasonWords: Record<string, string> = {
    'sign-in-needed': 'The page needs a sign-in',
    'wrong-password': 'Name or password is wrong',
    'signed-out': 'After signing out',
    'too-many-tries': 'Too many tries',
    'other-account': 'Another account is needed',
    'mail-sent': 'A link is on its way by mail',
    'link-expired': 'The link of a mail has expired',
  };
  const links = [
    ['afterSignIn', 'After sign-in', 'The page that people see after sign-in, unless they wanted another one.'],
    ['afterSignOut', 'After sign-out', 'The sign-in page when left out.'],
  ] as const;

  /** Adds a page with the sign-in form, and names it. */
  function begin() {
    const { definition } = draft;
    if (!definition) return;
    const name = freeName('sign-in', pages, '-');
    const page: PageDefinition = {
      title: 'Sign in',
      address: freeAddress(definition, '/sign-in'),
      content: [{ show: 'heading', text: 'Sign in' }, { show: 'sign-in' }],
    };
    draft.edit(
      [
        { op: 'add', path: toPointer(['pages', name]), value: page },
        { op: 'add', path: '/signIn', value: { page: name }, before: 'pages' },
      ],
      'Added sign-in',
    );
  }
</script>

<section aria-label="Sign-in">
  <h2>Sign-in</h2>
  {#if signIn === undefined}
    <p>Nobody can sign in yet. Pages with a gate need it.</p>
    {#if me.mayChange}<Button onclick={begin}>Add sign-in, with its page</Button>{/if}
  {:else}
    <div class="fields">
      <ChoiceBox
        label="Page with the sign-in form"
        file="page"
        value={signIn.page}
        options={pages}
        problems={draft.problemsAt('/signIn/page')}
        disabled={!me.mayChange}
        onset={(page) => page !== undefined && set('page', page, 'Changed the sign-in page')}
      />
      {#each links as [key, label, help] (key)}
        <PlainLink {draft} {label} {help} pointer="/signIn/{key}" optional />
      {/each}
      <CheckBox
        label="Visitors may make accounts themselves"
        checked={signIn.newcomers !== undefined}
        help="On a page with the component “sign-up”."
        disabled={!me.mayChange}
        onset={(checked) => set('newcomers', checked ? {} : undefined, 'Changed whether visitors may make accounts')}
      />
      {#if signIn.newcomers}
        <PlainLink
          {draft}
          label="After sign-up"
          help="The page that new people see first, unless they wanted another one."
          pointer="/signIn/newcomers/afterSignUp"
          optional
        />
        <ListBox
          label="Roles of newcomers"
          value={signIn.newcomers.roles}
          placeholder="none"
          disabled={!me.mayChange}
          onset={(roles) => set('newcomers/roles', roles, 'Changed the roles of newcomers')}
        />
      {/if}
      <CheckBox
        label="Sign-in by a link in a mail"
        checked={signIn.byMail !== undefined}
        help="For people whose mail address you have given."
        disabled={!me.mayChange}
        onset={(checked) =>
          set(
            'byMail',
            checked
              ? {
                  subject: 'Your way into {app.title}',
                  text: 'Hello {person.name},\n\nopen this address to sign in:\n\n{link.enter}',
                  enter: 'Sign in',
                }
              : undefined,
            'Changed sign-in by mail',
          )}
      />
      {#if signIn.byMail}
        <TextBox
          label="Subject of the mail"
          value={signIn.byMail.subject}
          problems={draft.problemsAt('/signIn/byMail/subject')}
          onset={(text) => set('byMail/subject', text, 'Changed the mail')}
        />
        <TextBox
          label="Text of the mail"
          lines={5}
          value={signIn.byMail.text}
          help={'{link.enter} is the address that lets the person in.'}
          problems={draft.problemsAt('/signIn/byMail/text')}
          onset={(text) => set('byMail/text', text, 'Changed the mail')}
        />
        <TextBox
          label="Minutes for which the link works"
          type="number"
          when="done"
          min={5}
          max={1440}
          value={String(signIn.byMail.minutes ?? '')}
          placeholder="20"
          onset={(text) => set('byMail/minutes', text === '' ? undefined : Number(text), 'Changed how long the link works')}
        />
      {/if}
      <details>
        <summary>What the sign-in page says, by reason</summary>
        <div class="fields">
          {#each reasons as reason (reason)}
            <TextBox
              label={reasonWords[reason] ?? reason}
              file={reason}
              value={signIn.reasons?.[reason] ?? ''}
              placeholder="as usual"
              problems={draft.problemsAt(`/signIn/reasons/${reason}`)}
              disabled={!me.mayChange}
              onset={(text) => set(`reasons/${reason}`, text === '' ? undefined : text, 'Changed what the sign-in page says')}
            />
          {/each}
        </div>
      </details>
    </div>
  {/if}
</section>

<style>
  section {
    margin-block-start: 1.6rem;
  }
  h2 {
    font: 600 1.3rem var(--text);
    margin-block-end: 0.4rem;
  }
  p {
    margin: 0.3rem 0 0.6rem;
    color: var(--quiet);
  }
  .fields {
    display: grid;
    gap: 0.6rem;
  }
  summary {
    cursor: pointer;
    margin-block: 0.3rem;
  }
</style>
