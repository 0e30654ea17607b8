<script lang="ts">
  import Button from '../controls/Button.svelte';
  import EmptyState from '../controls/EmptyState.svelte';
  import { client, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';

  let apps = $state(client.call('listApps', {}));

  function problems({ errors, warnings }: { errors: number; warnings: number }): string {
    const parts = [
      errors > 0 ? `${errors} ${errors === 1 ? 'error' : 'errors'}` : '',
      warnings > 0 ? `${warnings} ${warnings === 1 ? 'warning' : 'warnings'}` : '',
    ];
    return parts.filter(Boolean).join(', ') || 'no problems';
  }
</script>

<div class="head">
  <h1>Apps</h1>
  {#if me.mayChange}
    <a class="new" href={place.href('new')} onclick={(event) => place.follow(event)}>New app</a>
  {/if}
</div>
{#await apps}
  <p>Loading …</p>
{:then { apps: list }}
  {#if list.length === 0}
    <EmptyState title="Make your first app">
      <p>
        Start from a data file and get a searchable list that you can share within a minute. Or start with an empty app, or with a copy of
        the demo.
      </p>
      {#if me.mayChange}<p><a class="new" href={place.href('new')} onclick={(event) => place.follow(event)}>New app</a></p>{/if}
    </EmptyState>
  {/if}
  <ul>
    {#each list as app (app.app)}
      <li>
        <h2>
          <a href={place.href('pages', { app: app.app })} onclick={(event) => place.follow(event)}>{app.title}</a> <code>{app.app}</code>
        </h2>
        {#if app.stuck}<p class="bad">This app is not served. {app.stuck} Publish an edition that this version can read.</p>{/if}
        <dl>
          <div>
            <dt>Mounted at</dt>
            <dd>
              {#if app.edition && !app.stuck}<a href={app.mount} target="_blank" rel="noopener"><code>{app.mount}</code></a>{:else}<code
                  >{app.mount}</code
                >{/if}
            </dd>
          </div>
          <div>
            <dt>Edition</dt>
            <dd>{app.edition ? `${app.edition.number}, of ${app.edition.publishedAt.slice(0, 10)}` : 'none yet'}</dd>
          </div>
          <div>
            <dt>Draft</dt>
            <dd>{app.draft.changed ? 'has changes to publish' : 'is published'}</dd>
          </div>
          <div>
            <dt>Check</dt>
            <dd class:bad={app.problems.errors > 0}>{problems(app.problems)}</dd>
          </div>
        </dl>
      </li>
    {/each}
  </ul>
{:catch error}
  <p role="alert">{explain(error)}</p>
  <p><Button onclick={() => (apps = client.call('listApps', {}))}>Try again</Button></p>
{/await}

<style>
  .head {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    margin-block-end: 1rem;
  }
  h1 {
    font: 600 1.5rem var(--text);
  }
  .new {
    background: var(--leaf);
    color: var(--on-leaf);
    border-radius: var(--round);
    padding: 0.35rem 1rem;
    text-decoration: none;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0;
    display: grid;
    gap: 0.8rem;
  }
  li {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 0.8rem 1.1rem;
  }
  h2 {
    font: 600 1.15rem var(--text);
    margin-block-end: 0.4rem;
  }
  h2 code {
    color: var(--quiet);
    font-weight: 400;
    font-size: 0.8rem;
  }
  dl {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(10rem, 1fr));
    gap: 0.4rem 1.5rem;
    margin: 0;
  }
  dt {
    color: var(--quiet);
    font-size: 0.8125rem;
  }
  dd {
    margin: 0;
  }
  .bad {
    color: var(--bad);
  }
</style>
