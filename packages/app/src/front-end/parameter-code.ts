import { own } from '../own.ts';
import { isRelativeDate, type CollectionShape, type ParameterDeclaration } from '@pallmist/address/declare';
import type { CompiledParameter } from '@pallmist/address/pages';
import type { Schema } from '../json-schema/keywords.ts';
import { Code, literal } from './literal.ts';
import { schemaType } from './schema-type.ts';

/** What the parameters of a module share. */
export interface ModuleParts {
  /** Names that have to be imported, by where from. */
  readonly imports: Map<string, Set<string>>;
  /** The constants that hold the app's choices lists. */
  choices(list: string): string;
  readonly collections: Readonly<Record<string, CollectionShape>>;
  readonly pages: readonly string[];
  readonly timeZone: string;
}

const common = ['required', 'ifWrong', 'step', 'resets', 'once', 'share', 'formerNames'] as const;
const limits: Readonly<Record<string, readonly (keyof ParameterDeclaration)[]>> = {
  text: ['blank', 'minLength', 'maxLength', 'pattern'],
  integer: ['min', 'max'],
  number: ['min', 'max'],
  date: ['min', 'max'],
  datetime: ['min', 'max'],
  list: ['blank', 'minItems', 'maxItems', 'unique'],
};

const address = '@pallmist/address';

export function need(parts: ModuleParts, name: string, from = address): Code {
  const names = parts.imports.get(from) ?? new Set();
  parts.imports.set(from, names.add(name));
  return new Code(name);
}

/** The call that declares a parameter as the app file does. */
export function parameterCode(
  { declaration, plain, remembered, fallback, required, place }: CompiledParameter,
  parts: ModuleParts,
  indent: string,
  before: number,
): string {
  const options: Record<string, unknown> = {
    ...only(declaration, own(limits, declaration.type) ?? []),
    ...(place === 'path' ? {} : { required: required || undefined }),
    default: defaultOf(declaration, fallback, parts),
    ...only(
      declaration,
      common.filter((name) => name !== 'required'),
    ),
    // What is remembered for a visit leaves the address once it was read.
    ...(remembered ? { once: true } : {}),
  };
  return call(declaration, options, plain.of, parts, indent, before);
}

function call(
  declaration: ParameterDeclaration,
  given: Record<string, unknown>,
  of: unknown,
  parts: ModuleParts,
  indent: string,
  before: number,
): string {
  const { type } = declaration;
  const ofApp = type === 'record' ? keyForm(declaration, parts) : type === 'datetime' ? { timeZone: parts.timeZone } : {};
  const options = Object.fromEntries(Object.entries({ ...ofApp, ...given }).filter(([, value]) => value !== undefined));
  const words = [...typeWords(declaration, of, parts), ...(Object.keys(options).length > 0 ? [options] : [])];
  const name = type === 'page' ? 'choice' : type === 'packed' ? 'packedBySchema' : type;
  need(parts, name, type === 'packed' ? '@pallmist/app/packed' : address);
  const first =
    words.length > 1
      ? `${words
          .slice(0, -1)
          .map((word) => literal(word, indent, before))
          .join(', ')}, `
      : '';
  const last = words.at(-1);
  return `${name}(${first}${last === undefined ? '' : literal(last, indent, before + name.length + first.length + 2)})`;
}

/** What stands before the options: the values of a choice, the item of a list, the end of a range, the fields of a sort. */
function typeWords(declaration: ParameterDeclaration, of: unknown, parts: ModuleParts): unknown[] {
  switch (declaration.type) {
    case 'choice':
      return [new Code(parts.choices(declaration.of ?? ''))];
    case 'page':
      return [[...parts.pages]];
    case 'list': {
      const { items = { type: 'text' } } = declaration;
      return [new Code(call(items, only(items, own(limits, items.type) ?? []), (of as { of?: unknown } | undefined)?.of, parts, '', 0))];
    }
    case 'range': {
      const type = declaration.of ?? 'integer';
      return [new Code(call({ type }, only(declaration, ['min', 'max']), undefined, parts, '', 0))];
    }
    case 'sort':
      return [of];
    case 'packed': {
      need(parts, 'SchemaOf', '@pallmist/app/packed');
      return [new Code(`${literal(declaration.schema ?? true)} as SchemaOf<${schemaType(declaration.schema as Schema | undefined)}>`)];
    }
    default:
      return [];
  }
}

function defaultOf({ type, default: given }: ParameterDeclaration, fallback: CompiledParameter['fallback'], parts: ModuleParts): unknown {
  if (given === undefined || fallback === undefined) return undefined;
  if (type !== 'date' || !isRelativeDate(given)) return fallback();
  for (const name of ['resolveRelativeDate', 'todayIn']) need(parts, name, '@pallmist/address/declare');
  return new Code(`() => resolveRelativeDate(${literal(given)}, todayIn(${literal(parts.timeZone)}, Date.now()))`);
}

/** What the keys of a collection look like. */
function keyForm({ of = '', by }: Pick<ParameterDeclaration, 'of' | 'by'>, { collections }: ModuleParts): Record<string, unknown> {
  const collection = collections[of];
  const { pattern, maxLength } = collection?.fields[by ?? collection.keyField] ?? {};
  return { pattern, maxLength };
}

const only = (declaration: object, names: readonly string[]): Record<string, unknown> =>
  Object.fromEntries(names.map((name) => [name, (declaration as Record<string, unknown>)[name]]));
