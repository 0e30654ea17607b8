import type { ChoiceDefinition } from '@pallmist/address';
import type { describePages, ParameterDeclaration } from '@pallmist/address/declare';
import type { AppDefinition } from '../definition/app-definition.ts';
import { equal } from '../editing/compare-data.ts';

/** What only an app file says of a parameter, and what is for people: code that leaves it out does not take it away. */
const keptAttributes = [
  'by',
  'tied',
  'reach',
  'sealed',
  'formerValues',
  'goneValues',
  'inNewLinks',
  'lasting',
  'label',
  'help',
  'sample',
] as const satisfies readonly (keyof ParameterDeclaration)[];

/** Puts declarations of parameters from code into an app, and the choices lists and collections that they need. */
export class ParametersFromCode {
  /** The app with the choices lists and collections that were added. */
  app: AppDefinition;
  /** Collections that were added for records, of which code knows the form of their keys alone. */
  readonly collections: string[] = [];
  readonly #described: ReturnType<typeof describePages>;

  /** @param described what the code declares */
  constructor(app: AppDefinition, described: ReturnType<typeof describePages>) {
    // Texts without an offset mean the clocks of the app’s time zone, in code as in the service.
    const { timeZone = 'UTC' } = described;
    this.app = app.timeZone === undefined && timeZone !== 'UTC' ? { ...app, timeZone } : app;
    this.#described = described;
  }

  /** @param sameDefault whether the default of the code is the one that the app file has in its own words */
  parameter(
    present: ParameterDeclaration | undefined,
    code: ParameterDeclaration,
    { sameDefault, inPath }: { sameDefault: boolean; inPath: boolean },
  ): ParameterDeclaration {
    const declared = JSON.parse(JSON.stringify(code)) as ParameterDeclaration;
    const sameType = present !== undefined && (present.type === declared.type || (present.type === 'page' && declared.type === 'choice'));
    const old: Partial<ParameterDeclaration> = sameType ? present : {};
    if (old.type === 'page') return { ...withoutList(declared), ...pickKept(old), type: 'page' };
    const next: ParameterDeclaration = Object.assign({ type: declared.type }, pickKept(old), declared);
    if (sameDefault && old.default !== undefined) next.default = old.default;
    // The path says by itself what is required in it.
    if (next.required === undefined && next.default === undefined && old.required !== undefined && (inPath || !old.required))
      next.required = old.required;
    this.#refer(next, old);
    if (next.type === 'list' && next.items) next.items = this.#items(next.items, old.items);
    if (next.type === 'sort' && old.of !== undefined) keepFieldsOf(next, old, this.app);
    if (next.type === 'packed' && next.schema === undefined && old.schema !== undefined) next.schema = old.schema;
    return inOrderOf(next, old);
  }

  #items(items: NonNullable<ParameterDeclaration['items']>, old: ParameterDeclaration['items']) {
    const next = { ...items };
    this.#refer(next, old?.type === items.type ? old : {});
    return next;
  }

  /** What a choice or a record is of: as in the app file where that means the same. */
  #refer(next: Pick<ParameterDeclaration, 'type' | 'of'>, old: Pick<ParameterDeclaration, 'of'>): void {
    const { of } = next;
    if (of === undefined) return;
    if (next.type === 'choice') {
      const values = (this.#described.choices ?? {})[of] ?? {};
      const present = this.app.choices?.[old.of ?? ''];
      if (old.of !== undefined && present !== undefined && saysAsMuch(present, values)) next.of = old.of;
      else this.app = { ...this.app, choices: { ...this.app.choices, [of]: values as NonNullable<AppDefinition['choices']>[string] } };
    } else if (next.type === 'record') {
      const collection = this.#described.collections?.[of];
      if (old.of !== undefined) next.of = old.of;
      else if (collection !== undefined && this.app.collections?.[of] === undefined) {
        this.app = { ...this.app, collections: { ...this.app.collections, [of]: collection as never } };
        this.collections.push(of);
      }
    }
  }
}

/** Whether a choices list has these values, and their labels where they have any. */
function saysAsMuch(present: Readonly<Record<string, ChoiceDefinition>>, values: Readonly<Record<string, ChoiceDefinition>>): boolean {
  const names = Object.keys(values);
  return equal(names, Object.keys(present)) && names.every((name) => values[name] === name || equal(values[name], present[name]));
}

/** The fields of a sort: those of its collection, unless code lists others. */
function keepFieldsOf(next: ParameterDeclaration, { of, fields }: Partial<ParameterDeclaration>, { collections }: AppDefinition): void {
  next.of = of;
  const known = fields ?? Object.keys(collections?.[of ?? '']?.fields ?? {});
  if (!equal(next.fields, known)) return;
  if (fields === undefined) delete next.fields;
}

const pickKept = (old: Partial<ParameterDeclaration>): Partial<ParameterDeclaration> =>
  Object.fromEntries(keptAttributes.flatMap((name) => (old[name] === undefined ? [] : [[name, old[name]]])));

const withoutList = ({ of: _, ...declared }: ParameterDeclaration): ParameterDeclaration => declared;

/** The attributes in the order in which the app file has them, so that only what changes is written again. */
function inOrderOf(next: ParameterDeclaration, old: Partial<ParameterDeclaration>): ParameterDeclaration {
  const keys = Object.keys(next) as (keyof ParameterDeclaration)[];
  const known = Object.keys(old).filter((key): key is keyof ParameterDeclaration => keys.includes(key as never));
  return Object.fromEntries(
    [...known, ...keys.filter((key) => !known.includes(key))].map((key) => [key, next[key]]),
  ) as unknown as ParameterDeclaration;
}
