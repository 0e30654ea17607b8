import { AllWays } from './all-ways.ts';
import { isUnambiguous } from './unambiguous.ts';
import { parsePattern } from './parse-pattern.ts';
import { compileNode } from './pattern-program.ts';

export { PatternNotLinear } from './parse-pattern.ts';

/** A regular expression that takes a time linear in the text, whatever text it is. */
export interface LinearPattern {
  test(text: string): boolean;
}

const kept = new Map<string, LinearPattern>();
const mostKept = 1000;

/**
 * Compiles a pattern so that it has to match the whole text, as HTML's `pattern` attribute does, in linear time: by the
 * platform's own matcher where no text can lead that astray, else by following all ways at once (Thompson's construction).
 * @param source ECMA-262, flag u
 * @throws SyntaxError for what is no regular expression, PatternNotLinear for what cannot be matched so
 */
export function linearPattern(source: string): LinearPattern {
  let pattern = kept.get(source);
  if (pattern === undefined) {
    if (kept.size >= mostKept) kept.clear();
    kept.set(source, (pattern = compile(source)));
  }
  return pattern;
}

/** The same for a pattern that may match any part of the text. */
export const linearSearch = (source: string): LinearPattern => {
  new RegExp(source, 'u');
  return linearPattern(`[^]*(?:${source})[^]*`);
};

function compile(source: string): LinearPattern {
  const native = new RegExp(`^(?:${source})$`, 'u');
  const program = compileNode(parsePattern(source));
  return isUnambiguous(program) ? native : new AllWays(program);
}
