import type { input } from './definition.ts';
import type { Range } from '@pallmist/address';
import type { Values } from '@pallmist/address/declare';
import { display } from '../../expressions/evaluator.ts';
import type { KeepingForm, BoxLimits } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { boxText } from '../shared/box-text.ts';
import { numberSetting } from '../shared/setting.ts';
import { limitsOf } from '../shared/box-limits.ts';

/** One box. */
export interface BoxNode extends BoxLimits {
  show: 'input';
  of: 'value';
  name: string;
  label: string;
  value: string;
  /** How many lines the box has, where it has several. */
  lines?: number;
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
  const { timeZone } = context.payload.app;
  const common = { name: bind, label: context.text(component.label), form: context.keepingForm(bind) };
  if (declaration?.type === 'range') {
    const { from, to } = (value ?? {}) as Range;
    return { ...common, ...limitsOf(declaration, declaration.of), show: 'input', of: 'range', from: display(from), to: display(to) };
  }
  if (declaration?.type === 'list') {
    const values = Array.isArray(value) ? (value as Values[string][]).map((item) => boxText(declaration.items?.type, item, timeZone)) : [];
    const type = declaration.items?.type;
    const grows = values.length < (declaration.maxItems ?? mostBoxes);
    return { ...common, ...limitsOf(declaration.items ?? {}, type, timeZone), show: 'input', of: 'list', values, grows };
  }
  const { type } = declaration ?? {};
  const box = { ...common, ...limitsOf(declaration ?? {}, type, timeZone), show: 'input' as const, of: 'value' as const };
  const lines = numberSetting(component.lines, 1, 40, context.evaluator) ?? (type === 'packed' ? 6 : 1);
  return {
    ...box,
    // Where it is empty, a browser's own box for colours would show, and send, black.
    ...(type === 'colour' && value !== undefined ? { kind: 'color' } : {}),
    value: boxText(type, value, timeZone),
    ...(lines > 1 && (type === 'text' || type === 'packed') ? { lines } : {}),
  };
}
