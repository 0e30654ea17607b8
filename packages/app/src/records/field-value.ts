import type { AppDefinition, CollectionDefinition, FieldDefinition } from '../definition/app-definition.ts';
import { DeclarationError, parameterTypes, type DeclaredTypes, type ParameterDeclaration } from '@pallmist/address/declare';
import type { Parameter } from '@pallmist/address';
import { readPlainText, Refusal } from '@pallmist/address/pages';
import { readFileValue } from './file-value.ts';

/** What a field of a record can hold; a reference is the key of its record. */
export type PlainValue = string | number | boolean;
/** A record as it is kept: plain values only; empty fields are missing. */
export type PlainRecord = Record<string, PlainValue | undefined>;

/** Longest text of a field, in code points: a story may be longer than an address could carry. */
const greatestText = 100_000;
/** Types whose parameters read and write what their fields hold. */
type FieldPart = Pick<AppDefinition, 'choices' | 'collections'>;

/** Reads the texts of a field, as cells of a CSV file and boxes of a form hold them. */
export type FieldReader = (text: string) => PlainValue | Refusal;

/**
 * Makes a reader for a field. Texts are read as they are in addresses, by the same code.
 */
export function fieldReader(app: FieldPart, field: FieldDefinition): FieldReader {
  if (field.type === 'file') return readFileValue;
  if (field.type === 'number') return numberReader(field);
  if (field.type === 'text' && field.pattern === undefined) return (text) => limitText(text, field.maxLength ?? greatestText);
  let parameter: Parameter;
  try {
    parameter = parameterOf(field, app);
  } catch (error) {
    // The check refuses such a field; an edition of the past may still have one.
    if (error instanceof DeclarationError) return () => unusableField;
    throw error;
  }
  // The types of fields have plain values.
  return (text) => readPlainText(parameter, text) as PlainValue | Refusal;
}

const unusableField = new Refusal(
  'unusable-field',
  'Nothing can be saved here: what the app allows contradicts itself. Tell the owner of the app.',
);

/**
 * The parameter that reads and writes the texts of a field.
 * @throws DeclarationError for attributes that contradict each other or the type
 */
export function parameterOf(field: FieldDefinition, app: FieldPart): Parameter {
  const types = parameterTypes satisfies DeclaredTypes;
  const compileContext = { choices: app.choices ?? {}, collections: app.collections ?? {}, pages: [], types };
  return types[field.type === 'file' ? 'text' : field.type].make(asParameter(field), compileContext);
}

function limitText(text: string, most: number): string | Refusal {
  // Browsers send line ends as CR LF; kept is one sign.
  const tidy = text.replaceAll('\r\n', '\n');
  return [...tidy].length <= most ? tidy : new Refusal('too-long', `It may have at most ${String(most)} characters.`, most);
}

/** Numbers are taken in every form in which they are commonly written down, `1.50` too. */
function numberReader({ min, max }: FieldDefinition): FieldReader {
  return (text) => {
    const value = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d{1,3})?$/i.test(text.trim()) ? Number(text) : Number.NaN;
    if (!Number.isFinite(value)) return new Refusal('not-a-number', 'It is not a number; write it as in 12.5.');
    if (min !== undefined && value < Number(min)) return new Refusal('too-small', `The least is ${String(min)}.`, min);
    if (max !== undefined && value > Number(max)) return new Refusal('too-large', `The most is ${String(max)}.`, max);
    return value;
  };
}

/** The parameter whose texts are those of a field. */
export function asParameter({ type, of, pattern, maxLength, min, max }: FieldDefinition): ParameterDeclaration {
  switch (type) {
    case 'text':
      return { type, pattern, maxLength };
    case 'choice':
    case 'record':
      return { type, of };
    case 'boolean':
      return { type };
    case 'file':
      return { type: 'text' };
    default:
      return { type, min, max };
  }
}

/** A value as a box of a form holds it. */
export function fieldText(value: unknown, collection?: Pick<CollectionDefinition, 'keyField'>): string {
  if (value === undefined || value === null) return '';
  if (typeof value === 'boolean') return value ? 'true' : 'false';
  if (typeof value === 'object') return collection ? fieldText((value as Record<string, unknown>)[collection.keyField]) : '';
  return typeof value === 'string' || typeof value === 'number' || typeof value === 'bigint' ? String(value) : '';
}
