import { type CompiledApp, readTexts, type Values } from '@pallmist/app/address';

/** The values to show a page with while it is being built: of each parameter that needs one, its sample. */
export function sampleValues(app: CompiledApp, page: string): Values {
  const values: Values = {};
  for (const { name, required, declaration } of app.pages.get(page)?.parameters ?? []) {
    const { sample } = declaration;
    // Only what the page cannot do without: the others are best seen as they are at first.
    if (!required || sample === undefined) continue;
    Object.assign(values, typeof sample === 'string' ? readTexts(app, page, { [name]: sample }).values : { [name]: sample });
  }
  return values;
}
