import type { select } from './definition.ts';
import { display } from '../../expressions/evaluator.ts';
import type { KeepingForm } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { optionsOf } from '../shared/options.ts';

export interface SelectNode {
  show: 'select';
  name: string;
  label: string;
  value: string;
  options: { value: string; text: string }[];
  form: KeepingForm;
}

export function show(component: ComponentOf<typeof select>, context: ViewContext): SelectNode {
  const declaration = context.declaration(component.bind);
  const options = optionsOf(declaration, context);
  const present = context.values[component.bind];
  const value = typeof present === 'boolean' ? String(present) : display(present);
  // A value that the list does not hold is still what the address says.
  if (value !== '' && !options.some((option) => option.value === value)) options.unshift({ value, text: value });
  if (declaration?.default === undefined && declaration?.required !== true)
    options.unshift({ value: '', text: context.text(component.anyLabel, context.say('Any')) });
  return {
    show: 'select',
    name: component.bind,
    label: context.text(component.label),
    value,
    options,
    form: context.keepingForm(component.bind),
  };
}
