<script lang="ts">
  import Button from '../controls/Button.svelte';
  import { client, explain } from '../service/calls.ts';
  import { place } from '../service/place.svelte.ts';
  import Note from '../controls/Note.svelte';

  let asked = $state.raw(client.call('listMails', {}));
  const states = { kept: 'in the outbox', waiting: 'waiting', sent: 'sent', failed: 'failed' };
  let said = $state('');
  /** A mail whole, with its one-time link: for the owner alone. */
  let whole = $state.raw<{ number: number; text: string }>();

  async function readWhole(number: number): Promise<void> {
    try {
      whole = await client.call('readMail', { number: String(number) });
    } catch (error) {
      said = explain(error);
    }
  }

  async function resend(number: number): Promise<void> {
    try {
      const { resent } = await client.call('resendMails', {}, { numbers: [number] });
      said = resent === 0 ? 'This mail cannot be sent: it has no address to go to, or a link is missing.' : 'The mail is on its way.';
      asked = client.call('listMails', {});
    } catch (error) {
      said = explain(error);
    }
  }
</script>

<h1>Outbox</h1>
{#await asked}
  <p>Loading …</p>
{:then { mails }}
  {@const open = mails.find(({ number }) => number === place.number('mail'))}
  {#if mails.length === 0}
    <p>No mail has been written yet. Without a mail server (<code>PALLMIST_SMTP_URL</code>) mails stay here to be read.</p>
  {:else}
    <div class="both">
      <ul>
        {#each mails as mail (mail.number)}
          <li>
            <a
              href={place.href('outbox', { mail: mail.number })}
              aria-current={mail.number === open?.number ? 'true' : undefined}
              onclick={(event) => place.follow(event)}>{mail.subject}</a
            >
            <p>{mail.recipient}, {mail.writtenAt.slice(0, 16).replace('T', ' ')}, {states[mail.state]}</p>
          </li>
        {/each}
      </ul>
      {#if open}
        <article aria-label={open.subject}>
          <h2>{open.subject}</h2>
          <Note>
            To {open.recipient}, from {open.app === '' ? 'the console' : `the app ${open.app}`}{open.problem === ''
              ? ''
              : `; ${open.problem}`}
          </Note>
          <pre>{whole?.number === open.number ? whole.text : open.text}</pre>
          {#if open.text.includes('=…') && whole?.number !== open.number}
            <p><Button onclick={() => readWhole(open.number)}>Show the one-time link</Button></p>
          {/if}
          {#if open.state === 'failed' || open.state === 'kept'}
            <p><Button onclick={() => resend(open.number)}>Send again</Button></p>
          {/if}
          <p role="status">{said}</p>
        </article>
      {/if}
    </div>
  {/if}
  <p><Button onclick={() => (asked = client.call('listMails', {}))}>Look again</Button></p>
{:catch error}
  <p role="alert">{explain(error)}</p>
{/await}

<style>
  h1 {
    font: 600 1.5rem var(--text);
    margin-block-end: 0.8rem;
  }
  h2 {
    font: 600 1.1rem var(--text);
  }
  .both {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
    gap: 1.5rem;
    align-items: start;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    border-block-end: 1px solid var(--line);
    padding: 0.5rem 0;
  }
  li p,
  a[aria-current] {
    font-weight: 600;
  }
  article {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 1rem 1.3rem;
    min-width: 0;
  }
  pre {
    font: inherit;
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
</style>
