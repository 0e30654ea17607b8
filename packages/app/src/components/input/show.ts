import type { input } from './definition.ts';
import type { Range } from '@pallmist/address';
import { display } from '../../expressions/evaluator.ts';
import type { KeepingForm, BoxLimits } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { limitsOf } from '../shared/box-limits.ts';

/** One box. */
export interface BoxNode extends BoxLimits {
  show: 'input';
  of: 'value';
  name: string;
  label: string;
  value: string;
  form: KeepingForm;
}

/** A range: two boxes of one name. */
export interface RangeNode extends BoxLimits {
  show: 'input';
  of: 'range';
  name: string;
  label: string;
  from: string;
  to: string;
  form: KeepingForm;
}

/** A list: a box for each item, and one more while it may grow. */
export interface BoxesNode extends BoxLimits {
  show: 'input';
  of: 'list';
  name: string;
  label: string;
  values: string[];
  grows: boolean;
  form: KeepingForm;
}

/** A list that says no number of items gets no more boxes than this. */
const mostBoxes = 50;

export function show(component: ComponentOf<typeof input>, context: ViewContext): BoxNode | RangeNode | BoxesNode {
  const { bind } = component;
  const declaration = context.declaration(bind);
  const value = context.values[bind];
  const common = { name: bind, label: context.text(component.label), form: context.keepingForm(bind) };
  if (declaration?.type === 'range') {
    const { from, to } = (value ?? {}) as Range;
    return { ...common, ...limitsOf(declaration, declaration.of), show: 'input', of: 'range', from: display(from), to: display(to) };
  }
  if (declaration?.type === 'list') {
    const values = Array.isArray(value) ? value.map(display) : [];
    const grows = values.length < (declaration.maxItems ?? mostBoxes);
    return { ...common, ...limitsOf(declaration.items ?? {}, declaration.items?.type), show: 'input', of: 'list', values, grows };
  }
  return { ...common, ...limitsOf(declaration ?? {}, declaration?.type), show: 'input', of: 'value', value: display(value) };
}
