/**
 * Patterns of what stands in the app file, for its JSON Schema: an editor points at a slip while you type. They are coarser
 * than the check, and never refuse what it takes. Each is an ECMA-262 regular expression (flag u) that takes linear time.
 */

/** A text of CEL. */
const quoted = String.raw`"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'`;
/** Words that other languages have, where CEL has signs. */
const noWords = String.raw`(?!(?<![\w.])(?:and|or|not|if)\b)`;
/** Any other sign, and operators: “=”, “&” and “|” stand in CEL only doubled, and “===” not at all. */
const signs = String.raw`[^{}"'${'`'}=&|<>!/]|/(?!/)|[<>!]=?(?!=)|==(?!=)|&&|\|\|`;
const comment = String.raw`//[^\n]*`;
const part = `${quoted}|${comment}|${noWords}(?:${signs})`;

/** Parts of an expression, with braces within to a depth that nobody reaches by hand. */
const parts = (depth: number): string => `(?:${part}${depth === 0 ? '' : String.raw`|\{${parts(depth - 1)}\}`})*`;
const depth = 3;

/** One CEL expression. */
export const expressionPattern = `^${parts(depth)}$`;

/** A text in which CEL stands in braces; “{{” is a brace itself. */
export const textPattern = String.raw`^(?:[^{]|\{\{|\{(?!\{)\s*(?!\})${parts(depth)}\})*$`;

const name = '[A-Za-z][A-Za-z0-9_-]{0,59}';
const segment = String.raw`/(?:\{${name}\}|(?!~|\.\.?(?:/|\{|$))[A-Za-z0-9\-._~]+)`;

/** An address template (the subset of RFC 6570 that the guide describes). */
export const templatePattern = String.raw`^(?!.*\{(${name})\}.*\{/?\1\})(?:/|(?:${segment})+(?:\{/${name}\})?|\{/${name}\})(?:\{\?${name}\*?(?:,${name}\*?)*\})?$`;
