import { joinItems } from '../joins.ts';
import { locatePath, locateQuery, nameOf } from '../locate.ts';
import type { Page, PageValues } from '../page.ts';
import type { Parameter } from '../parameter.ts';
import type { AddressProblem } from '../problem.ts';
import { address, longestAddress, queryEnd, scan } from '../scan.ts';
import { settle, type Origin } from '../settle.ts';
import type { Slot, Template } from '../template.ts';
import { nextTurn } from '../turn.ts';
import { decodeForShow } from '../percent.ts';
import { nearest } from './near.ts';

/** How one declared parameter stands in an address. */
export interface ParameterExplanation {
  name: string;
  place: 'path' | 'query';
  /** The text as it stands in the address, undecoded; missing when the address does not have it. */
  text?: string;
  /** Missing when there is none. */
  value?: unknown;
  origin: Origin;
  /** The value was understood although it, or its name, is written otherwise than `write` would. */
  corrected: boolean;
  problem?: AddressProblem;
  /** Of a list, the first item that is wrong, undecoded. */
  wrong?: string;
  /** A value that was probably meant by one that was refused. */
  suggestion?: string;
}

/** Everything that an address says of a page. */
export interface Explanation<Values = Record<string, unknown>> {
  status: 'found' | 'refused' | 'elsewhere' | 'malformed';
  values: Partial<Values>;
  /** In the order in which an address has them. */
  parameters: ParameterExplanation[];
  problems: AddressProblem[];
  /** Query parameters that the page does not declare, undecoded, at most 100. */
  undeclared: { name: string; text: string }[];
  /** The address was right in the past: it is to be replaced for good by today's. */
  former: boolean;
  /** What follows `#`, undecoded; missing when there is no `#`. */
  fragment?: string;
}

/** Most undeclared parameters that are told of. */
export const mostUndeclared = 100;

/** As `read`, and where each value comes from, what was corrected, and what was probably meant. */
export function explain<P extends Page<string, unknown>>(page: P, given: string): Explanation<PageValues<P>> {
  nextTurn();
  if (!scan(given)) return nothing('malformed', given.length > longestAddress ? 'address-too-long' : 'not-an-address');
  if (!locatePath(page)) return nothing('elsewhere', 'unknown-page');
  const undeclared: Explanation['undeclared'] = [];
  locateQuery(page, (start, from, to) => {
    if (undeclared.length < mostUndeclared) undeclared.push({ name: nameOf(start, from), text: address.slice(from, to) });
  });
  return { ...explainLocated(page), undeclared } as Explanation<PageValues<P>>;
}

/** Explains the texts that were taken for the slots of a page. */
export function explainLocated(page: Template): Explanation {
  const parameters: ParameterExplanation[] = [];
  const settled = settle(page, (slot, value, settledOrigin, corrected, problem) => {
    const text = hasText(settledOrigin, problem) ? textOf(slot) : undefined;
    const origin = settledOrigin === 'given' && text === '' ? 'blank' : settledOrigin;
    const entry: ParameterExplanation = { name: slot.name, place: slot.inPath ? 'path' : 'query', origin, corrected };
    if (text !== undefined) entry.text = text;
    if (value !== undefined) entry.value = value;
    if (problem !== undefined) entry.problem = problem;
    const wrong = problem === undefined || text === undefined ? undefined : wrongItem(slot, text);
    if (wrong !== undefined) entry.wrong = wrong;
    if (problem?.code === 'unknown-choice' && text !== undefined) {
      const near = nearest(decodeForShow(wrong ?? text), problem.data as string[]);
      if (near !== undefined) entry.suggestion = near;
    }
    parameters.push(entry);
  });
  const explanation: Explanation = {
    ...settled,
    parameters,
    problems: [...settled.problems],
    undeclared: [],
  };
  if (queryEnd < address.length) explanation.fragment = address.slice(queryEnd + 1);
  return explanation;
}

/** The text that stands in the address for a slot; several with the parameter's name between them. */
const textOf = ({ odd, from, to }: Slot): string => odd?.raw ?? address.slice(from, to);

function wrongItem({ name, parameter }: Slot, text: string): string | undefined {
  if (parameter.joins !== joinItems) return undefined;
  const { read } = parameter.type === 'list' ? (parameter.of as Parameter) : parameter;
  const items = text.split(`&${name}=`).flatMap((several) => several.split(','));
  return items.find((item) => item !== '' && read(item, 0, item.length) === undefined);
}

/** Whether the address has a text for a parameter. */
const hasText = (origin: Origin, problem: AddressProblem | undefined): boolean =>
  problem === undefined ? origin === 'given' || origin === 'blank' : problem.code !== 'missing' || origin === 'blank';

const nothing = <Values>(status: 'elsewhere' | 'malformed', code: string): Explanation<Values> => ({
  status,
  values: {},
  parameters: [],
  problems: [{ code, severity: 'error' }],
  undeclared: [],
  former: false,
});
