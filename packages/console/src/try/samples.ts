import { type CompiledApp, readTexts, type Values, writeAddress } from '@pallmist/app/address';
import type { PageDefinition } from '@pallmist/app/editing';

/** A named set of samples; those of the parameters themselves when left out. */
type SampleSet = NonNullable<PageDefinition['sampleSets']>[string] | undefined;

/** The values to show a page with while it is being built: of each parameter that needs one, its sample; or those of a set. */
export function sampleValues(app: CompiledApp, page: string, set: SampleSet): Values {
  const values: Values = {};
  for (const { name, required, declaration } of app.pages.get(page)?.parameters ?? []) {
    const sample = set === undefined ? declaration.sample : set[name];
    // Only what the page cannot do without: the others are best seen as they are at first.
    if (sample === undefined || (set === undefined && !required)) continue;
    Object.assign(values, typeof sample === 'string' ? readTexts(app, page, { [name]: sample }).values : { [name]: sample });
  }
  return values;
}

/** The address of a page with its samples; a text of a set that is refused stands in it all the same, to be seen as visitors would. */
export function sampleAddress(app: CompiledApp, page: string, set: SampleSet): string | undefined {
  const compiled = app.pages.get(page);
  if (compiled === undefined) return undefined;
  const values = sampleValues(app, page, set);
  const refused = Object.entries(set ?? {}).filter(
    ([name, text]) => typeof text === 'string' && !(name in values) && compiled.byName.has(name),
  );
  const written = writeAddress(app, page, values);
  if (refused.length === 0) return written.address;
  const texts = new Map(refused.map(([name, text]) => [name, encodeURIComponent(String(text))]));
  const inPath = new Set(compiled.parameters.filter(({ place }) => place === 'path').map(({ name }) => name));
  // What the path needs is filled in by hand where the library would write no wrong value.
  const stand = Object.fromEntries(Object.entries(values).filter(([name]) => !texts.has(name)));
  const base = written.address ?? fillPath(app, page, stand, texts);
  const query = [...texts].filter(([name]) => !inPath.has(name)).map(([name, text]) => `${name}=${text}`);
  return query.length === 0 ? base : `${base}${base.includes('?') ? '&' : '?'}${query.join('&')}`;
}

function fillPath(app: CompiledApp, page: string, values: Values, texts: ReadonlyMap<string, string>): string {
  const segments = app.pages.get(page)?.template.segments ?? [];
  const path = segments.map((segment) =>
    'literal' in segment ? segment.literal : (texts.get(segment.parameter) ?? encodeURIComponent(plainText(values[segment.parameter]))),
  );
  return `${app.mount}/${path.join('/')}`;
}

const plainText = (value: unknown) => (typeof value === 'string' || typeof value === 'number' ? String(value) : '-');
