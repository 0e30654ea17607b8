import { describe, expect, it } from 'vitest';
import { checkAppFile, patchSource, renameParameter, type Problem } from '../src/index.ts';
import { definition, gardenSource, problems } from './garden.ts';

/** The garden with a piece of its text replaced. */
function changed(from: string, to: string): { source: string; problems: Problem[] } {
  expect(gardenSource).toContain(from);
  const source = gardenSource.replace(from, to);
  return { source, problems: checkAppFile(source).problems };
}

it('finds nothing wrong in the garden', () => {
  expect(problems).toEqual([]);
});

describe('the check finds, with place and what to do', () => {
  it.each([
    ['address: /labels{/language}', 'address: /specimens/{language}', 'address-taken', /claim the same address/],
    ['{?q,house,alive', '{?q,alive', 'not-in-template', /no place in the page’s address/],
    ['{?tab}', '{?tab,extra}', 'undeclared', /does not declare/],
    ['default: overview, step', 'default: cover, step', 'bad-default', /cover/],
    ['sample: QM-0001', 'sample: 412', 'bad-sample', /412/],
    ['of: tab, default: overview, step', 'of: tabs, default: overview, step', 'unknown-choices', /no choices list/],
    ['resets: [page] }\n      house', 'resets: [pgae] }\n      house', 'unknown-reset', /pgae/],
    ['to: { page: list }', 'to: { page: lst }', 'unknown-page', /lst/],
    ['values: { specimen: QM-0001 }', 'values: { tab: care }', 'link-missing-value', /lacks “specimen”/],
    ['values: { specimen: QM-0001 }', 'values: { specimen: QM-0001, q: x }', 'link-sends-unknown', /does not declare “q”/],
    ['values: { specimen: QM-0001 }', 'values: { specimen: rose }', 'link-wrong-value', /rose/],
    ['"{row.accession}"', '"{row.house}"', 'link-wrong-type', /is a record/],
    ['"{row.accession}"', '"{row.acession}"', 'unknown-in-expression', /acession/],
    ['bind: house,', 'bind: page,', 'binding-wrong-type', /is an integer/],
    ['bind: q,', 'bind: query,', 'unknown-binding', /not a parameter/],
    ['rows: found, bind', 'rows: fuond, bind', 'unknown-rows', /fuond/],
    ['when: param.alive', 'when: param.page', 'condition-not-bool', /gives an int/],
    ['when: param.alive', 'when: param.alive &&', 'bad-expression', /not right/],
    ["has(param.q) ? ': ' + param.q : ''", "': ' + param.q", 'unguarded', /may be absent/],
    ['field: name, contains', 'field: nmae, contains', 'unknown-field', /nmae/],
    ['{?tab}', '{?tab,accessToken}', 'undeclared', /does not declare/],
    ['      q: { type: text', '      session_id: { type: text }\n      q: { type: text', 'secret-in-address', /password or a token/],
    [
      '      q: { type: text',
      '      apiKey: { type: text, sealed: true }\n      q: { type: text',
      'secret-in-address',
      /password or a token/,
    ],
    ['notes: []', 'nots: []', 'choice-without-view', /“notes” has no pane/],
    ['min: 1, max: 1000', 'min: 9, max: 2', 'limits-cross', /./],
    ['type: integer, min', 'type: integer, pattern: x, min', 'attribute-without-effect', /says nothing/],
    ['title: Labels', 'title: "Labels {"', 'bad-braces', /not closed/],
    ['title: Labels', 'title: Labels\n    group: "Of {app.title}"', 'braces-without-effect', /so “\{app\.title\}” stays as it is/],
    ['step: false }\n    content', 'histroy: replace }\n    content', 'unknown-key', /histroy/],
    ['show: pager', 'show: pagr', 'unknown-word', /./],
    ['pallmist: 1', 'pallmist: 2', 'unknown-word', /./],
    ['      q: { type: text', '      Q: { type: text }\n      q: { type: text', 'names-differ-by-case', /capitals/],
  ])('%s → %s: %s', (from, to, code, message) => {
    const { source, problems: found } = changed(from, to);
    const problem = found.find((candidate) => candidate.code === code);
    expect(problem, JSON.stringify(found)).toBeDefined();
    expect(problem?.message).toMatch(message);
    // The place is in the text, on or just before the line that was changed.
    const changedLine = source.slice(0, source.indexOf(to)).split('\n').length;
    expect(Math.abs((problem?.line ?? -9) - changedLine)).toBeLessThanOrEqual(4);
  });

  it('every problem at once', () => {
    const source = gardenSource
      .replace('bind: q,', 'bind: query,')
      .replace('rows: found, bind', 'rows: fuond, bind')
      .replace('page: list', 'page: lst');
    expect(checkAppFile(source).problems.map(({ code }) => code)).toEqual(
      expect.arrayContaining(['unknown-page', 'unknown-binding', 'unknown-rows']),
    );
  });

  it.each(['', 'just words', '- 1\n- 2', 'a: [', 'a: &x [*x, *x]', '{}', 'null', '\u0000'])('a file that is no app: %j', (source) => {
    const { problems: found, definition: none } = checkAppFile(source);
    expect(none).toBeUndefined();
    expect(found.length).toBeGreaterThan(0);
  });
});

describe('the check refuses', () => {
  it.each(['(?=a)a', '(a)\\\\1', '(?<!x)a', 'a{5000}'])('the pattern %s, which cannot be matched in linear time', (pattern) => {
    const { problems: found } = changed('pattern: "[a-z]+"', `pattern: "${pattern}"`);
    expect(found.map(({ code }) => code)).toContain('pattern-not-linear');
  });

  it('patterns not that only another matcher would take long for', () => {
    for (const pattern of ['[a-z]+(-[a-z]+)*', 'QM-[0-9]{4}', '(a|b)*c', '.*', '(a+)+', '(a|a)*', '(?:x|xx)+y']) {
      expect(changed('pattern: "[a-z]+"', `pattern: "${pattern}"`).problems.map(({ code }) => code)).not.toContain('pattern-not-linear');
    }
  });

  it.each([
    ['serial: QM-0000, pattern: "QM-[0-9]{4}"', 'serial-outgrows-field', 'warning', /“QM-10000”/],
    ['serial: QM-000, pattern: "QM-[0-9]{4}"', 'serial-refused', 'error', /“QM-001”/],
    ['serial: QM-0000, maxLength: 7', 'serial-outgrows-field', 'warning', /“QM-10000”/],
    ['serial: QM-0000, pattern: "QM-[0-9]{4,}"', undefined, undefined, /./],
  ])('a serial whose own numbers the field refuses: %s', (serial, code, severity, message) => {
    const { problems: found } = changed('pattern: "QM-[0-9]{4}"', serial);
    const problem = found.find((candidate) => candidate.code.startsWith('serial'));
    expect(problem?.code).toBe(code);
    expect(problem?.severity).toBe(severity);
    if (problem !== undefined) expect(problem.message).toMatch(message);
  });

  it('a pattern in an expression that comes from the address, or cannot be matched in linear time', () => {
    const title = (expression: string) =>
      changed('title: "{record.specimen.name}"', `title: '{${expression} ? "a" : "b"}'`).problems.map(({ code }) => code);
    expect(title('param.specimen.matches(param.specimen)')).toContain('pattern-not-literal');
    expect(title('param.specimen.matches("(?=a)b")')).toContain('pattern-not-linear');
    expect(title('param.specimen.matches("^(a+)+$")')).toEqual([]);
  });

  const asValue = (value: string) => (source: string) =>
    source.replace('values: { specimen: "{row.accession}" }', `values: { specimen: '${value}' }`);
  const withForm = (more: string) => (source: string) =>
    source
      .replace(
        'navigation:',
        'mails: { told: { to: a@b.example, subject: s, text: "{link.it}", links: { it: { text: t, to: { page: list, values: { q: "{saved.name}" } } } } } }\nnavigation:',
      )
      .replace(
        'content: [{ show: link,',
        `content: [{ show: form, name: f, label: F, action: create, collection: houses, fields: [code, name], ${more} }, { show: link,`,
      );
  it.each([
    ['in a link', asValue('{row.house.name}')],
    ['in a link, by its name in brackets', asValue('{row["name"]}')],
    ['in a link, as one that may be absent', asValue('{row.?name.orValue("x")}')],
    ['in a link, of another row', asValue('{rows.found[0].name}')],
    ['in a link, by way of a list', asValue('{rows.found.map(each, each.name)[0]}')],
    ['in a link, within a text', asValue('{"x" + row.house.name}')],
    ['in where a form leads', withForm('then: { page: list, values: { q: "{saved.name}" } }')],
    ['in the link of a mail', withForm('mail: told')],
    [
      'in what an arrival sets',
      (source: string) =>
        source.replace(
          '    reads:\n      found:',
          "    arrival: [{ when: param.alive, set: { q: '{record.house.name}' } }]\n    reads:\n      found:",
        ),
    ],
    ['in a condition on a parameter', (source: string) => source.replace('{ field: house, equals', '{ field: name, equals')],
  ])('a sensitive field %s', (_, change) => {
    const source = change(gardenSource.replace(/name: \{ type: text \}/g, 'name: { type: text, sensitive: true }'));
    expect(checkAppFile(source).problems.map(({ code }) => code)).toContain('sensitive-in-address');
  });
});

describe('fixing', () => {
  it.each([
    ['{?q,house,alive', '{?q,alive', 'not-in-template'],
    ['{?tab}', '{?tab,extra}', 'undeclared'],
    ['values: { specimen: QM-0001 }', 'values: { tab: care }', 'link-missing-value'],
    ['values: { specimen: QM-0001 }', 'values: { specimen: QM-0001, q: x }', 'link-sends-unknown'],
    ['type: integer, min', 'type: integer, pattern: x, min', 'attribute-without-effect'],
    ['to: { page: list }', 'to: { page: lisst }', 'unknown-page'],
    ['bind: q,', 'bind: qq,', 'unknown-binding'],
    ['rows: found, bind', 'rows: fuond, bind', 'unknown-rows'],
    ['field: name, contains', 'field: nmae, contains', 'unknown-field'],
    ['"{row.accession}"', '"{row.acession}"', 'unknown-in-expression'],
    ['values: { specimen: QM-0001 }', 'values: { specimn: QM-0001 }', 'link-sends-unknown'],
    ['of: tab, default: overview, step', 'of: tabb, default: overview, step', 'unknown-choices'],
    ['resets: [page] }\n      house', 'resets: [pgae] }\n      house', 'unknown-reset'],
    ['notes: []', 'nots: []', 'view-without-choice'],
    ['step: false }\n    content', 'histroy: replace }\n    content', 'unknown-key'],
    ['show: pager', 'show: pagr', 'unknown-word'],
  ])('%s → %s: the patch of %s takes the problem away', (from, to, code) => {
    const { source, problems: found } = changed(from, to);
    const fix = found.find((problem) => problem.code === code)?.fix ?? [];
    const fixed = patchSource(source, fix);
    expect(checkAppFile(fixed).problems.map((problem) => problem.code)).not.toContain(code);
  });

  it('keeps comments and order, and changes nothing when an operation fails', () => {
    const source = '# first\na: 1 # one\nb: { c: [1, 2] }\n';
    expect(patchSource(source, [{ op: 'replace', path: '/a', value: 2 }])).toBe('# first\na: 2 # one\nb: { c: [1, 2] }\n');
    expect(patchSource(source, [{ op: 'move', from: '/a', path: '/z' }])).toMatch(/^# first\nz: 1 # one\nb:/);
    expect(() => patchSource(source, [{ op: 'remove', path: '/x' }])).toThrow(/nothing at \/x/);
    expect(() => patchSource(source, [{ op: 'test', path: '/a', value: 5 }])).toThrow(/does not match the test/);
  });
});

it('renames a parameter everywhere, and the app stays free of problems', () => {
  const source = [
    ['list', 'q', 'words'],
    ['list', 'page', 'leaf'],
    ['specimen', 'specimen', 'plant'],
  ].reduce((text, [page = '', from = '', to = '']) => {
    const { definition: present } = checkAppFile(text);
    return present ? patchSource(text, renameParameter(present, page, from, to)) : text;
  }, gardenSource);
  const renamed = checkAppFile(source);
  expect(renamed.problems).toEqual([]);
  expect(renamed.definition?.pages['list']?.address).toBe('/specimens{?words,house,alive,since,sort,leaf}');
  expect(Object.keys(renamed.definition?.pages['list']?.parameters ?? {})).toEqual(['words', 'house', 'alive', 'since', 'sort', 'leaf']);
  expect(renameParameter(definition, 'list', 'q', 'house')).toEqual([]);
});
