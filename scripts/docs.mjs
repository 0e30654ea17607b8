// Writes the parts of the docs that are made from data: npm run docs. The tests compare them.
import { readFileSync, writeFileSync } from 'node:fs';
import { parse } from 'yaml';
import { appFileJsonSchema, compileApp, readAddress } from '../packages/core/dist/index.js';

const { types, choices, collections } = parse(
  readFileSync(new URL('../packages/core/specification/parameter-types.yaml', import.meta.url), 'utf8'),
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
      ...refused.map(({ text, code: problem }) => [code(text === '' ? 'p=' : `p=${text}`), 'refused', '', code(problem)]),
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
const schemaFile = new URL('../docs/app-file.schema.json', import.meta.url);
const schema = JSON.stringify(appFileJsonSchema(), null, 2) + '\n';
if (process.argv.includes('--check')) {
  if (before !== after || readFileSync(schemaFile, 'utf8') !== schema) {
    console.error('docs/parameters.md or docs/app-file.schema.json is not what npm run docs writes.');
    process.exitCode = 1;
  }
} else {
  writeFileSync(file, after);
  writeFileSync(schemaFile, schema);
}
