import { RegExpParser, visitRegExpAST, type AST } from '@eslint-community/regexpp';
import { isDisjointWith, JS, NFA } from 'refa';
import { analyse } from 'scslre';

/**
 * Whether a pattern can take a time that is exponential in the text. Two ways lead there: repetitions within
 * repetitions that can share the text out among themselves, and a repeated choice that can read one text in two ways.
 */
export function isSlowPattern(pattern: string): boolean {
  const { reports } = analyse(new RegExp(`^(?:${pattern})$`, 'u'), { reportTypes: { Move: false } });
  return reports.some(({ exponential }) => exponential) || repeatedChoices(pattern).some(isAmbiguous);
}

/** The choices of the pattern that are repeated without bound, each as the texts of its alternatives. */
function repeatedChoices(pattern: string): string[][] {
  const found: string[][] = [];
  const visit = (quantifier: AST.Quantifier) => {
    const { element, max } = quantifier;
    if (max !== Infinity || (element.type !== 'Group' && element.type !== 'CapturingGroup')) return;
    if (element.alternatives.length > 1) found.push(element.alternatives.map(({ raw }) => raw));
  };
  visitRegExpAST(new RegExpParser().parsePattern(pattern, 0, pattern.length, { unicode: true }), { onQuantifierEnter: visit });
  return found;
}

/** Whether two different alternatives, each followed by any others, can read the same text. */
function isAmbiguous(alternatives: readonly string[]): boolean {
  const all = `(?:${alternatives.join('|')})*`;
  const automata = alternatives.map((alternative) => automaton(`(?:${alternative})${all}`));
  return automata.some((first, index) => automata.slice(index + 1).some((second) => !isDisjointWith(first, second)));
}

function automaton(source: string): NFA {
  const { expression, maxCharacter } = JS.Parser.fromLiteral({ source, flags: 'u' }).parse({
    assertions: 'disable',
    backreferences: 'disable',
  });
  return NFA.fromRegex(expression, { maxCharacter });
}
