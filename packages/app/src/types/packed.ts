import { deflateSync, Inflate } from 'fflate';
import { DeclarationError, type DeclaredType, type Json } from '@pallmist/address/declare';
import { corrected, decode, encode, parameter, refuse, type CommonOptions, type Exactly, type Made } from '@pallmist/address/types';
import { canonicalJson } from '../json-schema/canonical-json.ts';
import { checkSchema } from '../json-schema/check-schema.ts';
import type { Schema } from '../json-schema/keywords.ts';
import { validator } from '../json-schema/validate.ts';

/** Stands before the packed text, so that another way of packing can be told apart one day. */
const mark = '1';
/** Most bytes that a packed text may unpack to: a short text must not become a large memory. */
export const mostUnpackedBytes = 65_536;
/** Bytes that are unpacked at once; deflate makes at most about a thousand bytes of one. */
const piece = 256;

/**
 * Any JSON value: as canonical JSON (RFC 8785), raw deflate (RFC 1951), base64url (RFC 4648, section 5) without padding,
 * behind a version mark.
 * @param fits whether a value is one of those that are meant; it is asked about whatever stands in an address
 */
export function packed<Value, const Options extends CommonOptions<Value> = object>(
  fits: (value: unknown) => value is Value,
  options?: Exactly<Options, CommonOptions<Value>>,
): Made<Value, Options> {
  const accepts = (value: unknown) => fits(value) || refuse('schema-mismatch');
  return parameter(
    'packed',
    options,
    (source, from, to) => readPacked(decode(source, from, to), accepts) as Value | undefined,
    (value) => writePacked(value, accepts),
  );
}

declare const valueOf: unique symbol;
/** A JSON Schema (draft 2020-12) of which the values are known to TypeScript: `schema as SchemaOf<Plan>`. */
export interface SchemaOf<Value> {
  readonly [valueOf]?: Value;
}

/** As `packed`, for the values that fit a JSON Schema. */
export function packedBySchema<Value, const Options extends CommonOptions<Value> = object>(
  schema: SchemaOf<Value>,
  options?: Exactly<Options, CommonOptions<Value>>,
): Made<Value, Options> {
  return makePacked(schema as Schema, options) as unknown as Made<Value, Options>;
}

/** `type: packed` in an app file, whose values fit a JSON Schema (draft 2020-12). */
export const packedType: DeclaredType = {
  attributes: ['schema'],
  inLists: false,
  make(declaration) {
    const { schema } = declaration;
    const [wrong] = checkSchema(schema ?? true);
    if (wrong !== undefined)
      throw new DeclarationError(
        'schema',
        'bad-schema',
        `The schema is no JSON Schema that can be used${wrong.pointer === '' ? '' : `, at ${wrong.pointer}`}. ${wrong.message}`,
        'See JSON Schema, draft 2020-12.',
      );
    return makePacked((schema ?? true) as Schema, declaration);
  },
};

function makePacked(schema: Schema, options: CommonOptions<unknown> | undefined) {
  const misfitOf = validator(schema);
  const accepts = (value: unknown) => {
    const misfit = misfitOf(value as Json);
    return misfit === undefined || refuse('schema-mismatch', misfit);
  };
  return parameter<Json, never, never>(
    'packed',
    options,
    (source, from, to) => readPacked(decode(source, from, to), accepts),
    (value) => writePacked(value, accepts),
    { of: schema },
  );
}

/** Says whether a value is one of those that are meant; where it is not, it has been refused. */
type Accepts = (value: unknown) => true | undefined;

function readPacked(text: string | undefined, accepts: Accepts): Json | undefined {
  if (text === undefined) return undefined;
  // As people write it, and forms without JavaScript send it. What is packed never begins like that.
  const json = /^\s*[[{"]/.test(text) ? withinLimit(text) : unpack(text);
  if (json === undefined) return undefined;
  let value: Json;
  try {
    value = JSON.parse(json) as Json;
  } catch {
    return refuse('not-packed');
  }
  const canonical = canonicalJson(value);
  if (canonical === undefined) return refuse('not-packed');
  if (value === null) return refuse('null-is-absent');
  if (accepts(value) !== true) return undefined;
  return pack(canonical) === text ? value : corrected(value);
}

function writePacked(value: unknown, accepts: Accepts): string | undefined {
  const canonical = canonicalJson(value);
  if (canonical === undefined || value === null) return refuse('not-json');
  if (new TextEncoder().encode(canonical).length > mostUnpackedBytes) return refuse('too-long');
  return accepts(value) === true ? encode(pack(canonical)) : undefined;
}

const withinLimit = (json: string) => (new TextEncoder().encode(json).length > mostUnpackedBytes ? refuse('too-long') : json);

function pack(json: string): string {
  const bytes = deflateSync(new TextEncoder().encode(json), { level: 9, mem: 6 });
  let binary = '';
  for (const byte of bytes) binary += String.fromCharCode(byte);
  return mark + btoa(binary).replaceAll('+', '-').replaceAll('/', '_').replace(/=+$/, '');
}

function unpack(text: string): string | undefined {
  if (!text.startsWith(mark) || !/^[\w-]+$/.test(text)) return refuse('not-packed');
  let bytes: Uint8Array;
  try {
    bytes = Uint8Array.from(atob(text.slice(mark.length).replaceAll('-', '+').replaceAll('_', '/')), (sign) => sign.charCodeAt(0));
  } catch {
    return refuse('not-packed');
  }
  const pieces: Uint8Array[] = [];
  let length = 0;
  const end = { reached: false };
  const inflate = new Inflate((part, final) => {
    pieces.push(part);
    length += part.length;
    end.reached ||= final;
  });
  try {
    for (let start = 0; start < bytes.length; start += piece) {
      inflate.push(bytes.subarray(start, start + piece), start + piece >= bytes.length);
      if (length > mostUnpackedBytes) return refuse('too-long');
    }
    if (!end.reached) return refuse('not-packed');
    const whole = new Uint8Array(length);
    let at = 0;
    for (const part of pieces) {
      whole.set(part, at);
      at += part.length;
    }
    return new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(whole);
  } catch {
    return refuse('not-packed');
  }
}
