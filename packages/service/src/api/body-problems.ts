import { own, quote, toPointer, type Problem } from '@pallmist/app';
import type { Issue } from '@pallmist/api';
import type { z } from 'zod';

/** What is wrong with a body, in our words, each with its place as a JSON Pointer. */
export function bodyProblems(issues: readonly Issue[]): Problem[] {
  return issues.map((issue): Problem => {
    const pointer = toPointer(issue.path.map((key) => (typeof key === 'symbol' ? String(key) : key)));
    return {
      code: 'bad-body',
      severity: 'error',
      message: `${pointer === '' ? 'The body' : pointer}: ${sentenceOf(issue as z.core.$ZodIssue)}`,
      pointer,
    };
  });
}

const kinds: Readonly<Record<string, string>> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
  null: 'null',
};
const kindOf = (name: string): string => own(kinds, name) ?? name;

/** How much of something there may be: characters of a text, items of a list, the number itself. */
function amount(origin: string, limit: number | bigint): string {
  if (origin === 'string') return `${String(limit)} characters`;
  return origin === 'array' || origin === 'set' ? `${String(limit)} items` : String(limit);
}

function sentenceOf(issue: z.core.$ZodIssue): string {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined ? `it is missing, or not ${kindOf(issue.expected)}.` : `it has to be ${kindOf(issue.expected)}.`;
    case 'unrecognized_keys':
      return `there is no ${issue.keys.map((key) => quote(key, 60)).join(', ')} here.`;
    case 'invalid_value':
      return `it has to be ${issue.values.map((value) => JSON.stringify(value)).join(' or ')}.`;
    case 'too_small':
      return `it has to be at least ${amount(issue.origin, issue.minimum)}.`;
    case 'too_big':
      return `it has to be at most ${amount(issue.origin, issue.maximum)}.`;
    case 'invalid_format':
      return issue.format === 'email' ? 'it has to be a mail address.' : 'it is not of the form that is wanted.';
    case 'invalid_union':
      return 'it is none of the forms that are possible here; see openapi.json.';
    default:
      return 'it is not what is wanted here; see openapi.json.';
  }
}
