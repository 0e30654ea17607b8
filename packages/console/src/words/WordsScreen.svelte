<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { addTo, freeName, identifierOf, type PageDefinition } from '@pallmist/app/editing';
  import ScreenPage from '../controls/ScreenPage.svelte';
  import AddForm from '../controls/AddForm.svelte';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';

  const { draft }: { draft: Draft } = $props();
  const words = $derived(Object.entries(draft.definition?.words ?? {}));
  const language = $derived(draft.definition?.parameters?.[draft.definition.language ?? '']);
  const languages = $derived.by(() => {
    const list = Object.keys(draft.definition?.choices?.[language?.of ?? ''] ?? {});
    return list.length > 0 ? list : [...new Set(words.flatMap(([, texts]) => Object.keys(texts)))];
  });
  let missingOnly = $state(false);
  const shown = $derived(missingOnly ? words.filter(([, texts]) => languages.some((one) => (texts[one] ?? '') === '')) : words);
  const missing = $derived(words.reduce((sum, [, texts]) => sum + languages.filter((one) => (texts[one] ?? '') === '').length, 0));

  function add(wanted: string) {
    if (!draft.definition) return false;
    const name = freeName(
      identifierOf(wanted),
      words.map(([one]) => one),
    );
    const value = Object.fromEntries((languages.length > 0 ? languages : ['en']).map((one, index) => [one, index === 0 ? wanted : '']));
    return draft.edit([addTo(draft.definition, 'words', name, value)], `Added the word “${name}”`);
  }
  /** A parameter of the app that holds the language, with its choices list. */
  function begin() {
    if (!draft.definition) return;
    draft.edit(
      [
        draft.definition.choices === undefined
          ? { op: 'add', path: '/choices', value: { languages: { en: 'English', de: 'Deutsch' } }, before: 'pages' }
          : { op: 'add', path: '/choices/languages', value: { en: 'English', de: 'Deutsch' } },
        addTo(draft.definition, 'parameters', 'lang', {
          type: 'choice',
          of: 'languages',
          default: 'en',
          step: false,
          label: 'Language',
        } satisfies NonNullable<PageDefinition['parameters']>[string]),
        { op: 'add', path: '/language', value: 'lang', before: 'pages' },
      ],
      'Added languages',
    );
  }
  const isTag = (text: string) => /^[a-z]{2,3}(-[A-Za-z0-9]+)*$/.test(text);
  function addLanguage(tag: string) {
    if (language?.of === undefined) return false;
    const names = new Intl.DisplayNames([tag], { type: 'language' });
    return draft.set(toPointer(['choices', language.of, tag]), names.of(tag) ?? tag, `Added the language “${tag}”`);
  }
</script>

<ScreenPage title="Words and languages">
  {#if draft.definition?.language === undefined}
    <p>The app has one language. With several, each word below has a text in each, and the address holds the language.</p>
    {#if me.mayChange}<p><Button onclick={begin}>Add languages</Button></p>{/if}
  {:else}
    <p>
      <code>{'{word.NAME}'}</code> in a text gives the word in the visitor’s language. {missing === 0
        ? 'Nothing is missing.'
        : `${missing} ${missing === 1 ? 'text is' : 'texts are'} missing.`}
      <label><input type="checkbox" bind:checked={missingOnly} /> show only what is missing</label>
    </p>
  {/if}
  {#if words.length > 0}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -- what scrolls can be scrolled by keys -->
    <div class="scroll" role="group" aria-label="Words" tabindex="0">
      <table>
        <thead
          ><tr
            ><th scope="col">Word</th>{#each languages as one (one)}<th scope="col">{one}</th>{/each}<th scope="col"
              ><span class="visually-hidden">Remove</span></th
            ></tr
          ></thead
        >
        <tbody>
          {#each shown as [word, texts] (word)}
            <tr>
              <th scope="row"><code>{word}</code></th>
              {#each languages as one (one)}
                <td class:missing={(texts[one] ?? '') === ''}>
                  <input
                    aria-label="{word} in {one}"
                    lang={one}
                    value={texts[one] ?? ''}
                    placeholder="missing"
                    disabled={!me.mayChange}
                    oninput={({ currentTarget }) =>
                      draft.set(
                        toPointer(['words', word, one]),
                        currentTarget.value === '' ? undefined : currentTarget.value,
                        `Changed the word “${word}”`,
                      )}
                  />
                </td>
              {/each}
              <td>
                {#if me.mayChange}<Button
                    small
                    look="quiet"
                    aria-label="Remove {word}"
                    onclick={() => draft.set(toPointer(['words', word]), undefined, `Removed the word “${word}”`)}>Remove</Button
                  >{/if}
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
  {#if me.mayChange}
    <div class="forms">
      <AddForm label="A new word" placeholder="Greenhouse" button="Add a word" onadd={add} />
      {#if language?.of !== undefined}
        <AddForm label="Tag of a new language" placeholder="fr" button="Add a language" accepts={isTag} onadd={addLanguage} />
      {/if}
    </div>
  {/if}
</ScreenPage>

<style>
  p {
    margin: 0.4rem 0 0.7rem;
  }
  .scroll {
    overflow: auto;
    max-height: calc(100vh - 15rem);
    border: 1px solid var(--line);
    background: var(--sheet);
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th,
  td {
    border: 1px solid var(--line);
    text-align: start;
    padding: 0;
  }
  th {
    padding: 0.2rem 0.5rem;
    font-weight: 600;
    font-size: 0.875rem;
  }
  td input {
    border: 0;
    background: none;
    width: 100%;
    min-width: 10rem;
    padding: 0.25rem 0.5rem;
  }
  .missing {
    background: var(--warn-soft);
  }
  .forms {
    display: flex;
    gap: 1.5rem;
    margin-block-start: 0.8rem;
  }
</style>
