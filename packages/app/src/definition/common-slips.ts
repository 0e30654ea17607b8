import { own } from '../own.ts';
/** Words of other languages and formats that people write where the app file has another. */
const otherWords: Readonly<Record<string, string>> = {
  string: 'text',
  str: 'text',
  varchar: 'text',
  int: 'integer',
  float: 'number',
  double: 'number',
  decimal: 'number',
  bool: 'boolean',
  checkbox: 'boolean',
  timestamp: 'datetime',
  time: 'datetime',
  enum: 'choice',
  option: 'choice',
  reference: 'record',
  relation: 'record',
  array: 'list',
  json: 'packed',
  object: 'packed',
  color: 'colour',
  dropdown: 'select',
  paragraph: 'text',
  title: 'heading',
  button: 'link',
  anchor: 'link',
  img: 'image',
  grid: 'table',
  pagination: 'pager',
  modal: 'dialog',
};

/** The word of the app file for one of another language, if it may stand there. */
export function wordFor(given: string, possible: readonly string[]): string | undefined {
  const word = own(otherWords, given.toLowerCase());
  return word !== undefined && possible.includes(word) ? word : undefined;
}

/** Syntax of other languages that CEL does not have, each with what to write instead. The first match counts. */
const slips: readonly (readonly [RegExp, string])[] = [
  [/=>/, 'There are no functions of your own; lists have “filter”, “map”, “exists” and “all”.'],
  [/[!=]==/, 'Compare with “==” and “!=”.'],
  [/(?<![=!<>])=(?![=>])/, 'Compare with “==”; a single “=” means nothing here.'],
  [/<>/, 'Write “!=” for “is not”.'],
  [/\s(?:and|AND)\s/, 'Write “&&” for “and”.'],
  [/\s(?:or|OR)\s/, 'Write “||” for “or”.'],
  [/(?:^|[\s(])(?:not|NOT)\s/, 'Write “!” for “not”.'],
  [/(?<!&)&(?!&)/, 'Write “&&” for “and”.'],
  [/(?<!\|)\|(?!\|)/, 'Write “||” for “or”; there are no filters with “|”.'],
  [/`/, 'Write texts in quotes, and put them together with “+”.'],
  [/\.length\b/, 'Write “size(…)” for the length of a text or a list.'],
  [/\.(?:includes|indexOf)\(/, 'Write “x in list” for lists, “text.contains(…)” for texts.'],
  [/(?:^|[^\w.])if\s*\(/, 'Write “condition ? this : that”.'],
  [/\.in\(/, 'Write “value in list”.'],
  [/\.toUpperCase\(/, 'Write “text.upperAscii()”.'],
  [/\.toLowerCase\(/, 'Write “text.lowerAscii()”.'],
  [/\.(?:toString|toFixed)\(/, 'Write “string(…)”, or “formatNumber(…, digits)”.'],
  [/\bMath\./, 'The functions of “math” have small letters: “math.round(…)”.'],
  [/\?\.(?!\?)(?=[A-Za-z])/, 'Write the question mark after the dot: “param.?q.orValue(…)”.'],
  [/\?\?/, 'Write “param.?q.orValue(…)” for a value in place of an absent one.'],
  [/\{\{/, 'Write one brace, not two.'],
];

/** What to write instead, where an expression is written as in another language. */
export function slipIn(expression: string): string | undefined {
  // What stands in quotes is a text.
  const code = expression.replaceAll(/'(?:[^'\\]|\\.)*'|"(?:[^"\\]|\\.)*"/g, "''");
  return slips.find(([pattern]) => pattern.test(code))?.[1];
}

/** What the messages of the CEL engine mean, each with what to do. */
const celSlips: readonly (readonly [RegExp, string])[] = [
  [/overload: (?:string \+ (?:int|double|bool)|(?:int|double|bool) \+ string)/, 'Make a text of the other value first: string(…).'],
  [/overload: (?:int . double|double . int)/, 'Make both of one kind first: double(…) or int(…).'],
  [/no matching overload for '([\w.]+)\(/, 'There is no such function for these values. See the functions in the guide “Expressions”.'],
];

/** What to do about what the CEL engine says. */
export const celHint = (message: string): string | undefined => celSlips.find(([pattern]) => pattern.test(message))?.[1];

/** Operators of other languages, and what conditions of reads have instead. */
const otherOperators: Readonly<Record<string, string>> = {
  greaterThan: 'moreThan',
  gt: 'moreThan',
  over: 'moreThan',
  lt: 'lessThan',
  under: 'lessThan',
  gte: 'atLeast',
  min: 'atLeast',
  lte: 'atMost',
  max: 'atMost',
  is: 'equals',
  eq: 'equals',
  value: 'equals',
  in: 'oneOf',
  anyOf: 'oneOf',
  between: 'within',
  like: 'contains',
  includes: 'contains',
  isNull: 'empty',
};

/** The operator of a condition that another word probably means. */
export const operatorFor = (word: string): string | undefined =>
  Object.hasOwn(otherOperators, word) ? own(otherOperators, word) : undefined;

/** What the messages of the YAML parser mean for what was typed. */
const yamlSlips: readonly (readonly [RegExp, string])[] = [
  [/same column/, 'This key does not begin in the same column as the keys beside it. Move it there.'],
  [/Tabs are not allowed/i, 'A tab stands at the beginning of a line. Use spaces.'],
  [/Map keys must be unique/, 'The same key stands here twice. Remove or rename one.'],
  [
    /Unexpected scalar at node end/,
    "A text goes on behind its closing quote. Within single quotes write two of them (it''s), or put double quotes around the text.",
  ],
  [/Missing closing .*quote/i, 'A text that begins with a quotation mark has no end. Close it.'],
  [
    /Flow (?:map|sequence).*(?:expected|must end|end with)|Expected flow/i,
    'A brace or bracket is not closed. Close it, or look for a comma that is missing.',
  ],
  [
    /Nested mappings|Implicit (?:map )?keys|Block collections are not allowed/,
    'A text with “: ” in it needs quotes around it, and the keys of one map begin in the same column.',
  ],
  [/plain (?:value|scalar)|reserved character|cannot start with/i, 'A text that begins with such a sign needs quotes around it.'],
];

/** What to do about a text that is no YAML. */
export const yamlHint = (message: string): string | undefined => yamlSlips.find(([pattern]) => pattern.test(message))?.[1];
