<script lang="ts">
  import type { NodeOf, Say, ShownPage } from '@pallmist/app/view';
  import type { Snippet } from 'svelte';
  import AnchorLink from './components/AnchorLink.svelte';
  import Navigation from './components/Navigation.svelte';
  import './style/tokens.css';

  interface Props {
    say: Say;
    appTitle: string;
    home: string;
    navigation: NodeOf<'navigation'> | undefined;
    person?: { name: string; signOut: string; account?: string } | undefined;
    signInHref?: string | undefined;
    draft: boolean;
    /** The style sheet of the app’s look. */
    look?: string | undefined;
    logo?: string | undefined;
    footer?: ShownPage['footer'] | undefined;
    children: Snippet;
  }
  const { say, appTitle, home, navigation, person, signInHref, draft, look, logo, footer, children }: Props = $props();
</script>

<svelte:head>
  {#if look !== undefined}<link rel="stylesheet" href={look} />{/if}
</svelte:head>

<a class="skip" href="#content">{say('Skip to the content')}</a>
<header>
  <div class="bar">
    <a class="home" href={home}
      >{#if logo}<img src={logo} alt="" height="32" />{/if}{appTitle}</a
    >
    {#if draft}<span class="draft">{say('Draft')}</span>{/if}
    {#if navigation}<Navigation node={navigation} />{/if}
    <div class="person">
      {#if person}
        <form method="post" action={person.signOut}>
          {#if person.account}<a href={person.account}>{person.name}</a>{:else}<span>{person.name}</span>{/if}
          <button>{say('Sign out')}</button>
        </form>
      {:else if signInHref}<a href={signInHref}>{say('Sign in')}</a>{/if}
    </div>
  </div>
</header>
<main id="content" tabindex="-1">{@render children()}</main>
{#if footer}
  <footer>
    <div class="bar">
      {#if footer.text}<p>{footer.text}</p>{/if}
      {#each footer.links as link (link.text)}<AnchorLink {link} />{/each}
    </div>
  </footer>
{/if}

<style>
  .skip {
    position: absolute;
    inset-inline-start: 1rem;
    inset-block-start: -4rem;
    background: var(--sheet);
    padding: 0.5rem 1rem;
    z-index: 2;
  }
  .skip:focus {
    inset-block-start: 0.5rem;
  }
  header {
    background: var(--sheet);
    border-block-end: 1px solid var(--line);
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.2rem 1.4rem;
  }
  .bar,
  main {
    max-width: 72rem;
    margin-inline: auto;
    padding: 0.6rem 1.2rem;
  }
  main {
    padding-block-end: 4rem;
  }
  main:focus {
    outline: none;
  }
  .home {
    font-family: var(--text);
    font-size: 1.2rem;
    font-weight: 600;
    color: var(--ink);
    text-decoration: none;
  }
  .draft {
    border: 2px dashed var(--warn);
    color: var(--warn);
    border-radius: var(--round);
    padding: 0 0.5rem;
    font-size: 0.85rem;
  }
  .home img {
    vertical-align: middle;
    margin-inline-end: 0.5rem;
  }
  footer {
    border-block-start: 1px solid var(--line);
    background: var(--sheet);
    color: var(--quiet);
    font-size: 0.9rem;
  }
  footer p {
    margin: 0;
    margin-inline-end: auto;
    white-space: pre-line;
  }
  /* On paper there is what the page is about. */
  @media print {
    .skip,
    header,
    footer {
      display: none;
    }
    main {
      max-width: none;
      padding: 0;
    }
    main :global(:is(form, button, nav, [role='status'])) {
      display: none;
    }
  }
  .person {
    margin-inline-start: auto;
  }
  .person button {
    background: none;
    border: 0;
    color: var(--leaf);
    text-decoration: underline;
    text-underline-offset: 0.15em;
    cursor: pointer;
    padding: 0.35rem 0;
  }
  .person span,
  .person a:not(:only-child) {
    color: var(--quiet);
    margin-inline-end: 0.6rem;
  }
</style>
