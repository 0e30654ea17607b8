import { Corrected, DeclarationError, isPlain, Refusal, type Codec, type ParameterType, type ParameterTypes } from '../codec.ts';
import { simpleTypeNames } from '../declaration.ts';

type Item = string | number | boolean;

/** Most items that a list may have, whatever its declaration says. */
const greatestLength = 500;

/**
 * Several values of one simple type, in order. Joined with commas in an address, or repeated where the address
 * template has `*`; each item is encoded on its own, so that it may hold a comma.
 */
export function list(types: ParameterTypes): ParameterType {
  return {
    attributes: ['items', 'minItems', 'maxItems', 'unique', 'blank'],
    prepare(declaration, surroundings) {
      const { items } = declaration;
      const type = items && simpleTypeNames.some((name) => name === items.type) ? types[items.type] : undefined;
      if (items === undefined || type === undefined) {
        throw new DeclarationError(
          'items',
          'items-missing',
          'A list says what its items are.',
          `Give “items”, such as { type: text }; possible: ${simpleTypeNames.join(', ')}.`,
        );
      }
      const stray = Object.keys(items).find((attribute) => attribute !== 'type' && !type.attributes.includes(attribute as never));
      if (stray !== undefined) {
        throw new DeclarationError(
          'items',
          'attribute-without-effect',
          `“${stray}” says nothing about a ${items.type}.`,
          `Take it out of “items”.`,
        );
      }
      const codec = type.prepare(items, surroundings);
      const least = declaration.minItems ?? 0;
      const most = Math.min(declaration.maxItems ?? greatestLength, greatestLength);
      if (least > most) {
        throw new DeclarationError(
          'minItems',
          'limits-cross',
          `No list has at least ${String(least)} and at most ${String(most)} items.`,
          'Make minItems at most maxItems.',
        );
      }
      const refuse = (count: number) => {
        if (count < least) return new Refusal('too-few', `It needs at least ${String(least)} items.`);
        if (count > most) return new Refusal('too-many', `It may have at most ${String(most)} items.`);
        return undefined;
      };
      const unique = declaration.unique === true;
      // Where no item can hold a comma, one that was encoded still stands between two items.
      const commaFree =
        !['text', 'record'].includes(items.type) &&
        !Object.keys(surroundings.choices[items.of ?? ''] ?? {}).some((value) => value.includes(','));

      const readTexts = (texts: readonly string[]) => {
        const given = (commaFree ? texts.flatMap((text) => text.split(',')) : texts).filter((text) => text !== '');
        if (given.length > greatestLength) return new Refusal('too-many', `It may have at most ${String(most)} items.`);
        let corrected = given.length !== texts.length && texts.length > 0;
        let former = false;
        const values: Item[] = [];
        for (const text of given) {
          const value = codec.read(text);
          if (value instanceof Refusal) return value;
          if (!isPlain(value)) {
            corrected = true;
            former ||= value.former;
          }
          const item = (isPlain(value) ? value : value.value) as Item;
          if (unique && values.includes(item)) corrected = true;
          else values.push(item);
        }
        return refuse(values.length) ?? (corrected ? new Corrected(values, former) : values);
      };
      const writeTexts = (value: unknown) => {
        if (!Array.isArray(value)) return new Refusal('not-a-list', 'It is not a list.');
        const refused = refuse(value.length);
        if (refused) return refused;
        if (unique && new Set(value).size < value.length) return new Refusal('repeated-item', 'It has an item twice.');
        const texts: string[] = [];
        for (const item of value) {
          const text = codec.write(item);
          if (text instanceof Refusal) return text;
          if (text === '') return new Refusal('empty-item', 'An item is empty.');
          texts.push(text);
        }
        return texts;
      };
      const codecOfList: Codec = {
        readsBlank: declaration.blank !== 'absent',
        several: { joins: true, read: readTexts, write: writeTexts },
        // As one text, for defaults and samples in the app file: items with commas between.
        read: (text) => readTexts(text.split(',').map((item) => item.trim())),
        write(value) {
          const texts = writeTexts(value);
          return texts instanceof Refusal ? texts : texts.join(',');
        },
      };
      return codecOfList;
    },
  };
}
