import { describe, expect, it } from 'vitest';
import {
  AppChecker,
  checkAppFile,
  DraftDocument,
  renamePage,
  renameParameter,
  type AppDefinition,
  type PatchOperation,
  patchSource,
} from '../src/index.ts';
import { dissolveBlock, makeBlock, patchData, renameField, writtenComponent } from '../src/editing/index.ts';
import { fillIn } from '../src/definition/blocks/fill-in.ts';
import { componentsIn } from '../src/components/inner-content.ts';

const head = `pallmist: 1
app: beds
title: Beds
mount: /beds
collections:
  beds: { keyField: code, fields: { code: { type: text }, name: { type: text }, length: { type: integer } } }
`;
const blocks = `blocks:
  facts:
    takes:
      bed: { required: true }
      heading: { default: Facts }
      note: {}
    content:
      - { show: heading, text: 'About {block.heading}' }
      - { show: text, text: '{block.note}', when: has(block.note) && block.heading != "Short" }
      - { show: link, text: All of it, to: { page: bed, values: { bed: '{block.bed}' } } }
  finder:
    takes: { rows: { required: true }, parameter: { required: true }, columns: { default: [{ field: name }] } }
    content:
      - { show: search, bind: '{block.parameter}', label: 'Find a bed' }
      - { show: table, rows: '{block.rows}', label: Beds, columns: '{block.columns}' }
      - { show: block, of: facts, values: { bed: A-1, heading: 'the beds, {total.found} in all' } }
`;
const pages = (home: string, bed = '- { show: block, of: facts, values: { bed: "{param.bed}", note: "{record.bed.name}" } }') => `pages:
  home:
    title: Beds
    address: /{?q}
    parameters: { q: { type: text } }
    rows: { found: { from: beds, where: [{ field: name, contains: '{param.q}' }] } }
    content:
      ${home}
  bed:
    title: Bed
    address: /beds/{bed}
    parameters: { bed: { type: record, of: beds } }
    content:
      ${bed}
`;
const use = '- { show: block, of: finder, values: { rows: found, parameter: q } }';
const problemsOf = (source: string) =>
  checkAppFile(source).problems.map(({ code, message, pointer, line }) => ({ code, message, pointer, line }));

it('a page shows what stands in a block, with what it gives, whatever that is', () => {
  const { definition, problems } = checkAppFile(head + blocks + pages(use));
  expect(problems).toEqual([]);
  const shown = [...componentsIn(definition?.pages['home']?.content ?? [])].map((component) =>
    component.show === 'block' ? { show: 'block', of: component['of'] } : component,
  );
  expect(shown).toEqual([
    { show: 'block', of: 'finder' },
    { show: 'search', bind: 'q', label: 'Find a bed' },
    { show: 'table', rows: 'found', label: 'Beds', columns: [{ field: 'name' }] },
    { show: 'block', of: 'facts' },
    { show: 'heading', text: 'About the beds, {total.found} in all' },
    { show: 'link', text: 'All of it', to: { page: 'bed', values: { bed: 'A-1' } } },
  ]);
  const [, , link] = (definition?.pages['bed']?.content[0]?.['content'] ?? []) as { to: object }[];
  expect(link?.to).toEqual({ page: 'bed', values: { bed: '{param.bed}' } });
});

describe('an input', () => {
  const inputs = new Map<string, unknown>([
    ['path', '{param.q}'],
    ['text', 'the "best" {{bed}}'],
    ['mixed', 'Bed {param.q}!'],
    ['number', 3],
    ['list', ['a', 'b']],
    ['none', undefined],
  ]);
  const fill = (piece: unknown) => fillIn(piece, inputs, (name) => expect.fail(name));
  it.each([
    ['{block.number}', 3],
    ['{ block.list }', ['a', 'b']],
    ['See {block.mixed}', 'See Bed {param.q}!'],
    ['{{block.number}} is {block.number}', '{{block.number}} is 3'],
    ['No {block.none}.', 'No .'],
    ['{block.number + size(block.list)}', '{3 + size(["a", "b"])}'],
    ['{block.path == "block.path"}', '{(param.q) == "block.path"}'],
    ['{block.text + block.mixed}', '{"the \\"best\\" {bed}" + ("Bed " + string(param.q) + "!")}'],
    ['{myblock.number}', '{myblock.number}'],
  ])('in %s gives %j', (text, filled) => {
    expect(fill(text)).toEqual(filled);
  });
  it('that is not given leaves its key out, and can be asked for', () => {
    expect(
      fill({ label: '{block.none}', when: 'has(block.none) || has(block.path) || has(block.number)', items: ['{block.none}', 1] }),
    ).toEqual({
      when: 'false || has(param.q) || true',
      items: [1],
    });
  });
});

describe('the check tells, at the place in the block', () => {
  it('what is wrong there in any page that uses it, once', () => {
    const wrong = blocks.replace('show: heading', 'show: headng').replace("'{block.rows}'", "'{block.row}'");
    const found = problemsOf(head + wrong + pages(`${use}\n      ${use}`));
    expect(found.find(({ code }) => code === 'unknown-word')).toMatchObject({ pointer: '/blocks/facts/content/0/show' });
    expect(found.filter(({ code }) => code === 'unknown-input')).toEqual([
      {
        code: 'unknown-input',
        message: 'The block “finder” takes no “row”. (The page “home” uses the block “finder”.)',
        pointer: '/blocks/finder/content',
        line: expect.any(Number) as number,
      },
    ]);
  });

  it('what a page gives that does not fit, and names the page', () => {
    const [problem] = problemsOf(head + blocks + pages('- { show: block, of: finder, values: { rows: nothing, parameter: q } }')).filter(
      ({ code }) => code === 'unknown-rows',
    );
    expect(problem).toMatchObject({
      pointer: '/blocks/finder/content/1/rows',
      message: expect.stringContaining('(The page “home” uses the block “finder”.)') as string,
    });
  });

  it.each([
    ['- { show: block, of: facs }', 'unknown-block', '/pages/home/content/0/of'],
    ['- { show: block, of: facts }', 'missing-input', '/pages/home/content/0'],
    ['- { show: block, of: facts, values: { bed: A-1, headin: x } }', 'unknown-input', '/pages/home/content/0/values/headin'],
  ])('%s: %s', (component, code, pointer) => {
    expect(problemsOf(head + blocks + pages(component))).toContainEqual(expect.objectContaining({ code, pointer }));
  });

  it('a block that stands in itself, and one that grows without bound', () => {
    const inItself = blocks.replace(
      '{ show: heading, text:',
      '{ show: block, of: finder, values: { rows: found, parameter: q } }\n      - { show: heading, text:',
    );
    expect(problemsOf(head + inItself + pages(use)).map(({ code }) => code)).toContain('block-in-itself');
    const doubling = Array.from(
      { length: 30 },
      (_, index) =>
        `  b${String(index)}:\n    content: [{ show: block, of: b${String(index + 1)} }, { show: block, of: b${String(index + 1)} }]\n`,
    );
    const growing = `blocks:\n${doubling.join('')}  b30:\n    content: [{ show: text, text: x }]\n`;
    expect(problemsOf(head + growing + pages('- { show: block, of: b0 }')).map(({ code }) => code)).toContain('too-many-blocks');
  });

  it('a block that no page uses', () => {
    expect(problemsOf(head + blocks + pages('- { show: text, text: "{param.q}" }'))).toContainEqual(
      expect.objectContaining({ code: 'unused-block', pointer: '/blocks/finder' }),
    );
  });

  it('an input that the content of the block does not use, and says how to take it out', () => {
    const source = head + blocks.replace('takes:\n', 'takes:\n      depth: { label: Depth }\n') + pages(use);
    const found = checkAppFile(source).problems.filter(({ code }) => code === 'unused-input');
    expect(found).toMatchObject([{ pointer: '/blocks/facts/takes/depth' }]);
    expect(problemsOf(patchSource(source, found[0]?.fix ?? [])).map(({ code }) => code)).not.toContain('unused-input');
  });
});

it('finds the same while it is changed as from a file', () => {
  const checker = new AppChecker();
  for (const changed of ['show: heading', 'show: headng', 'show: notice']) {
    const source = head + blocks.replace('show: heading', changed) + pages(use);
    const { data } = new DraftDocument(source);
    const plain = (problems: readonly { code: string; pointer?: string }[]) =>
      problems.map(({ code, pointer }) => `${code} ${pointer ?? ''}`).sort();
    expect(plain(checker.check(data).problems)).toEqual(plain(checkAppFile(source).problems));
  }
});

describe('renaming follows', () => {
  const source = head + blocks + pages(use);
  const written = new DraftDocument(source).data as AppDefinition;
  const after = (patch: PatchOperation[]) => patchData(written, patch) as AppDefinition;
  const isWhole = (app: AppDefinition) => expect(new AppChecker().check(app).problems).toEqual([]);

  it('a page, in links of blocks', () => {
    const app = after(renamePage(written, 'bed', 'plot'));
    expect(app.blocks?.['facts']?.content[2]).toMatchObject({ to: { page: 'plot' } });
    isWhole(app);
    isWhole(after(renamePage(written, 'home', 'first')));
  });

  it('a parameter, in what a page gives, and as the name of a value in links of blocks', () => {
    const app = after(renameParameter(written, 'home', 'q', 'find'));
    expect(app.pages['home']?.content[0]).toMatchObject({ values: { rows: 'found', parameter: 'find' } });
    isWhole(app);
    const moved = after(renameParameter(written, 'bed', 'bed', 'plot'));
    expect(moved.pages['bed']?.content[0]).toMatchObject({ values: { bed: '{param.plot}', note: '{record.plot.name}' } });
    expect(moved.blocks?.['facts']?.content[2]).toMatchObject({ to: { values: { plot: '{block.bed}' } } });
    isWhole(moved);
  });

  it('a field, in the default of an input', () => {
    const app = after(renameField(written, 'beds', 'name', 'title'));
    expect(app.blocks?.['finder']?.takes?.['columns']).toEqual({ default: [{ field: 'title' }] });
    isWhole(app);
  });
});

it('a component becomes a block, and a block is taken apart where it is used', () => {
  const plain = new DraftDocument(
    head + pages('- { show: text, text: "Found: {total.found}, {param.q}" }', '- { show: text, text: "{param.bed}" }'),
  ).data as AppDefinition;
  const made = makeBlock(plain, '/pages/home/content/0');
  const withBlock = patchData(plain, made.patch) as AppDefinition;
  expect(withBlock.pages['home']?.content).toEqual([{ show: 'block', of: made.name }]);
  expect(new AppChecker().check(withBlock).definition?.pages['home']?.content[0]?.['content']).toEqual(plain.pages['home']?.content);
  expect(patchData(withBlock, dissolveBlock(withBlock, '/pages/home/content/0'))).toMatchObject({ pages: plain.pages });

  const nested = new DraftDocument(head + blocks + pages(use)).data as AppDefinition;
  const apart = patchData(nested, dissolveBlock(nested, '/pages/home/content/0')) as AppDefinition;
  expect(apart.pages['home']?.content.map(({ show }) => show)).toEqual(['search', 'table', 'block']);
  expect(apart.pages['home']?.content[2]).toEqual({
    show: 'block',
    of: 'facts',
    values: { bed: 'A-1', heading: 'the beds, {total.found} in all' },
  });
  // What a block brings is changed in the block: the console shows the use.
  expect(writtenComponent(nested, '/pages/home/content/0/content/2/content/1')).toBe('/pages/home/content/0');
  expect(writtenComponent(nested, '/blocks/facts/content/1')).toBe('/blocks/facts/content/1');
});
