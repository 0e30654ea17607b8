import type { ParameterDeclaration } from '@pallmist/address/declare';
import type { AppDefinition } from '../../definition/app-definition.ts';
import { pageTitle } from '../../editing/describe-place.ts';
import { describeChanges } from '../describe-changes.ts';

/** A change after which an address means the same, and yet is not as it was. */
export interface SecondClassChange {
  group: 'who-may-see' | 'how-it-looks';
  words: string;
}

/** Attributes that say how a value acts and travels, not what it is. */
const ofActing = ['once', 'reach', 'share', 'step', 'label'] as const;
const ofLook = new Set(['/title', '/navigation', '/look', '/footer']);

/** What differs for visitors of addresses that mean the same: first who may see them, then how they look. */
export function secondClassChanges(before: AppDefinition, after: AppDefinition): SecondClassChange[] {
  const changes = describeChanges(before, after);
  const said = (group: SecondClassChange['group'], words: string): SecondClassChange => ({ group, words });
  return [
    ...changes.filter(({ about }) => about === 'people').map(({ words }) => said('who-may-see', words)),
    ...changes
      .filter(({ kind, about, pointer }) => (about === 'page' && kind === 'changed') || (about === 'app' && ofLook.has(pointer)))
      .map(({ words }) => said('how-it-looks', words)),
    ...[...acting(before, after)].map((words) => said('how-it-looks', words)),
  ];
}

function* acting(before: AppDefinition, after: AppDefinition): Generator<string> {
  yield* differing(before.parameters, after.parameters, 'the app');
  for (const [name, page] of Object.entries(after.pages)) {
    const former = before.pages[name] ?? page.formerNames?.map((one) => before.pages[one]).find((one) => one !== undefined);
    yield* differing(former?.parameters, page.parameters, `“${pageTitle(page.title, name)}”`);
  }
}

type Parameters = Readonly<Record<string, ParameterDeclaration>>;

function* differing(before: Parameters = {}, after: Parameters = {}, where: string): Generator<string> {
  for (const [name, is] of Object.entries(after)) {
    const was = before[name];
    const changed = was === undefined ? [] : ofActing.filter((attribute) => was[attribute] !== is[attribute]);
    if (changed.length > 0) yield `“${name}” of ${where} changes its ${changed.map((attribute) => `“${attribute}”`).join(' and ')}.`;
  }
}
