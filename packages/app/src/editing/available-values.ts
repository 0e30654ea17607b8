import type { PatchOperation } from '@pallmist/address/declare';
import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { pageScopeTypes, recordType } from '../expressions/page-scope.ts';
import type { ScopeType } from '../expressions/scope-types.ts';
import { slugOf } from './names.ts';
import { addParameter } from './parameter-edits.ts';
import { pageTitle } from './describe-place.ts';

/** Where a value comes from, as the value picker lists it. */
export type ValueSource = 'row' | 'saved' | 'parameters' | 'records' | 'rows' | 'person' | 'visit' | 'words' | 'app';

/** What a place takes: a text into which anything can be written, or a value of a type. */
export type WantedType = 'text' | 'string' | 'int' | 'double' | 'bool' | 'list' | 'any';

/** A value that an expression may name at a place. */
export interface AvailableValue {
  source: ValueSource;
  /** The CEL expression that gives it. */
  expression: string;
  /** What people call it. */
  label: string;
  /** Its type in words. */
  type: string;
  /** Whether it fits what is wanted; otherwise why not. */
  misfit?: string;
  /** The value may be absent, so that it is read with a fallback. */
  optional: boolean;
}

/** A value that is not here, and the one step that would make it so. */
export interface ValueNearby {
  label: string;
  reason: string;
  step: string;
  patch: PatchOperation[];
  /** The expression that then gives it. */
  expression: string;
}

/** Where a value is wanted. */
export interface ValuePlace {
  page: string;
  /** The read in whose rows the place stands. */
  row?: string | undefined;
  /** The collection of the record that a form has saved, where a link follows the saving. */
  saved?: string | undefined;
}

const typeWords: Record<string, string> = { string: 'text', int: 'whole number', double: 'number', bool: 'yes or no', dyn: 'any value' };

function inWords(type: ScopeType): string {
  if (typeof type === 'string') return typeWords[type] ?? type;
  return 'list' in type ? 'list' : 'record';
}

/** Lists what can be bound at a place, what fits first. */
export function availableValues(definition: AppDefinition, place: ValuePlace, wanted: WantedType): AvailableValue[] {
  const page = definition.pages[place.page];
  if (page === undefined) return [];
  const types = pageScopeTypes(definition, page);
  const found: AvailableValue[] = [];
  const declared = { ...definition.parameters, ...page.parameters };
  const add = (source: ValueSource, expression: string, label: string, type: ScopeType, optional = false) => {
    const misfit = misfitOf(type, wanted);
    found.push({ source, expression, label, type: inWords(type), optional, ...(misfit === undefined ? {} : { misfit }) });
  };
  const addFields = (source: ValueSource, root: string, collection: string | undefined, prefix = '') => {
    const of = definition.collections?.[collection ?? ''];
    const type = collection === undefined ? 'dyn' : recordType(definition, collection);
    const fields = typeof type === 'object' && 'fields' in type ? type.fields : {};
    for (const [name, field] of Object.entries(of?.fields ?? {})) {
      const label = prefix + (field.label ?? name);
      const inner = fields[name] ?? 'dyn';
      if (field.type !== 'record') {
        add(source, `${root}.${name}`, label, inner, field.required !== true);
        continue;
      }
      const target = definition.collections?.[field.of ?? ''];
      const innerFields = typeof inner === 'object' && 'fields' in inner ? inner.fields : {};
      for (const [key, innerType] of Object.entries(innerFields)) {
        const keyLabel = target?.fields[key]?.label ?? key;
        add(
          source,
          `${root}.${name}.${key}`,
          `${label}: ${keyLabel}`,
          typeof innerType === 'string' ? innerType : 'string',
          field.required !== true,
        );
      }
    }
  };
  if (place.row !== undefined) addFields('row', 'row', page.rows?.[place.row]?.from);
  if (place.saved !== undefined) addFields('saved', 'saved', place.saved);
  for (const [name, { reach, label, type, required, default: given }] of Object.entries(declared)) {
    if (reach === 'visit') continue;
    const scope = types['param'];
    const own = typeof scope === 'object' && 'fields' in scope ? scope.fields[name] : undefined;
    const optional = required !== true && given === undefined && !new RegExp(`\\{${name}\\}`).test(page.address);
    if (own !== undefined) add('parameters', `param.${name}`, label ?? name, own, optional);
    if (type === 'choice' || type === 'record') add('parameters', `label.${name}`, `${label ?? name}, in words`, 'string', optional);
    if (type === 'record') addFields('records', `record.${name}`, declared[name]?.of, `${label ?? name}: `);
  }
  for (const name of Object.keys(page.rows ?? {})) {
    add('rows', `total.${name}`, `How many “${name}” there are`, 'int');
    add('rows', `rows.${name}`, `The rows “${name}”`, { list: 'dyn' });
  }
  add('person', 'person.name', 'Name of the person who is signed in', 'string', true);
  add('person', 'person.login', 'Login name of the person who is signed in', 'string', true);
  add('person', 'person.roles', 'Roles of the person who is signed in', { list: 'string' }, true);
  for (const [name, { reach, label }] of Object.entries(declared)) {
    const visit = types['visit'];
    const own = typeof visit === 'object' && 'fields' in visit ? visit.fields[name] : undefined;
    if (reach === 'visit' && own !== undefined) add('visit', `visit.${name}`, label ?? name, own, true);
  }
  add('visit', 'previous.page', 'The page that the visitor came from', 'string', true);
  for (const name of Object.keys(definition.words ?? {})) add('words', `word.${name}`, name, 'string');
  add('app', 'today', 'Today', 'string');
  add('app', 'app.title', 'Title of the app', 'string');
  return [...found.filter(({ misfit }) => misfit === undefined), ...found.filter(({ misfit }) => misfit !== undefined)];
}

function misfitOf(type: ScopeType, wanted: WantedType): string | undefined {
  const kind = typeof type === 'string' ? type : 'list' in type ? 'list' : 'record';
  if (kind === 'record') return 'It is a whole record; choose one of its fields.';
  if (wanted === 'any' || kind === 'dyn') return undefined;
  if (wanted === 'text') return kind === 'list' ? 'It is a list; a text is wanted.' : undefined;
  if (wanted === kind || (wanted === 'double' && kind === 'int')) return undefined;
  return `It is a ${inWords(type)}; a ${wanted === 'list' ? 'list' : (typeWords[wanted] ?? wanted)} is wanted.`;
}

/** The expression as it is written into a text or a value, with a fallback where it may be absent. */
export function asWritten({ expression, optional }: Pick<AvailableValue, 'expression' | 'optional'>, into: 'text' | 'value'): string {
  if (!optional || into === 'value') return `{${expression}}`;
  const dot = expression.lastIndexOf('.');
  return dot < 0 || expression.split('.').length !== 2
    ? `{${expression}}`
    : `{${expression.slice(0, dot)}.?${expression.slice(dot + 1)}.orValue("")}`;
}

/** Values that the page has not, each with the step that would bring it: records of the collections that no parameter names. */
export function valuesNearby(definition: AppDefinition, place: ValuePlace): ValueNearby[] {
  const page = definition.pages[place.page];
  if (page === undefined) return [];
  return Object.entries(definition.collections ?? {}).flatMap(([name, collection]): ValueNearby[] => {
    if (Object.values({ ...definition.parameters, ...page.parameters }).some(({ type, of }) => type === 'record' && of === name)) return [];
    const parameter = singular(slugOf(name));
    const made = addParameter(definition, place.page, parameter, { type: 'record', of: name });
    const senders = pagesShowing(definition, name);
    const title = collection.titleField ?? collection.keyField;
    return [
      {
        label: `${collection.fields[title]?.label ?? title} of a record of “${name}”`,
        reason:
          senders.length === 0
            ? `The page has no record of “${name}”.`
            : `“${senders.map((sender) => pageTitle(definition.pages[sender]?.title ?? '', sender)).join('”, “')}” has it: send it by a parameter.`,
        step: `Declare the parameter “${made.name}”`,
        patch: made.patch,
        expression: `record.${made.name}.${title}`,
      },
    ];
  });
}

const pagesShowing = (definition: AppDefinition, collection: string): string[] =>
  Object.entries(definition.pages)
    .filter(([, page]) => showsCollection(page, collection))
    .map(([name]) => name)
    .slice(0, 3);

const showsCollection = ({ rows, parameters }: PageDefinition, collection: string): boolean =>
  Object.values(rows ?? {}).some(({ from }) => from === collection) ||
  Object.values(parameters ?? {}).some(({ type, of }) => type === 'record' && of === collection);

/** What one of several is called, as far as the ending tells. */
export function singular(name: string): string {
  if (/(?:ss|us|is)$/.test(name)) return name;
  if (/ies$/.test(name) && name.length > 4) return `${name.slice(0, -3)}y`;
  if (/(?:ches|shes|xes|sses)$/.test(name)) return name.slice(0, -2);
  return name.endsWith('s') && name.length > 3 ? name.slice(0, -1) : name;
}
