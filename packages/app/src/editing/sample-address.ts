import type { ParameterValue, Values } from '@pallmist/address/declare';
import { type CompiledApp, readTexts, writeAddress } from '@pallmist/address/pages';
import type { PageDefinition } from '../definition/app-definition.ts';

/** A named set of samples; those of the parameters themselves when left out. */
type SampleSet = NonNullable<PageDefinition['sampleSets']>[string] | undefined;

/**
 * The address that shows a page with sample values while you build it. A text of a set that the page refuses goes into the
 * address unchanged, so that you see the page as a visitor with a wrong address would.
 * @returns undefined where the app has no such page, or where a required parameter has no sample
 */
export function sampleAddress(app: CompiledApp, page: string, set: SampleSet): string | undefined {
  const compiled = app.pages.get(page);
  if (compiled === undefined) return undefined;
  const values = sampleValues(app, page, set);
  const written = writeAddress(app, page, values).address;
  const texts = new Map(
    Object.entries(set ?? {}).filter((entry): entry is [string, string] => typeof entry[1] === 'string' && compiled.byName.has(entry[0])),
  );
  const refused = new Map([...texts].filter(([name]) => !(name in values)));
  if (refused.size === 0) return written;
  // The library never writes a wrong value, so what it left out is added here, as the text that the set holds.
  const inPath = new Set(compiled.parameters.filter(({ place }) => place === 'path').map(({ name }) => name));
  const path = written ?? pathOf(app, page, texts);
  const query = [...(written === undefined ? texts : refused)].filter(([name]) => !inPath.has(name));
  if (path === undefined || query.length === 0) return path;
  return `${path}${path.includes('?') ? '&' : '?'}${query.map(([name, text]) => `${name}=${encodeURIComponent(text)}`).join('&')}`;
}

/** A required parameter without a sample. */
export interface MissingSample {
  name: string;
  label: string;
  /** A value that would do; undefined where only the app's records or a person know one. */
  value: ParameterValue | undefined;
  /** The collection whose records would do, and the field that names one where it is not the key. */
  collection: string | undefined;
  by: string | undefined;
}

/** The required parameters of a page that have no sample, so that the page cannot be seen while you build it. */
export function missingSamples(app: CompiledApp, page: string): MissingSample[] {
  return (app.pages.get(page)?.parameters ?? []).flatMap(({ name, required, declaration, plain }) => {
    if (!required || declaration.sample !== undefined) return [];
    const { type, of, by, min, label = name } = declaration;
    const first = Array.isArray(plain.of) ? (plain.of[0] as unknown) : Object.keys(plain.of ?? {})[0];
    const simple: Readonly<Record<string, unknown>> = {
      choice: first,
      page: first,
      boolean: true,
      integer: min ?? 1,
      number: min ?? 1,
      date: min,
    };
    const collection = type === 'record' ? of : undefined;
    return [{ name, label, value: simple[type] as ParameterValue | undefined, collection, by }];
  });
}

/** The values of a set; without one, the samples of the parameters that the page requires. The others are best seen absent. */
function sampleValues(app: CompiledApp, page: string, set: SampleSet): Values {
  const values: Values = {};
  for (const { name, required, declaration } of app.pages.get(page)?.parameters ?? []) {
    const sample = set === undefined ? declaration.sample : set[name];
    if (sample === undefined || (set === undefined && !required)) continue;
    Object.assign(values, typeof sample === 'string' ? readTexts(app, page, { [name]: sample }).values : { [name]: sample });
  }
  return values;
}

/** A path with texts in the places of its parameters; undefined where one has none. */
function pathOf(app: CompiledApp, page: string, texts: ReadonlyMap<string, string>): string | undefined {
  const segments = (app.pages.get(page)?.template.segments ?? []).map((segment) => {
    if ('literal' in segment) return segment.literal;
    const text = texts.get(segment.parameter);
    return text === undefined ? undefined : encodeURIComponent(text);
  });
  return segments.includes(undefined) ? undefined : `${app.mount === '/' ? '' : app.mount}/${segments.join('/')}`;
}
