import { toPointer } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import { report } from '../../definition/check/context.ts';
import { fixKey } from '../../definition/check/fix-name.ts';
import type { ComponentPlace } from '../kind.ts';

/** Each choice has a pane, each pane is of a choice, and one of them is open at first. */
export function checkPanes(
  { bind, panes }: { bind: string; panes: Record<string, unknown> },
  { context, at, page }: ComponentPlace,
  pane: 'tab' | 'view',
): void {
  const declaration = page.parameters?.[bind] ?? context.definition.parameters?.[bind];
  const choices = Object.keys(context.definition.choices?.[declaration?.of ?? ''] ?? {});
  for (const choice of choices) {
    if (Object.hasOwn(panes, choice)) continue;
    report(context, [...at, 'panes'], {
      code: 'choice-without-view',
      message: `The choice “${choice}” has no pane.`,
      hint: `Add “${choice}” under panes.`,
      fix: [{ op: 'add', path: toPointer([...at, 'panes', choice]), value: [] }],
    });
  }
  for (const name of Object.keys(panes)) {
    if (choices.length === 0 || choices.includes(name)) continue;
    const free = choices.filter((choice) => !Object.hasOwn(panes, choice));
    report(context, [...at, 'panes', name], {
      code: 'view-without-choice',
      message: `The pane “${name}” belongs to no choice.`,
      hint: suggest(name, choices),
      ...fixKey([...at, 'panes'], name, free),
    });
  }
  if (declaration?.default === undefined && declaration !== undefined)
    report(context, [...at, 'bind'], {
      code: 'tabs-without-default',
      severity: 'warning',
      message: `“${bind}” has no default, so no ${pane} is open at first.`,
      hint: 'Give the parameter a default.',
    });
}
