import { expect, it } from 'vitest';
import { appPartFor, checkAppFile, fieldsNamedOn, programsFor } from '../src/index.ts';
import { definition, gardenSource } from './garden.ts';

it('a browser is sent the pages that a page links to, and what they are made of', () => {
  const part = appPartFor(definition, 'specimen');
  expect(Object.keys(part.pages).sort()).toEqual(['labels', 'list', 'specimen']);
  expect(Object.keys(part.collections ?? {}).sort()).toEqual(['houses', 'specimens']);
  expect(Object.keys(part.choices ?? {})).toEqual(['tab']);
  const home = appPartFor(definition, 'home');
  expect(JSON.stringify(home)).not.toContain('Field notes on');
  expect(appPartFor(definition, 'nothing').pages).toHaveProperty('list');
});

it('a page’s fields are those that it mentions', () => {
  const fields = (name: string) => {
    const page = definition.pages[name];
    return page ? [...fieldsNamedOn(page)] : [];
  };
  expect(fields('list')).toEqual(expect.arrayContaining(['name', 'house', 'planted', 'accession']));
  expect(fields('labels')).not.toContain('planted');
});

it('only pages whose expressions do more than follow fields need the engine', () => {
  expect(programsFor(definition, 'specimen')).toEqual({ programs: {}, cel: false });
});

it('a choice may be a label, or a label with what it was called in the past', () => {
  const { problems } = checkAppFile(gardenSource.replace('care: Care log', 'care: { label: Care log, formerly: [log, overview] }'));
  expect(problems).toEqual([]);
});
