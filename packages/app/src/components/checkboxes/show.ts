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
  form: KeepingForm;
}

export function show(component: ComponentOf<typeof checkboxes>, context: ViewContext): CheckboxesNode {
  const chosen = (context.values[component.bind] ?? []) as unknown[];
  return {
    show: 'checkboxes',
    name: component.bind,
    label: context.text(component.label),
    options: optionsOf(context.declaration(component.bind)?.items, context).map((option) => ({
      ...option,
      chosen: chosen.includes(option.value),
    })),
    hasDefault: context.declaration(component.bind)?.default !== undefined,
    form: context.keepingForm(component.bind),
  };
}
