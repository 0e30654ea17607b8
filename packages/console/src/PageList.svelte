<script lang="ts">
  import { templateParts } from '@pallmist/app/address';
  import Parts from './Parts.svelte';
  import { place } from './place.svelte.ts';
  import type { DraftEditor } from './draft-editor.svelte.ts';

  const { editor, current }: { editor: DraftEditor; current: string | undefined } = $props();
  const pages = $derived(Object.entries(editor.checked.definition?.pages ?? {}));

  function count(page: string): { errors: number; warnings: number } {
    const problems = editor.problemsOf(page);
    return {
      errors: problems.filter(({ severity }) => severity === 'error').length,
      warnings: problems.filter(({ severity }) => severity === 'warning').length,
    };
  }
</script>

<nav aria-label="Pages">
  <h2>Pages</h2>
  <ul>
    {#each pages as [name, page] (name)}
      {@const { errors, warnings } = count(name)}
      <li>
        <a
          href={place.href('editor', { app: editor.app, page: name })}
          aria-current={name === current ? 'page' : undefined}
          onclick={(event) => place.follow(event)}
        >
          <span class="name"
            >{name}{#if page.admit === 'signed-in'}<span class="gate">signed in</span>{/if}</span
          >
          <span class="template"><Parts parts={templateParts(page.address)} /></span>
          {#if errors > 0}<span class="bad">{errors} {errors === 1 ? 'error' : 'errors'}</span>{/if}
          {#if warnings > 0}<span class="warn">{warnings} {warnings === 1 ? 'warning' : 'warnings'}</span>{/if}
        </a>
      </li>
    {/each}
  </ul>
</nav>

<style>
  h2 {
    font: 600 0.85rem var(--plain);
    color: var(--quiet);
    margin: 0.2rem 0.6rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  a {
    display: grid;
    padding: 0.4rem 0.6rem;
    color: inherit;
    text-decoration: none;
    border-inline-start: 3px solid transparent;
  }
  a:hover {
    background: var(--sunk);
  }
  a[aria-current] {
    background: var(--leaf-soft);
    border-color: var(--leaf);
  }
  .template {
    font-size: 0.75rem;
    color: var(--quiet);
    line-height: 1.6;
  }
  .gate {
    font-size: 0.75rem;
    color: var(--quiet);
    margin-inline-start: 0.5rem;
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 0 0.3rem;
  }
  .bad {
    color: var(--bad);
    font-size: 0.8rem;
  }
  .warn {
    color: var(--warn);
    font-size: 0.8rem;
  }
</style>
