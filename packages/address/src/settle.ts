import { beginValue, correction, refusalCode, refusalData, refuse, sift } from './outcome.ts';
import { noProblems, type AddressProblem } from './problem.ts';
import { address } from './scan.ts';
import type { Slot, Template } from './template.ts';
import { turn } from './turn.ts';

/** Told of each parameter: its value, how it came about, and what was wrong. */
export type Note = (slot: Slot, value: unknown, origin: Origin, corrected: boolean, problem: AddressProblem | undefined) => void;

/** How a value came about. */
export type Origin = 'given' | 'default' | 'blank' | 'absent';

/** What settling the slots came to. */
export interface Settled {
  status: 'found' | 'refused';
  values: Record<string, unknown>;
  problems: readonly AddressProblem[];
  /** The address was right in the past: it is to be replaced for good by today's. */
  former: boolean;
}

/** What the settling at hand has come to. */
let problems = noProblems;
let status: Settled['status'];

/** Turns the texts that were taken into values, in the order in which an address has them. */
export function settle({ slots, absent }: Template, note: Note | undefined): Settled {
  const values: Record<string, unknown> = { ...absent };
  problems = noProblems;
  status = 'found';
  let former = false;
  for (let index = 0; index < slots.length; index++) {
    const slot = slots[index] as Slot;
    const { name } = slot;
    let problem: AddressProblem | undefined;
    let origin: Origin = 'absent';
    if (slot.turn === turn) {
      beginValue();
      let value = readTaken(slot);
      if (value === undefined) {
        if (refusalCode === '') origin = 'blank';
        else {
          problem = complain(slot, refusalCode, slot.refuses, refusalData);
          if (!slot.refuses) {
            // Of a list, the items that are right stay.
            sift(true);
            value = readTaken(slot);
            sift(false);
          }
        }
      }
      if (value !== undefined) {
        values[name] = value;
        const renamed = slot.odd?.renamed === true;
        former ||= renamed || correction === 2;
        note?.(slot, value, 'given', renamed || correction !== 0, problem);
        continue;
      }
    }
    if (problem !== undefined && slot.refuses) values[name] = undefined;
    else {
      if (slot.changing !== undefined) values[name] = slot.changing();
      if (slot.required && values[name] === undefined) {
        const missing = complain(slot, 'missing', true);
        problem ??= missing;
      }
    }
    const value = values[name];
    note?.(slot, value, value !== undefined && origin === 'absent' ? 'default' : origin, origin === 'blank', problem);
  }
  return { status, values, problems, former };
}

function complain({ name }: Slot, code: string, refuses: boolean, data?: unknown): AddressProblem {
  const problem: AddressProblem = { code, severity: refuses ? 'error' : 'warning', parameter: name, data };
  problems = [...problems, problem];
  if (refuses) status = 'refused';
  return problem;
}

const readTaken = (slot: Slot): unknown =>
  slot.odd === undefined && slot.from !== slot.to ? slot.read(address, slot.from, slot.to) : readOdd(slot);

/** Reads an empty text, or an unusual one. @returns undefined with an empty code where there is no value */
function readOdd(slot: Slot): unknown {
  const { name, parameter, repeated, odd } = slot;
  let source = odd?.source ?? address.slice(slot.from, slot.to);
  if (odd?.several !== undefined) {
    const { several } = odd;
    odd.raw = several.join(`&${name}=`);
    // A form sends every box, those that were left empty too.
    if (several.every((text) => text === '')) source = odd.raw = '';
    else if (parameter.joins) source = parameter.joins.together(several, repeated);
    else return refuse('repeated');
  }
  return source === '' && !parameter.blank ? refuse('') : slot.read(source, 0, source.length);
}
