import { Validator } from '@cfworker/json-schema';
import { deflateSync, Inflate } from 'fflate';
import { canonicalJson } from '../canonical-json.ts';
import { Corrected, DeclarationError, Refusal, type ParameterType } from '../codec.ts';
import type { Json } from '../declaration.ts';

/** Stands before the packed text, so that another way of packing can be told apart one day. */
const mark = '1';
/** Most bytes that a packed text may unpack to: a short text must not become a large memory. */
export const mostUnpackedBytes = 65_536;
/** Bytes that are unpacked at once; deflate makes at most about a thousand bytes of one. */
const piece = 256;

/**
 * Any JSON value that fits a JSON Schema (draft 2020-12): as canonical JSON (RFC 8785), raw deflate (RFC 1951),
 * base64url (RFC 4648, section 5) without padding, behind a version mark.
 */
export const packed: ParameterType = {
  attributes: ['schema'],
  prepare({ schema }) {
    if (schema !== undefined && (typeof schema !== 'object' || schema === null || Array.isArray(schema))) {
      throw new DeclarationError(
        'schema',
        'bad-schema',
        'The schema is not a JSON Schema.',
        'Write it as a map, such as { type: object }.',
      );
    }
    let validator: Validator;
    try {
      validator = new Validator(schema ?? {}, '2020-12');
      validator.validate(null);
    } catch (error) {
      throw new DeclarationError(
        'schema',
        'bad-schema',
        `The schema is not a JSON Schema: ${error instanceof Error ? error.message : 'it cannot be used'}.`,
      );
    }
    const refuse = (value: unknown) => {
      const { valid, errors } = validator.validate(value);
      if (valid) return undefined;
      const error = errors.at(-1);
      return new Refusal('schema-mismatch', `The packed value is not as it should be: ${error?.error ?? 'it does not fit'}`);
    };
    return {
      read(text) {
        const json = unpack(text);
        if (json instanceof Refusal) return json;
        let value: Json;
        try {
          value = JSON.parse(json) as Json;
        } catch {
          return damaged;
        }
        const canonical = canonicalJson(value);
        if (canonical === undefined) return damaged;
        if (value === null) return new Refusal('null-is-absent', 'It is null, which an address says by leaving it out.');
        return refuse(value) ?? (pack(canonical) === text ? value : new Corrected(value));
      },
      write(value) {
        const canonical = canonicalJson(value);
        if (canonical === undefined || value === null) return new Refusal('not-json', 'It is not a JSON value.');
        if (new TextEncoder().encode(canonical).length > mostUnpackedBytes) return new Refusal('too-long', 'It is too large to be packed.');
        return refuse(value) ?? pack(canonical);
      },
    };
  },
};

const damaged = new Refusal('not-packed', 'It is damaged, or was cut off.');

function pack(json: string): string {
  const bytes = deflateSync(new TextEncoder().encode(json), { level: 9, mem: 6 });
  let binary = '';
  for (const byte of bytes) binary += String.fromCharCode(byte);
  return mark + btoa(binary).replaceAll('+', '-').replaceAll('/', '_').replace(/=+$/, '');
}

function unpack(text: string): string | Refusal {
  if (!text.startsWith(mark) || !/^[\w-]+$/.test(text)) return damaged;
  let bytes: Uint8Array;
  try {
    bytes = Uint8Array.from(atob(text.slice(mark.length).replaceAll('-', '+').replaceAll('_', '/')), (sign) => sign.charCodeAt(0));
  } catch {
    return damaged;
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
      if (length > mostUnpackedBytes) return new Refusal('too-long', 'It unpacks to more than can be taken.');
    }
    if (!end.reached) return damaged;
    const whole = new Uint8Array(length);
    let at = 0;
    for (const part of pieces) {
      whole.set(part, at);
      at += part.length;
    }
    return new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(whole);
  } catch {
    return damaged;
  }
}
