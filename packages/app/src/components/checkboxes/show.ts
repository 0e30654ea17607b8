import type { checkboxes } from './definition.ts';
import type { KeepingForm } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { optionsOf } from '../shared/options.ts';

export interface CheckboxesNode {
  show: 'checkboxes';
  name: string;
  label: string;
  options: { value: string; text: string; chosen: boolean }[];
  /** None chosen is a choice of its own, since there is a default. */
  hasDefault: boolean;
  /** How many can be chosen, and what says so; left out where that is as many as there are. */
  limit?: { most: number; says: string };
  form: KeepingForm;
}

export function show(component: ComponentOf<typeof checkboxes>, context: ViewContext): CheckboxesNode {
  const chosen = (context.values[component.bind] ?? []) as unknown[];
  const declaration = context.declaration(component.bind);
  const options = optionsOf(declaration?.items, context);
  const most = declaration?.maxItems;
  return {
    show: 'checkboxes',
    name: component.bind,
    label: context.text(component.label),
    options: options.map((option) => ({
      ...option,
      chosen: chosen.includes(option.value),
    })),
    hasDefault: declaration?.default !== undefined,
    ...(most === undefined || most >= options.length ? {} : { limit: { most, says: context.say('Choose {0} at most.', most) } }),
    form: context.keepingForm(component.bind),
  };
}
