<script lang="ts">
  import type { DataRow, GuessedField } from '@pallmist/app/editing';

  interface Props {
    fields: readonly GuessedField[];
    sample: readonly DataRow[];
    key: string | undefined;
    titleField: string | undefined;
    onfields: (fields: GuessedField[]) => void;
    onkey: (name: string | undefined) => void;
    ontitle: (name: string | undefined) => void;
  }
  const { fields, sample, key, titleField, onfields, onkey, ontitle }: Props = $props();
  const types = ['text', 'integer', 'number', 'boolean', 'date', 'choice'] as const;

  function change(index: number, changed: (field: GuessedField) => GuessedField) {
    onfields(fields.map((field, at) => (at === index ? changed(field) : field)));
  }
  function setType(index: number, type: (typeof types)[number]) {
    change(index, (guessed) => {
      const { choices: _, ...rest } = guessed;
      const field = { ...guessed.field, type };
      if (type !== 'choice') return { ...rest, field };
      const texts = new Set(sample.map(({ cells }) => (cells[index] ?? '').trim()).filter(Boolean));
      return { ...rest, field, choices: guessed.choices ?? [...texts] };
    });
  }
</script>

<fieldset>
  <legend>What names a record in an address: its key</legend>
  <label><input type="radio" name="key" checked={key === undefined} onchange={() => onkey(undefined)} /> automatic number</label>
  {#each fields.filter(({ canBeKey, skip }) => canBeKey && !skip) as field (field.name)}
    <label><input type="radio" name="key" checked={key === field.name} onchange={() => onkey(field.name)} /> {field.column}</label>
  {/each}
</fieldset>
<div class="scroll">
  <table>
    <thead>
      <tr>
        <th scope="col">Column</th>
        <th scope="col">Type</th>
        <th scope="col">Required</th>
        <th scope="col">Title</th>
        <th scope="col">Take it</th>
        <th scope="col">First rows</th>
      </tr>
    </thead>
    <tbody>
      {#each fields as guessed, index (guessed.column + String(index))}
        <tr class:skip={guessed.skip}>
          <th scope="row">{guessed.column} <code>{guessed.name}</code></th>
          <td>
            <select
              aria-label="Type of {guessed.column}"
              value={guessed.field.type}
              onchange={({ currentTarget }) => setType(index, currentTarget.value as (typeof types)[number])}
            >
              {#each types as type (type)}<option value={type}>{type}</option>{/each}
            </select>
          </td>
          <td>
            <input
              type="checkbox"
              aria-label="{guessed.column} is required"
              checked={guessed.field.required === true}
              onchange={({ currentTarget }) =>
                change(index, (field) => {
                  const { required: _, ...rest } = field.field;
                  return { ...field, field: currentTarget.checked ? { ...rest, required: true } : rest };
                })}
            />
          </td>
          <td>
            <input
              type="radio"
              name="title"
              aria-label="{guessed.column} names a record to people"
              checked={titleField === guessed.name}
              onchange={() => ontitle(guessed.name)}
            />
          </td>
          <td>
            <input
              type="checkbox"
              aria-label="Take {guessed.column}"
              checked={guessed.skip !== true}
              disabled={guessed.name === key}
              onchange={({ currentTarget }) => change(index, (field) => ({ ...field, skip: !currentTarget.checked }))}
            />
          </td>
          <td class="sample"
            >{sample.map(({ cells }) => cells[index] ?? '').join(' · ')}{guessed.choices ? ` (${guessed.choices.length} choices)` : ''}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1.2rem;
  }
  legend {
    font-weight: 600;
    padding: 0;
    margin-block-end: 0.2rem;
  }
  .scroll {
    overflow-x: auto;
  }
  table {
    border-collapse: collapse;
    background: var(--sheet);
    width: 100%;
  }
  th,
  td {
    text-align: start;
    border-block-end: 1px solid var(--line);
    padding: 0.3rem 0.6rem;
  }
  thead th {
    color: var(--quiet);
    font-weight: 400;
    font-size: 0.8125rem;
  }
  code {
    color: var(--quiet);
    font-weight: 400;
    font-size: 0.75rem;
  }
  .sample {
    color: var(--quiet);
    max-width: 24rem;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .skip th,
  .skip td {
    color: var(--quiet);
  }
  select {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
  }
</style>
