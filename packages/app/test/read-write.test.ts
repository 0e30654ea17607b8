import { describe, expect, it } from 'vitest';
import { addressParts, readAddress, writeAddress } from '../src/index.ts';
import { garden } from './garden.ts';

const read = (address: string) => readAddress(garden, address);
const readOf = (address: string, name: string) => read(address).parameters.find((parameter) => parameter.name === name);

describe('reading an address', () => {
  it('finds the page and each value, and tells where it came from', () => {
    const reading = read('/garden/specimens?q=f%C3%A9rn+lily&page=3');
    expect(reading).toMatchObject({ status: 'found', page: 'list', problems: [] });
    expect(reading.values).toEqual({ q: 'férn lily', alive: true, sort: [{ field: 'name', descending: false }], page: 3 });
    expect(reading.parameters.map(({ name, origin }) => [name, origin])).toEqual([
      ['q', 'given'],
      ['house', 'absent'],
      ['alive', 'default'],
      ['since', 'absent'],
      ['sort', 'default'],
      ['page', 'given'],
    ]);
  });

  it('keeps an empty text apart from none, and takes other empty values for absent', () => {
    expect(readOf('/garden/specimens?q=', 'q')).toMatchObject({ value: '', origin: 'blank', text: '' });
    expect(readOf('/garden/specimens', 'q')).not.toHaveProperty('text');
    expect(readOf('/garden/specimens?page=', 'page')).toMatchObject({ value: 1, origin: 'blank', corrected: true });
  });

  it.each([
    ['alive=on', 'alive', true],
    ['alive=NO', 'alive', false],
    ['page=007', 'page', 7],
    ['since=2026-3-1', 'since', '2026-03-01'],
    [
      'sort=-name,,house',
      'sort',
      [
        { field: 'name', descending: true },
        { field: 'house', descending: false },
      ],
    ],
  ])('understands ?%s and says that it corrected it', (query, name, value) => {
    expect(readOf(`/garden/specimens?${query}`, name)).toMatchObject({ value, origin: 'given', corrected: true });
  });

  it.each([
    ['page=0', 'too-small'],
    ['page=1001', 'too-large'],
    ['page=1.5', 'not-an-integer'],
    ['page=2&page=3', 'repeated'],
    ['page=99999999999999999999', 'too-large'],
    ['q=%ff', 'malformed-escape'],
    ['q=%', 'malformed-escape'],
    ['q=%00', 'forbidden-character'],
    [`q=${'x'.repeat(41)}`, 'too-long'],
    ['house=PALM', 'pattern-mismatch'],
    ['alive=perhaps', 'not-a-boolean'],
    ['since=2025-02-29', 'no-such-day'],
    ['since=1989-12-31', 'too-early'],
    ['since=yesterday', 'not-a-date'],
    ['sort=colour', 'unknown-sort-field'],
    ['sort=name,-name', 'repeated-sort-field'],
  ])('goes on with the default for ?%s and names the problem %s', (query, code) => {
    const reading = read(`/garden/specimens?${query}`);
    expect(reading.status).toBe('found');
    expect(reading.problems).toEqual([expect.objectContaining({ code, severity: 'warning' })]);
  });

  it('refuses a page whose path has a value that cannot be', () => {
    expect(read('/garden/specimens/rose')).toMatchObject({ status: 'refused', page: 'specimen' });
    expect(readOf('/garden/specimens/rose', 'specimen')?.problem?.code).toBe('pattern-mismatch');
  });

  it('lets a literal beat a parameter, and a plus sign in the path be one', () => {
    expect(read('/garden/labels/care').values).toEqual({ language: 'care' });
    expect(read('/garden/labels').values).toEqual({ language: 'overview' });
    expect(readOf('/garden/labels/a+b', 'language')?.problem?.message).toMatch(/It should be (?:one of )?“/);
  });

  it('lists names that nobody declared, and guesses what was meant', () => {
    const reading = read('/garden/specimens?pge=2&utm=x');
    expect(reading.undeclared).toEqual([
      { name: 'pge', text: '2' },
      { name: 'utm', text: 'x' },
    ]);
    expect(reading.problems[0]).toMatchObject({
      code: 'undeclared',
      severity: 'warning',
      message: 'The page does not know “pge” (perhaps “page” was meant), “utm”.',
    });
    expect(read('/garden/specimens?utm_source=x').problems).toMatchObject([{ severity: 'note' }]);
  });

  it.each([
    ['/elsewhere', 'unknown-page'],
    ['/gardens', 'unknown-page'],
    ['//other.example/garden', 'found'],
    ['/garden/specimens/../labels', 'found'],
    ['/garden/specimens/%2e%2e/%2e%2e/garden', 'found'],
    ['https://example.org/garden/labels?x#y', 'found'],
    ['javascript:alert(1)', 'malformed'],
    ['\ud800', 'malformed'],
    ['http://[', 'malformed'],
    [`/garden?${'x'.repeat(70_000)}`, 'malformed'],
  ])('has a reading for %s', (address, status) => {
    expect(read(address).status).toBe(status);
  });
});

describe('writing an address', () => {
  it('leaves defaults out, keeps the declared order, and encodes as RFC 6570 does', () => {
    const values = { page: 1, sort: [{ field: 'planted', descending: true }], q: "é & co's/?", house: 'palm' };
    expect(writeAddress(garden, 'list', values)).toEqual({
      address: '/garden/specimens?q=%C3%A9%20%26%20co%27s%2F%3F&house=palm&sort=-planted',
      problems: [],
    });
  });

  it('writes an empty text, and the first page of the mount', () => {
    expect(writeAddress(garden, 'list', { q: '' }).address).toBe('/garden/specimens?q=');
    expect(writeAddress(garden, 'home', {}).address).toBe('/garden');
  });

  it('says parameter, value and reason for what it refuses, all at once', () => {
    const { address, problems } = writeAddress(garden, 'list', { page: 0, huose: 'palm' });
    expect(address).toBeUndefined();
    expect(problems.map(({ code, parameter }) => [code, parameter])).toEqual([
      ['undeclared', 'huose'],
      ['too-small', 'page'],
    ]);
    expect(problems[0]?.hint).toBe('Did you mean “house”?');
    expect(problems[1]?.message).toContain('“page” cannot be “0”');
    expect(writeAddress(garden, 'specimen', {}).problems[0]).toMatchObject({ code: 'missing', parameter: 'specimen' });
    expect(writeAddress(garden, 'specimn', {}).problems[0]).toMatchObject({ code: 'unknown-page', hint: 'Did you mean “specimen”?' });
  });
});

describe('the parts of an address', () => {
  it('tell path, query, names and strangers apart', () => {
    expect(addressParts(garden, '/garden/specimens/QM-0001?tab=care&x=1#top').map(({ text, kind }) => [text, kind])).toEqual([
      ['/garden/specimens/', 'fixed'],
      ['QM-0001', 'path'],
      ['?', 'fixed'],
      ['tab', 'name'],
      ['=', 'fixed'],
      ['care', 'query'],
      ['&', 'fixed'],
      ['x', 'strange'],
      ['=', 'fixed'],
      ['1', 'strange'],
      ['#top', 'fragment'],
    ]);
  });
});
