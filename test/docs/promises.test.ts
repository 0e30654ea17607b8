import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseAllDocuments } from 'yaml';
import { describe, expect, it } from 'vitest';
import { checkAppFile, componentKinds } from '@pallmist/app';
import { parameterTypes } from '@pallmist/app/address';
import { componentGuide, screenGuides, typeGuide } from '../../packages/console/src/controls/guides.ts';
import { readSettings } from '@pallmist/service';

const root = fileURLToPath(new URL('../../', import.meta.url));
const read = (file: string) => readFileSync(join(root, file), 'utf8');
const guides = [
  'README.md',
  'CONTRIBUTING.md',
  ...readdirSync(join(root, 'docs')).flatMap((name) => (name.endsWith('.md') ? [`docs/${name}`] : [])),
];

/** A heading as the anchor of a link names it (as on GitHub). */
const anchorOf = (heading: string) =>
  heading
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}\s_-]/gu, '')
    .trim()
    .replaceAll(' ', '-');

/** The fenced blocks of a language in a guide. */
const blocks = (file: string, language: string) =>
  [...read(file).matchAll(new RegExp(`^\`\`\`${language}\\n([\\s\\S]*?)^\`\`\``, 'gm'))].map(([, text = '']) => text);

describe.each(guides)('%s', (guide) => {
  it('links to files and headings that are there', () => {
    for (const [, target = ''] of read(guide).matchAll(/\]\((?!https?:)([^)\s]+)\)/g)) {
      const [path = '', anchor] = target.split('#');
      const file = path === '' ? guide : join(dirname(guide), path);
      expect(existsSync(join(root, file)), target).toBe(true);
      if (anchor === undefined) continue;
      const headings = [...read(file).matchAll(/^#+ (.*)$/gm)].map(([, heading = '']) => anchorOf(heading));
      expect(headings, target).toContain(anchor);
    }
  });

  it('has well-formed YAML', () => {
    for (const text of blocks(guide, 'yaml')) {
      // “...” stands for what is left out.
      const whole = text.replaceAll('{ ... }', '{}').replaceAll('[ ... ]', '[]').replaceAll('[...]', '[]').replaceAll(', ... }', ' }');
      for (const document of parseAllDocuments(whole)) expect(document.errors, text).toEqual([]);
    }
  });
});

it('the console links to guides and headings that are there', () => {
  const targets = [
    ...Object.values(screenGuides),
    ...Object.keys(parameterTypes).map(typeGuide),
    ...Object.keys(componentKinds).map((show) => componentGuide({ show })),
    ...['app-file#reads', 'app-file#pages'],
  ];
  for (const target of targets) {
    const [page = '', anchor] = target.split('#');
    const headings = [...read(`docs/${page}.md`).matchAll(/^#+ (.*)$/gm)].map(([, heading = '']) => anchorOf(heading));
    if (anchor !== undefined) expect(headings, target).toContain(anchor);
  }
});

it('the pieces of the guide of the app file make an app that the check passes', () => {
  const guide = blocks('docs/app-file.md', 'yaml').join('\n');
  const piece = (begins: string) => {
    const text = guide.split('\n');
    const from = text.findLastIndex((line) => line.trimStart().startsWith(begins));
    expect(from, begins).toBeGreaterThanOrEqual(0);
    const depth = text[from]?.search(/\S/) ?? 0;
    const length = text.slice(from + 1).findIndex((line) => line.trim() !== '' && line.search(/\S/) <= depth);
    return text.slice(from, length === -1 ? undefined : from + 1 + length).join('\n');
  };
  const form = piece('- show: form');
  const source = `
pallmist: 1
app: quillmoor
title: Quillmoor
mount: /garden
${piece('signIn:')
  .replace('care-rounds', 'notes')
  .replace(/^ {2}reasons:.*$/m, '')}
collections:
  houses: { keyField: code, fields: { code: { type: text } } }
  specimens:
    keyField: accession
    titleField: accession
    fields:
${piece('accession: {')}
${piece('house: { type: record')}
  notes:
    keyField: number
    fields:
      number: { type: text, serial: N-0000 }
      heading: { type: text }
      body: { type: text }
      day: { type: date }
      author: { type: text }
      specimen: { type: record, of: specimens }
pages:
  home:
    title: Home
    address: /{?welcome}
    parameters: { welcome: { type: boolean, once: true } }
    content: [{ show: text, text: Hello }]
  notes: { title: Notes, address: /notes, content: [{ show: sign-up }] }
  sign-in: { title: Sign in, address: /sign-in, content: [{ show: sign-in }] }
  specimen:
    title: "{record.specimen.accession}"
    address: /specimens/{specimen}{?saved}
    parameters:
      specimen: { type: record, of: specimens }
      saved: { type: record, of: notes, once: true }
    content:
${form.replaceAll(/^/gm, '      ')}
`;
  const { problems } = checkAppFile(source);
  expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
});

it('every command of the guide is there, and every command that is there is in the guide', () => {
  const help = execFileSync(process.execPath, [join(root, 'packages/cli/dist/main.js'), '--help'], { encoding: 'utf8' });
  const commands = [...(help.split('Get started:')[1] ?? '').matchAll(/^ {2}([a-z]+)/gm)]
    .map(([, name = '']) => name)
    .filter((name) => name !== 'help');
  const documented = [...read('docs/command.md').matchAll(/^\| `([a-z]+)/gm)].map(([, name = '']) => name);
  expect([...new Set(documented)].sort()).toEqual([...commands].sort());
  for (const guide of guides)
    for (const [, name = ''] of read(guide).matchAll(/`pallmist ([a-z]+)/g)) expect(commands, `${guide}: ${name}`).toContain(name);
});

it('every option of the guide is one of the command’s', () => {
  const main = join(root, 'packages/cli/dist/main.js');
  for (const [, command = '', rest = ''] of read('docs/command.md').matchAll(/^\| `([a-z]+)(.*?)\|/gm)) {
    const words = command === 'records' ? ['records', /^ (import|export|list|show|save|remove)\b/.exec(rest)?.[1] ?? 'import'] : [command];
    const help = execFileSync(process.execPath, [main, ...words, '--help'], { encoding: 'utf8' });
    for (const [option] of rest.matchAll(/--[a-z-]+/g)) expect(help, `${command} ${option}`).toContain(option);
  }
});

it('every setting of the guides is one that the service reads, and every setting is in the guides', () => {
  const named = new Set(guides.flatMap((guide) => read(guide).match(/PALLMIST_[A-Z_]+/g) ?? []));
  const ofCommand = new Set(['PALLMIST_URL', 'PALLMIST_TOKEN', 'PALLMIST_CHROMIUM']);
  const settings = [...read('packages/service/src/settings.ts').matchAll(/^ {2}(PALLMIST_[A-Z_]+): (?:count|z)/gm)].map(
    ([, name = '']) => name,
  );
  expect(settings.length).toBeGreaterThan(10);
  for (const name of settings) {
    expect(named, name).toContain(name);
    // A value that is no good is refused by name, so it is read.
    if (!['PALLMIST_HOST', 'PALLMIST_DATA', 'PALLMIST_MAIL_FROM'].includes(name))
      expect(() => readSettings({ [name]: 'no such value' })).toThrow(name);
  }
  for (const name of named) expect([...settings, ...ofCommand], name).toContain(name);
});
