import { pageTitle } from '../../editing/describe-place.ts';
import type { AppDefinition } from '../../definition/app-definition.ts';
import { shortMark } from '../../short-mark.ts';
import type { PrintedAddress } from './addresses-in-use.ts';
import { promiseOf } from './promise-marks.ts';
import type { Found, PromisedPage } from './promised-page.ts';
import type { DifferenceKind, Fate } from './judge.ts';

/** Something that addresses of earlier editions would no longer mean, in the words of a builder. */
export interface Finding {
  /** Stays the same while neither the earlier declaration nor the effect changes. */
  id: string;
  fate: Fate;
  kind: DifferenceKind;
  /** The page by its earlier name. */
  page: string;
  /** The parameter by its earlier name, or by today’s where it is new. */
  parameter?: string;
  words: string;
  /** Editions in which the address was valid. */
  editions: readonly number[];
  /** An address that shows it. */
  witness: string;
  /** Printed addresses that it concerns: such a finding can only be repaired. */
  printed: readonly PrintedAddress[];
  /** Codes of the short addresses that it concerns. */
  short: readonly string[];
  /** What is given up by agreeing to it: one mark for each version of the page. */
  promises: readonly string[];
}

/** The order in which findings are told: first what nobody would notice. */
export const fates: readonly Fate[] = ['silent', 'gone', 'refused', 'noted'];

/** Fates that need a repair, or the consent of a builder. */
export const needsConsent = (fate: Fate): boolean => fate !== 'noted';

/** What was found in several versions of a page is told once. @param withdrawn promises that were given up before */
export function findingsOf(found: readonly Found[], definition: AppDefinition, withdrawn: ReadonlySet<string> = new Set()): Finding[] {
  const byWhat = new Map<string, { found: Found; versions: PromisedPage[]; promises: string[] }>();
  for (const one of found) {
    const promise = promiseOf(one);
    if (withdrawn.has(promise)) continue;
    const what = JSON.stringify([
      one.kind === 'app-moved' ? one.version.app.mount : one.version.page,
      one.fate,
      one.kind,
      one.parameter,
      one.page,
    ]);
    const known = byWhat.get(what);
    if (known === undefined) byWhat.set(what, { found: one, versions: [one.version], promises: [promise] });
    else {
      known.versions.push(one.version);
      known.promises.push(promise);
    }
  }
  const findings = [...byWhat.values()].map(({ found: first, versions, promises }): Finding => {
    const { fate, kind, parameter, witness, version } = first;
    return {
      id: shortMark(promises.toSorted().join(' ')).slice(0, 10),
      fate,
      kind,
      page: version.page,
      ...(parameter === undefined ? {} : { parameter }),
      words: say(first, definition),
      editions: versions.length === 1 ? version.editions : inOrder(versions.flatMap(({ editions }) => editions)),
      witness,
      promises,
      printed: [],
      short: [],
    };
  });
  return findings.sort((one, other) => fates.indexOf(one.fate) - fates.indexOf(other.fate));
}

function say({ kind, fate, parameter = '', before, after, page, reason = '', version, witness }: Found, definition: AppDefinition): string {
  const given = before === undefined ? `“${parameter}”` : `“${parameter}=${short(before)}”`;
  const title = (name: string) => `“${pageTitle(definition.pages[name]?.title ?? name, name)}”`;
  const meant = (text: string | undefined) => (text === undefined ? 'nothing' : text === '' ? 'the empty text' : `“${short(text)}”`);
  const path = witness.replace(/[?#].*$/s, '') || '/';
  switch (kind) {
    case 'app-moved':
      return `Addresses at ${version.app.mount} lead nowhere: the app moved to ${definition.mount}.`;
    case 'no-page':
      return `${path} leads nowhere. It opened the page “${version.page}”.`;
    case 'other-page':
      return `${path} opens ${title(page ?? '')}. It opened the page “${version.page}”.`;
    case 'missing-value':
      return `The page “${version.page}” now needs a value for “${parameter}”, which earlier addresses do not have.`;
    case 'value-refused':
      return fate === 'refused'
        ? `The page “${version.page}” now refuses ${given}. ${reason}`
        : `The page “${version.page}” now opens without ${given} and tells visitors why. ${reason}`;
    case 'value-ignored':
      return `The page “${version.page}” no longer takes “${parameter}”, so it ignores ${given}.`;
    case 'other-value':
      return `On the page “${version.page}”, ${given} now means ${meant(after)}.`;
    case 'other-default':
      return `An address of the page “${version.page}” without “${parameter}” meant ${meant(before)} and now means ${meant(after)}.`;
    case 'other-records':
      return `On the page “${version.page}”, ${given} now names a record of another collection, or by another field.`;
    case 'leads-elsewhere':
      return `The page “${version.page}” now leads on to another address.`;
    case 'tied':
      return `On the page “${version.page}”, “${parameter}” must now belong to the value of “${after ?? ''}”; earlier addresses may name any record.`;
  }
}

const inOrder = (numbers: readonly number[]) => [...new Set(numbers)].sort((one, other) => one - other);

const short = (text: string) => (text.length > 60 ? `${text.slice(0, 59)}…` : text);
