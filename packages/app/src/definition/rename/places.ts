import type { AppDefinition } from '../app-definition.ts';
import { walkContent } from '../../components/walk-content.ts';
import type { LinkDefinition } from '../app-definition.ts';

export type Place = (string | number)[];

export interface FoundText {
  place: Place;
  text: string;
}

/** Every text below a place. */
export function* textsIn(value: unknown, place: Place): Generator<FoundText> {
  if (typeof value === 'string') yield { place, text: value };
  else if (Array.isArray(value)) for (const [index, entry] of value.entries()) yield* textsIn(entry, [...place, index]);
  else if (typeof value === 'object' && value !== null)
    for (const [key, entry] of Object.entries(value)) yield* textsIn(entry, [...place, key]);
}

/** A link, or a form that leads to a page. */
export interface Way {
  place: Place;
  page: string;
  values?: LinkDefinition['values'] | undefined;
  boxes?: readonly string[];
}

/** Every link and every form of an app, and where it stands. */
export function waysIn(definition: AppDefinition): Way[] {
  const ways: Way[] = [];
  for (const [name, page] of Object.entries(definition.pages)) {
    for (const { path, references } of walkContent(page.content)) {
      for (const { path: below, link } of references.links) ways.push({ place: ['pages', name, ...path, ...below], ...link });
      for (const way of references.ways) ways.push({ place: ['pages', name, ...path], ...way });
    }
  }
  for (const [index, entry] of (definition.navigation ?? []).entries()) ways.push({ place: ['navigation', index, 'to'], ...entry.to });
  for (const [index, { to }] of (definition.footer?.links ?? []).entries()) ways.push({ place: ['footer', 'links', index, 'to'], ...to });
  for (const [index, { to }] of (definition.gone ?? []).entries()) if (to) ways.push({ place: ['gone', index, 'to'], ...to });
  for (const key of ['afterSignIn', 'afterSignOut'] as const) {
    const link = definition.signIn?.[key];
    if (link) ways.push({ place: ['signIn', key], ...link });
  }
  const welcome = definition.signIn?.newcomers?.afterSignUp;
  if (welcome) ways.push({ place: ['signIn', 'newcomers', 'afterSignUp'], ...welcome });
  for (const [mail, { links = {} }] of Object.entries(definition.mails ?? {})) {
    for (const [name, { to }] of Object.entries(links)) ways.push({ place: ['mails', mail, 'links', name, 'to'], ...to });
  }
  return ways;
}

/** Whether a text at a place may hold expressions: a condition is one, any other text holds them in braces. */
export const mayHoldExpressions = ({ place, text }: FoundText): boolean => place.at(-1) === 'when' || text.includes('{');
