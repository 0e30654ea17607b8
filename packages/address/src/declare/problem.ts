import { PallmistError } from '../error.ts';

/** How much a problem weighs. Only an `error` keeps an app from being published or an address from being written. */
export type Severity = 'error' | 'warning' | 'note';

/**
 * Something wrong, said once for programs (`code`, `pointer`) and once for people (`message`, `hint`).
 * The same shape serves the reading of an address, the check of an app file and the Problem Details of the API.
 */
export interface Problem {
  /** Stable, in lower case with hyphens; programs may rely on it. */
  code: string;
  severity: Severity;
  /** One plain sentence that says what is wrong. */
  message: string;
  /** One plain sentence that says what to do about it. */
  hint?: string;
  /** Where, as a JSON Pointer (RFC 6901) into the app file or the request. */
  pointer?: string;
  /** 1-based place in the text of the app file. */
  line?: number;
  column?: number;
  /** The parameter concerned, by name. */
  parameter?: string;
  /** A JSON Patch (RFC 6902) that would fix it, where there is one. */
  fix?: PatchOperation[];
}

/**
 * One operation of a JSON Patch (RFC 6902). `before` is ours, as the standard allows: the key of the same map in front of
 * which a key is put, since the order of pages, parameters and fields means something to people. Last when left out.
 */
export type PatchOperation =
  | { op: 'add'; path: string; value: unknown; before?: string | undefined }
  | { op: 'replace' | 'test'; path: string; value: unknown }
  | { op: 'remove'; path: string }
  | { op: 'move' | 'copy'; from: string; path: string; before?: string | undefined };

/** An error that a caller made; it carries what was wrong, so that a surface can say it. */
export class ProblemError extends PallmistError {
  readonly code = 'problems';
  readonly problems: readonly Problem[];

  constructor(problems: readonly Problem[]) {
    super(problems.map((problem) => problem.message).join(' '));
    this.problems = problems;
  }
}

/** Writes a path of keys as a JSON Pointer (RFC 6901). */
export function toPointer(path: readonly (string | number)[]): string {
  return path.map((key) => '/' + String(key).replaceAll('~', '~0').replaceAll('/', '~1')).join('');
}

/** Splits a JSON Pointer (RFC 6901) into its keys. */
export function fromPointer(pointer: string): string[] {
  if (pointer === '') return [];
  return pointer
    .slice(1)
    .split('/')
    .map((key) => key.replaceAll('~1', '/').replaceAll('~0', '~'));
}

/** A stranger's text, made short enough to be quoted in a sentence: at most `length` characters. */
export function quote(text: unknown, length = 40): string {
  const plain = typeof text === 'string' ? text : text === undefined ? 'nothing' : JSON.stringify(text);
  const points = [...plain.slice(0, length * 2 + 2)];
  return points.length > length ? `“${points.slice(0, length).join('')}…”` : `“${plain}”`;
}

/** A word with its article: “an integer”. */
export const withArticle = (word: string): string => `${/^[aeiou]/i.test(word) ? 'an' : 'a'} ${word}`;
