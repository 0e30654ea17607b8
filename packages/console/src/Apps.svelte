<script lang="ts">
  import { ApiError } from '@pallmist/api';
  import { client, explain } from './calls.ts';
  import { place } from './place.svelte.ts';
  import ConsoleLayout from './ConsoleLayout.svelte';

  let apps = $state(client.call('listApps', {}));

  function problems({ errors, warnings }: { errors: number; warnings: number }): string {
    const parts = [
      errors > 0 ? `${errors} ${errors === 1 ? 'error' : 'errors'}` : '',
      warnings > 0 ? `${warnings} ${warnings === 1 ? 'warning' : 'warnings'}` : '',
    ];
    return parts.filter(Boolean).join(', ') || 'no problems';
  }
</script>

<ConsoleLayout>
  <h1>Apps</h1>
  {#await apps}
    <p>Looking …</p>
  {:then { apps: list }}
    <ul>
      {#each list as app (app.app)}
        <li>
          <h2><a href={place.href('editor', { app: app.app })} onclick={(event) => place.follow(event)}>{app.title}</a></h2>
          {#if app.stuck}
            <p class="bad">This app is not served. {app.stuck} Push and publish an edition that this version can read.</p>
          {/if}
          <dl>
            <div>
              <dt>Name</dt>
              <dd><code>{app.app}</code></dd>
            </div>
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
              <dd>{app.draft.revision}{app.draft.changed ? ', not published' : ', published'}</dd>
            </div>
            <div>
              <dt>Visits</dt>
              <dd><a href={place.href('visits', { app: app.app })} onclick={(event) => place.follow(event)}>Visits</a></dd>
            </div>
            <div>
              <dt>Check</dt>
              <dd class:bad={app.problems.errors > 0}>{problems(app.problems)}</dd>
            </div>
          </dl>
        </li>
      {:else}
        <li>There are no apps yet. Push one: <code>pallmist push app.yaml --with-data</code></li>
      {/each}
    </ul>
  {:catch error}
    {#if error instanceof ApiError && error.status === 401}
      <p>
        The console is opened by its one-time link. It is printed when the service starts, and stands in the file <code
          >console-link.txt</code
        > of the data directory.
      </p>
    {:else}
      <p role="alert">{explain(error)}</p>
    {/if}
    <p><button onclick={() => (apps = client.call('listApps', {}))}>Try again</button></p>
  {/await}
</ConsoleLayout>

<style>
  h2 {
    font-size: 1.3rem;
  }
  ul {
    list-style: none;
    padding: 0;
    display: grid;
    gap: 1rem;
  }
  li {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 1rem 1.3rem;
  }
  dl {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(10rem, 1fr));
    gap: 0.6rem 1.5rem;
    margin: 0;
  }
  dt {
    color: var(--quiet);
    font-size: 0.85rem;
  }
  dd {
    margin: 0;
  }
  .bad {
    color: var(--bad);
  }
  code {
    font-family: var(--code);
    font-size: 0.9em;
  }
</style>
