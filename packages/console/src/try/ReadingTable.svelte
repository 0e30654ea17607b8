<script lang="ts">
  import { writePlainText, type CompiledApp, type ParameterReading, type Reading } from '@pallmist/app/address';
  import Parts from '../controls/Parts.svelte';

  interface Props {
    reading: Reading;
    app: CompiledApp;
    /** What a parameter feeds, each with a link to it. */
    feeds: (
      parameter: string,
    ) => { words: string; href: string; follow: (event: MouseEvent & { currentTarget: HTMLAnchorElement }) => void }[];
  }
  const { reading, app, feeds }: Props = $props();
  const own = $derived(reading.problems.filter(({ parameter }) => parameter === undefined));

  /** What a parameter feeds is listed as far as it helps; its properties list all of it. */
  const mostFeeds = 5;

  /** Texts in quotes; what is more than one text, as it would be written. */
  function shownValue({ name, value }: ParameterReading): string {
    if (value === undefined) return '—';
    if (typeof value !== 'object') return typeof value === 'string' ? `“${value}”` : String(value);
    const { plain, declaration } = app.pages.get(reading.page ?? '')?.byName.get(name) ?? {};
    const written = plain === undefined || declaration?.type === 'packed' ? undefined : writePlainText(plain, value);
    return typeof written === 'string' ? written : JSON.stringify(value);
  }
</script>

<section aria-label="How the address is read">
  <p class="page">
    Read as {#if reading.page}the page <strong>{reading.page}</strong>{:else}no page{/if}{reading.status === 'refused' ? ', refused' : ''}
  </p>
  {#if reading.parameters.length > 0}
    <table>
      <thead>
        <tr
          ><th scope="col">Parameter</th><th scope="col">Text as given</th><th scope="col">Value</th><th scope="col">Origin</th><th
            scope="col">Feeds</th
          ></tr
        >
      </thead>
      {#each reading.parameters as parameter (parameter.name)}
        <tbody>
          <tr>
            <th scope="row"><Parts parts={[{ text: parameter.name, kind: parameter.place }]} /></th>
            <td><code>{parameter.text ?? ''}</code></td>
            <td>{shownValue(parameter)}</td>
            <td>{parameter.origin}{parameter.corrected ? ', corrected' : ''}</td>
            <td>
              {#each feeds(parameter.name).slice(0, mostFeeds) as use, index (index)}{index > 0 ? ', ' : ''}<a
                  href={use.href}
                  onclick={use.follow}>{use.words}</a
                >{:else}<span class="quiet">nothing on the page</span>{/each}
            </td>
          </tr>
          {#if parameter.problem}<tr class="problem"><td></td><td colspan="4">{parameter.problem.message}</td></tr>{/if}
        </tbody>
      {/each}
    </table>
  {/if}
  {#each own as problem (problem.message)}<p class={problem.severity}>{problem.message} {problem.hint}</p>{/each}
</section>

<style>
  section {
    font-size: 0.8125rem;
    overflow: auto;
  }
  .page {
    margin: 0 0 0.3rem;
    color: var(--quiet);
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th,
  td {
    text-align: start;
    padding: 0.2rem 1.2rem 0.2rem 0.2rem;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  thead th {
    color: var(--quiet);
    font-weight: normal;
    font-size: 0.85rem;
  }
  tbody {
    border-block-end: 1px solid var(--line);
  }
  th[scope='row'] {
    font-weight: normal;
  }
  th {
    white-space: nowrap;
    width: 1%;
  }
  .quiet {
    color: var(--quiet);
  }
  .problem td,
  .error {
    color: var(--bad);
  }
  code {
    font-family: var(--code);
  }
</style>
