import { readFileSync } from 'node:fs';
import { Validator } from '@cfworker/json-schema';
import { describe, expect, it } from 'vitest';
import { parse, parseDocument } from 'yaml';
import { appFileJsonSchema, celFunctions, checkAppFile, compileApp, type ParameterDeclaration } from '../src/index.ts';
import { sourceOf, type Mistake } from './mistakes.ts';

const read = (name: string) => readFileSync(new URL(`../../../${name}`, import.meta.url), 'utf8');
const schema = appFileJsonSchema() as Record<string, unknown> & { $defs: Record<string, object> };
const fits = (value: unknown) => new Validator(schema, '2020-12').validate(value).valid;
// The validator notes in a schema where it stands: this one stands elsewhere.
const { $defs } = structuredClone(schema);
const fitsPart = (name: string, value: unknown) => new Validator({ $defs, $ref: `#/$defs/${name}` }, '2020-12').validate(value).valid;

/** The app files that a page of the guides holds. */
const appsIn = (name: string) => [...read(name).matchAll(/^```yaml\n(pallmist: 1\n[^]*?)\n```$/gm)].map(([, source = '']) => source);

describe('the JSON Schema of the app file, which editors use', () => {
  it('finds every mistake that it can know of', () => {
    const mistakes = parse(read('packages/app/specification/mistakes.yaml')) as Mistake[];
    for (const mistake of mistakes) {
      const document = parseDocument(sourceOf(mistake));
      const found = document.errors.length > 0 || !fits(document.toJS());
      expect([mistake.mistake, found]).toEqual([mistake.mistake, mistake.schema === undefined]);
    }
  });

  it('takes every app file that the check takes', () => {
    const sources = [read('demo/quillmoor/app.yaml'), ...appsIn('docs/app-recipes.md'), ...appsIn('docs/first-app.md')];
    expect(sources.length).toBeGreaterThan(10);
    for (const source of sources) {
      expect(checkAppFile(source).problems.filter(({ severity }) => severity === 'error')).toEqual([]);
      expect([source.slice(0, 60), fits(parse(source))]).toEqual([source.slice(0, 60), true]);
    }
  });

  it('takes every declaration of a parameter that compiles', () => {
    const { choices, collections, types } = parse(read('packages/app/specification/parameter-types.yaml')) as {
      choices: object;
      collections: object;
      types: Record<string, { cases: { declare: ParameterDeclaration; repeat?: boolean }[] }>;
    };
    for (const { declare, repeat } of Object.values(types).flatMap(({ cases }) => cases)) {
      const pages = { here: { address: `/{?p${repeat ? '*' : ''}}`, parameters: { p: declare } } };
      const { problems } = compileApp({ app: 'a', mount: '/', choices, collections, pages } as never);
      expect([declare, fitsPart('parameter', declare)]).toEqual([declare, problems.every(({ severity }) => severity !== 'error')]);
    }
  });

  it('takes every expression that the reference shows', () => {
    for (const { example } of Object.values(celFunctions).flat()) {
      expect([example[0], fitsPart('condition', example[0])]).toEqual([example[0], true]);
      expect([example[0], fitsPart('text', `It is {${example[0]}}.`)]).toEqual([example[0], true]);
    }
  });

  it.each([
    ["param.a == 'x = y' && !has(param.b)", true],
    ['row.notes != null || size("a`b") >= 2', true],
    ['{"a": {"b": 1}}.a.b < 2', true],
    ["r'\\d+' == param.a // as it was = before", true],
    ['param.a = 1', false],
    ['param.a === 1', false],
    ['has(param.a) and has(param.b)', false],
    ['param.a == "x', false],
    ['f(`a`)', false],
  ])('%s is an expression: %s', (expression, is) => {
    expect(fitsPart('condition', expression)).toBe(is);
  });

  it('says in words what a pattern asks for, to editors that show it', () => {
    for (const [name, definition] of Object.entries(schema.$defs))
      if ('pattern' in definition) expect([name, 'patternErrorMessage' in definition]).toEqual([name, true]);
  });
});
