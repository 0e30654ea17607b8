import type { search } from './definition.ts';
import { display } from '../../expressions/evaluator.ts';
import type { KeepingForm } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface SearchNode {
  show: 'search';
  name: string;
  label: string;
  hint: string;
  value: string;
  form: KeepingForm;
  /** Longest text that the parameter accepts. */
  maxLength: number;
}

export function show(component: ComponentOf<typeof search>, context: ViewContext): SearchNode {
  return {
    show: 'search',
    name: component.bind,
    label: context.text(component.label),
    hint: context.text(component.placeholder),
    value: display(context.values[component.bind]),
    form: context.keepingForm(component.bind),
    maxLength: context.declaration(component.bind)?.maxLength ?? 2000,
  };
}
