import { DeclarationError, type DeclaredType } from '../declare/declared-type.ts';
import { joinItems } from '../joins.ts';
import { refuse } from '../outcome.ts';
import { parameter, type CommonOptions, type Exactly, type Made, type Parameter, type ValueOf } from '../parameter.ts';
import { mostItems, readItems, remember } from './separated.ts';

export interface ListOptions<Item> extends CommonOptions<readonly Item[]> {
  /** Fewest and most items; at most 500. */
  minItems?: number | undefined;
  maxItems?: number | undefined;
  /** No item twice. */
  unique?: boolean | undefined;
  /** What `?name=` means: the empty list, or that there is none; `empty` when left out. */
  blank?: 'empty' | 'absent' | undefined;
}

/**
 * Several values of one simple type, in order. Joined with commas in an address, or repeated where the address template
 * has `*`; each item is encoded on its own, so that it may hold a comma.
 */
export function list<const Item extends Parameter, const Options extends ListOptions<ValueOf<Item>> = object>(
  item: Item,
  options?: Exactly<Options, ListOptions<ValueOf<Item>>>,
): Made<readonly ValueOf<Item>[], Options> {
  const { minItems = 0, maxItems = mostItems, unique } = options ?? {};
  const most = Math.min(maxItems, mostItems);
  const counted = <Value extends readonly unknown[]>(items: Value) =>
    items.length < minItems ? refuse('too-few', minItems) : items.length > most ? refuse('too-many', most) : items;
  // A text or a key may hold a comma, and so may a value that is not written as it stands.
  const { type, of } = item;
  const commaFree = type !== 'text' && type !== 'record' && !(Array.isArray(of) ? of : Object.keys(of ?? {})).join('').includes(',');
  return parameter<readonly ValueOf<Item>[], never, never>(
    'list',
    options,
    remember((source, from, to) => {
      const items = readItems(item.read as Parameter<ValueOf<Item>>['read'], source, from, to, unique !== true, most, commaFree);
      return items === undefined ? undefined : counted(items);
    }),
    (value) => {
      if (!Array.isArray(value)) return refuse('not-a-list');
      if (counted(value) === undefined) return undefined;
      if (unique === true && new Set(value).size < value.length) return refuse('repeated-item');
      let result = '';
      for (let i = 0; i < value.length; i++) {
        const text = item.write(value[i]);
        if (text === undefined) return undefined;
        if (text === '') return refuse('empty-item');
        result += i === 0 ? text : ',' + text;
      }
      return result;
    },
    { blank: options?.blank !== 'absent', joins: joinItems, of: item },
  );
}

/** `type: list` in an app file: `items` declares what its items are. */
export const declaredList: DeclaredType = {
  attributes: ['items', 'minItems', 'maxItems', 'unique', 'blank'],
  inLists: false,
  make(declaration, compileContext) {
    const { items, minItems = 0, maxItems } = declaration;
    const simple = Object.entries(compileContext.types).flatMap(([name, type]) => (type.inLists ? [name] : []));
    const type = items && simple.includes(items.type) ? compileContext.types[items.type] : undefined;
    if (items === undefined || type === undefined) {
      throw new DeclarationError(
        'items',
        'items-missing',
        'A list says what its items are.',
        `Give “items”, such as { type: text }; possible: ${simple.join(', ')}.`,
      );
    }
    const stray = Object.keys(items).find((attribute) => attribute !== 'type' && !type.attributes.includes(attribute as never));
    if (stray !== undefined) {
      throw new DeclarationError(
        'items',
        'attribute-without-effect',
        `“${stray}” says nothing about items of the type ${items.type}.`,
        `Take it out of “items”.`,
      );
    }
    const item = type.make(items, compileContext);
    const most = Math.min(maxItems ?? mostItems, mostItems);
    if (minItems > most) {
      throw new DeclarationError(
        'minItems',
        'limits-cross',
        `No list has at least ${String(minItems)} and at most ${String(most)} items.`,
        'Make minItems at most maxItems.',
      );
    }
    return list(item, declaration as ListOptions<unknown>);
  },
};
