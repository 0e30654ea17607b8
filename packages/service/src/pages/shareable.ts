import {
  own,
  readAddress,
  Refusal,
  valueFrom,
  writeAddress,
  type CompiledApp,
  type CompiledPage,
  type Problem,
  type Values,
} from '@pallmist/app';
import type { ShortTarget } from '../store/short-addresses.ts';

/** What of an address is for sharing: its page with every value, those that are defaults too; or why it is none. */
export type Shareable = ShortTarget | { problems: readonly Problem[] };

/** Reads an address, and keeps of it what is for sharing: a default of tomorrow does not change what it shows. */
export function shareable(app: CompiledApp, address: string): Shareable {
  const reading = readAddress(app, address);
  const page = app.pages.get(reading.page ?? '');
  if (page === undefined || reading.status !== 'found') return { problems: reading.problems };
  const values: Values = {};
  for (const { name, declaration, remembered } of page.parameters) {
    const stated = reading.parameters.some((entry) => entry.name === name && entry.text !== undefined);
    // What is remembered for the visit is shared where its button has put it into the address.
    const shared = declaration.share !== false && declaration.once !== true && (!remembered || stated);
    if (shared && own(reading.values, name) !== undefined) values[name] = own(reading.values, name);
  }
  const written = writeAddress(app, page.name, values, { forSharing: true, tellsVisit: true });
  if (written.address === undefined) return { problems: written.problems };
  return { page: page.name, values, ...(reading.fragment === undefined ? {} : { fragment: reading.fragment }) };
}

/** The address that a short one leads to today; undefined where the app has no such page any more, or refuses a value. */
export function addressOf(app: CompiledApp, { page, values, fragment }: ShortTarget): string | undefined {
  const compiled = app.pages.get(page) ?? app.formerPages.get(page);
  if (compiled === undefined) return undefined;
  const { address } = writeAddress(app, compiled.name, valuesOfToday(compiled, values), { tellsVisit: true });
  return address === undefined ? undefined : address + (fragment === undefined ? '' : `#${fragment}`);
}

/** Values that were kept by former names, or are written otherwise today. */
function valuesOfToday({ byName, parameters }: CompiledPage, kept: Values): Values {
  const values: Values = {};
  for (const [name, value] of Object.entries(kept)) {
    const parameter = byName.get(name) ?? parameters.find(({ declaration }) => declaration.formerNames?.includes(name) === true);
    if (parameter === undefined || value === undefined) continue;
    const today = parameter.plain.write(value) === undefined ? valueFrom(value, parameter.plain) : value;
    if (!(today instanceof Refusal)) values[parameter.name] = today;
  }
  return values;
}
