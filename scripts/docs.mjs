// Writes the parts of the docs that are made from data: npm run docs. With --check it compares them, and looks for files that do not exist.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { parse, stringify } from 'yaml';
import { errorClasses, problemCodes } from './problem-codes.mjs';
import { cures } from './problem-cures.mjs';
import { operations } from '../packages/api/dist/index.js';
import { appFileJsonSchema, celFunctions, compileApp, componentKinds, readAddress } from '../packages/app/dist/index.js';

const { types, choices, collections } = parse(
  readFileSync(new URL('../packages/app/specification/parameter-types.yaml', import.meta.url), 'utf8'),
);
const code = (text) => `\`${String(text).replaceAll('|', '\\|')}\``;
const json = (value) => code(JSON.stringify(value));
const compact = (declaration) =>
  code(
    `{ ${Object.entries(declaration)
      .map(([key, value]) => `${key}: ${typeof value === 'object' ? JSON.stringify(value).replaceAll('"', '') : String(value)}`)
      .join(', ')} }`,
  );

const sections = Object.entries(types).map(([type, { says, value, limits, cases }]) => {
  const tables = cases.map(({ declare, repeat, accepted = [], refused = [], unwritable = [] }) => {
    const { app } = compileApp({
      app: 'docs',
      mount: '/',
      choices,
      collections,
      pages: { here: { address: `/{?p${repeat ? '*' : ''}}`, parameters: { p: declare } } },
    });
    const isCorrected = (text) => readAddress(app, `/?p=${text}`).parameters[0].corrected;
    const rows = [
      ...accepted.map(({ text, value: read, written, origin, former }) => [
        code(`p=${text}`),
        read === undefined ? 'none' : json(read),
        written === null ? 'left out' : written === undefined ? 'the same' : code(`p=${written}`),
        [origin, former ? 'former: a permanent redirect' : written !== null && isCorrected(text) ? 'corrected' : '']
          .filter(Boolean)
          .join(', '),
      ]),
      ...refused.map(({ text, code: problem, kept }) => [
        code(text === '' ? 'p=' : `p=${text}`),
        kept === undefined ? 'refused' : `${code(JSON.stringify(kept))}, the rest refused`,
        '',
        code(problem),
      ]),
      ...unwritable.map(({ value: given, code: problem }) => ['', json(given), 'not written', code(problem)]),
    ];
    return [
      `Declared as ${compact(declare)}${repeat ? ', in the template as `{?p*}`' : ''}:`,
      '',
      '| address | value | written | |',
      '|---|---|---|---|',
      ...rows.map((row) => `| ${row.join(' | ')} |`),
    ].join('\n');
  });
  return [
    `### ${type}`,
    '',
    `${says} In JavaScript: ${value.startsWith('[') || value.startsWith('{') ? code(value) : value}. Limits: ${limits}`,
    '',
    tables.join('\n\n'),
  ].join('\n');
});

const file = new URL('../docs/parameters.md', import.meta.url);
const marks = ['<!-- types, made by npm run docs -->', '<!-- end of types -->'];
const before = readFileSync(file, 'utf8');
const after = `${before.split(marks[0])[0]}${marks[0]}\n\n${sections.join('\n\n')}\n\n${marks[1]}${before.split(marks[1])[1]}`;
const httpFile = new URL('../docs/http.md', import.meta.url);
const httpMarks = ['<!-- operations, made by npm run docs -->', '<!-- end of operations -->'];
const httpBefore = readFileSync(httpFile, 'utf8');
const operationRows = Object.values(operations).map(
  ({ method, path, summary, access, scope }) =>
    `| ${code(`${method.toUpperCase()} ${path}`)} | ${access === 'open' ? 'everyone' : access} | ${scope === undefined ? '' : code(scope)} | ${summary} |`,
);
const http = `${httpBefore.split(httpMarks[0])[0]}${httpMarks[0]}\n\n| operation | for | scope of tokens | |\n|---|---|---|---|\n${operationRows.join('\n')}\n\n${httpMarks[1]}${httpBefore.split(httpMarks[1])[1]}`;
const expressionsFile = new URL('../docs/expressions.md', import.meta.url);
const functionMarks = ['<!-- functions, made by npm run docs -->', '<!-- end of functions -->'];
const expressionsBefore = readFileSync(expressionsFile, 'utf8');
const functionTables = Object.entries(celFunctions).map(([group, functions]) =>
  [
    `### ${group}`,
    '',
    '| function | what it gives | example | gives |',
    '|---|---|---|---|',
    ...functions.map(
      ({ name, sentence, example: [expression, gives] }) => `| ${code(name)} | ${sentence} | ${code(expression)} | ${json(gives)} |`,
    ),
  ].join('\n'),
);
const expressions = `${expressionsBefore.split(functionMarks[0])[0]}${functionMarks[0]}\n\n${functionTables.join('\n\n')}\n\n${functionMarks[1]}${expressionsBefore.split(functionMarks[1])[1]}`;
const schemaFile = new URL('../docs/app-file.schema.json', import.meta.url);
const schema = JSON.stringify(appFileJsonSchema(), null, 2) + '\n';
const problemsFile = new URL('../docs/problems.md', import.meta.url);
const areas = {
  address: ['Addresses and values', 'What reading or writing an address, or a value for one, may refuse.'],
  'app file': ['App files', 'What `pallmist check`, the console and publishing find in an app file.'],
  records: ['Records', 'What forms, imports and publishing find in records.'],
  service: ['The service', 'What the HTTP interface refuses besides. Its answers are Problem Details (RFC 9457).'],
};
const cell = (text) => text.replaceAll('|', '\\|');
const found = problemCodes().map((entry) => {
  const cure = cures[entry.code];
  const [sentence = entry.sentence, hint = entry.hint] = Array.isArray(cure) ? cure : [undefined, cure];
  if (!sentence || !hint) throw new Error(`scripts/problem-cures.mjs does not say what “${entry.code}” means, or what to do about it.`);
  return { ...entry, sentence, hint };
});
for (const code of Object.keys(cures))
  if (!found.some((entry) => entry.code === code))
    throw new Error(`There is no problem “${code}” any more, and scripts/problem-cures.mjs has it.`);
const problems = [
  '# Problem codes',
  '',
  'Every problem has a code, which stays the same; programs may rely on it. Its sentence may change. “…” stands for what is filled in. This page is made from the sources by `npm run docs`.',
  ...Object.entries(areas).flatMap(([area, [title, what]]) => [
    '',
    `## ${title}`,
    '',
    what,
    '',
    '| code | what is wrong | what to do |',
    '|---|---|---|',
    ...found
      .filter((entry) => entry.area === area)
      .map(({ code: stable, sentence, hint }) => `| ${code(stable)} | ${cell(sentence)} | ${cell(hint)} |`),
  ]),
  '',
  '## Errors',
  '',
  'What TypeScript programs may catch. All of them extend `PallmistError`, whose `code` stays the same.',
  '',
  '| error | code | |',
  '|---|---|---|',
  ...errorClasses().map(
    ({ name, code: stable, sentence }) => `| ${code(name)} | ${stable === undefined ? 'of the problem' : code(stable)} | ${sentence} |`,
  ),
  '',
].join('\n');

const mistakesFile = new URL('../docs/mistakes.md', import.meta.url);
const mistakesMade = parse(readFileSync(new URL('../packages/app/specification/mistakes.yaml', import.meta.url), 'utf8'));
const mistakes = [
  '# Mistakes, and what the check says',
  '',
  'Mistakes that people make in app files, each with the first thing that `pallmist check` and the console say about it. Here “plants” is a collection with `code`, `name` and `day`, and `tab` a list of choices. This page is made by `npm run docs`, and the tests hold it.',
  '',
  `An editor that uses the [JSON Schema of the app file](app-file.md) points at ${String(mistakesMade.filter((one) => one.schema === undefined).length)} of these ${String(mistakesMade.length)} while you type. The others need the rest of the file, or the types of what an expression names: only the check finds them.`,
  ...mistakesMade.flatMap(({ mistake, page, content, collection, says }) => [
    '',
    `## ${mistake}`,
    '',
    '```text',
    (collection ?? page ?? content).trimEnd(),
    '```',
    '',
    `> ${says.replaceAll('<', '&lt;')}`,
  ]),
  '',
].join('\n');
const componentsFile = new URL('../docs/components.md', import.meta.url);
const described = new Map(JSON.parse(schema).$defs.component.oneOf.map((kind) => [kind.properties.show.const, kind]));
const components = [
  '# Components',
  '',
  'What can stand in the `content` of a page. Each has `show`, which says what it is, and may have `when`, a condition: see [The app file](app-file.md#components). This page is made from the sources by `npm run docs`.',
  ...componentKinds.flatMap(({ name, label, sentence }) => {
    const { properties, required, examples } = described.get(name);
    const keys = Object.entries(properties).filter(([key]) => key !== 'show' && key !== 'when');
    return [
      '',
      `## ${label}: \`${name}\``,
      '',
      sentence,
      '',
      '```yaml',
      stringify(examples, { lineWidth: 100 }).trimEnd(),
      '```',
      '',
      '| key | |',
      '|---|---|',
      ...keys.map(([key, { description = '', enum: values }]) => {
        const says = [
          required.includes(key) ? 'Required.' : '',
          description && `${description}.`,
          values && `One of: ${values.join(', ')}.`,
        ];
        return `| \`${key}\` | ${says.filter(Boolean).join(' ').replaceAll('|', '\\|')} |`;
      }),
    ];
  }),
  '',
].join('\n');

/** Files that the guides name and that are not there, and pictures that the README does not show. */
function stray() {
  const docs = new URL('../docs/', import.meta.url);
  const found = [];
  for (const name of readdirSync(docs).filter((entry) => entry.endsWith('.md'))) {
    const text = readFileSync(new URL(name, docs), 'utf8');
    for (const [, path] of text.matchAll(/`((?:packages|test|scripts|bench)\/[\w./-]+)`/g))
      if (!existsSync(new URL(`../${path}`, import.meta.url))) found.push(`docs/${name} names ${path}, which does not exist.`);
  }
  const readme = readFileSync(new URL('../README.md', import.meta.url), 'utf8');
  for (const picture of readdirSync(new URL('screenshots/', docs)))
    if (!readme.includes(`docs/screenshots/${picture}`)) found.push(`README.md does not show docs/screenshots/${picture}.`);
  return found;
}

const made = new Map([
  [file, after],
  [schemaFile, schema],
  [httpFile, http],
  [problemsFile, problems],
  [componentsFile, components],
  [mistakesFile, mistakes],
  [expressionsFile, expressions],
]);
if (process.argv.includes('--check')) {
  for (const sentence of stray()) {
    console.error(sentence);
    process.exitCode = 1;
  }
  for (const [file, text] of made) {
    if (existsSync(file) && readFileSync(file, 'utf8') === text) continue;
    console.error(`docs/${file.pathname.split('/').at(-1)} is not what npm run docs writes.`);
    process.exitCode = 1;
  }
} else for (const [file, text] of made) writeFileSync(file, text);
