import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { componentKind } from '../src/components/component-kind.ts';
import { nothingElse } from '../src/components/kind.ts';
import { appFile } from '../src/definition/app-file-schema.ts';
import { type Component, componentKinds, shows, walkContent } from '../src/index.ts';

const at = (value: unknown, path: readonly (string | number)[]): unknown =>
  path.reduce((inner, key) => (inner as Record<string | number, unknown> | undefined)?.[key], value);

const examples = componentKinds.map(({ name, example }) => [name, { show: name, ...example } as Component] as const);

describe.each(examples)('the component %s', (name, example) => {
  it('has an example that the app file takes', () => {
    const parsed = appFile.safeParse({
      pallmist: 1,
      app: 'x',
      title: 'X',
      mount: '/x',
      pages: { home: { title: 'Home', address: '/', content: [example] } },
    });
    expect(parsed.error?.issues).toBeUndefined();
  });

  it('names each thing that it refers to where it stands', () => {
    const [found] = [...walkContent([example])];
    if (found === undefined) throw new Error('no component');
    const { texts, values, links, binds, rows } = found.references;
    for (const { path, text } of texts) expect(at(example, path), path.join('/')).toBe(text);
    for (const { path, value } of values) expect(at(example, path), path.join('/')).toBe(value);
    for (const { path, link } of links) expect(at(example, path), path.join('/')).toBe(link);
    for (const { path, name: bound } of [...binds, ...rows]) expect(at(example, path), path.join('/')).toBe(bound);
  });

  it('refers to every text that people read', () => {
    const [found] = [...walkContent([example])];
    const spoken = ['text', 'label', 'empty', 'placeholder', 'submit', 'anyLabel', 'detail', 'alt', 'loginLabel', 'nameLabel'];
    for (const key of spoken.filter((one) => typeof example[one] === 'string'))
      expect(
        found?.references.texts.map(({ text }) => text),
        key,
      ).toContain(example[key]);
  });

  it('is shown', () => {
    expect(shows).toHaveProperty([name]);
  });
});

it('every kind is shown by one function of its own, and nothing else is', () => {
  expect(Object.keys(shows).sort()).toEqual(componentKinds.map(({ name }) => name).sort());
  expect(new Set(Object.values(shows)).size).toBe(componentKinds.length);
});

/** Never called: `npm run check` fails where one of these compiles. A kind that lacks a part, or whose example is wrong, does not. */
export function incompleteKinds(): object[] {
  const named = { name: 'x', label: 'X', fields: { of: z.string() } } as const;
  const sentence = 'An x.';
  const refersTo = nothingElse;
  const check = nothingElse;
  const example = { of: 'y' };
  // @ts-expect-error How it is shown.
  const all: typeof shows = { heading: shows.heading };
  return [
    all,
    componentKind({ ...named, sentence, refersTo, check, example }),
    // @ts-expect-error An example has every key that is required.
    componentKind({ ...named, sentence, refersTo, check, example: {} }),
    // @ts-expect-error And of the right type.
    componentKind({ ...named, sentence, refersTo, check, example: { of: 1 } }),
    // @ts-expect-error What it can get wrong has to be said, if it is nothing.
    componentKind({ ...named, sentence, refersTo, example }),
    // @ts-expect-error What it is for.
    componentKind({ ...named, refersTo, check, example }),
    // @ts-expect-error What it refers to.
    componentKind({ ...named, sentence, check, example }),
  ];
}
