import { toPointer, type PatchOperation, type ParameterDeclaration } from '@pallmist/address/declare';
import type { AppDefinition } from '../../../definition/app-definition.ts';
import type { Found } from '../promised-page.ts';

/** A change of the draft after which earlier addresses mean again what they meant. */
export interface Repair {
  /** `repair` keeps what the builder has changed; `put-back` takes the change back. */
  kind: 'repair' | 'put-back';
  words: string;
  patch: PatchOperation[];
  /** There is only one thing that it can mean: it may be applied without asking. */
  certain: boolean;
}

export const todaysPage = ({ version: { page } }: Found, { pages }: AppDefinition): string | undefined =>
  Object.hasOwn(pages, page) ? page : Object.keys(pages).find((name) => pages[name]?.formerNames?.includes(page));

/** Adds an item to a list, which is made where there is none. */
export const put = (list: readonly unknown[] | undefined, path: readonly (string | number)[], value: unknown): PatchOperation =>
  list === undefined ? { op: 'add', path: toPointer([...path]), value: [value] } : { op: 'add', path: toPointer([...path, '-']), value };

export interface Held {
  place: string[];
  name: string;
  now: ParameterDeclaration | undefined;
  then: ParameterDeclaration | undefined;
}

/** A parameter today and as it was, on its page or of the app. */
export function held(found: Found, today: AppDefinition): Held | undefined {
  const { version, parameter = '' } = found;
  const page = todaysPage(found, today);
  const ofApp = version.app.parameters?.[parameter];
  const declared =
    ofApp === undefined ? (page === undefined ? undefined : (today.pages[page]?.parameters ?? {})) : (today.parameters ?? {});
  if (declared === undefined) return undefined;
  const place = ofApp === undefined ? ['pages', page ?? '', 'parameters'] : ['parameters'];
  const then = ofApp ?? version.app.pages[version.page]?.parameters?.[parameter];
  const name = Object.hasOwn(declared, parameter)
    ? parameter
    : Object.keys(declared).find((one) => declared[one]?.formerNames?.includes(parameter));
  return { place, name: name ?? parameter, now: name === undefined ? undefined : declared[name], then };
}
