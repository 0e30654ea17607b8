import { staysHere } from './location.ts';

/** The beginning of a request, up to the end of its first line. */
const firstLine = /^(?:GET|HEAD) (\/.*) HTTP\/1\.[01]\r?\n/;

/**
 * Where a request leads whose target holds characters that HTTP does not allow there and that the URL standard encodes: a
 * no-break space, a letter that is not ASCII. Browsers encode them; some programs do not.
 * @param bytes the request as it came
 * @returns the target, percent-encoded; undefined where the request is wrong in another way
 */
export function encodedTarget(bytes: Buffer | undefined): string | undefined {
  if (bytes === undefined) return undefined;
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return undefined;
  }
  const target = firstLine.exec(text)?.[1];
  // A target may be no URL at all: “/\\[” names a host to the URL standard.
  if (target === undefined || !staysHere(target) || !URL.canParse(target, 'http://a')) return undefined;
  const { pathname, search } = new URL(target, 'http://a');
  const encoded = pathname + search;
  return encoded === target || !staysHere(encoded) ? undefined : encoded;
}
