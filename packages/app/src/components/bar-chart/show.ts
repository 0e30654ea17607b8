import type { FieldDefinition } from '../../definition/app-definition.ts';
import type { ValueCount } from '../../view/page-payload.ts';
import type { ChangeAnchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { numberSetting } from '../shared/setting.ts';
import { emptyText } from '../shared/empty-text.ts';
import type { barChart } from './definition.ts';

interface Bar {
  text: string;
  count: number;
  /** Its length, of the longest: 0 to 1. */
  length: number;
  link?: ChangeAnchor;
  /** The parameter has its value. */
  current: boolean;
}

/** Rows counted by a field. */
export interface BarChartNode {
  show: 'bar-chart';
  id: string;
  label: string;
  bars: Bar[];
  /** The chart in words, for those who do not see it. */
  summary: string;
  empty: string;
}

const mostBars = 12;

export function show(component: ComponentOf<typeof barChart>, context: ViewContext): BarChartNode {
  const { rows, field, bind } = component;
  const most = numberSetting(component.most, 2, 40, context.evaluator) ?? mostBars;
  const { page, app, data } = context.payload;
  const read = data.rows[rows];
  const collection = app.collections?.[page.rows?.[rows]?.from ?? ''];
  const definition = collection?.fields[field];
  const counts = inOrder(read?.counts?.[field] ?? [], definition, context);
  const shown = counts.length > most ? counts.slice(0, most - 1) : counts;
  const rest = (read?.total ?? 0) - shown.reduce((sum, { count }) => sum + count, 0);
  const longest = Math.max(1, rest, ...shown.map(({ count }) => count));
  const bars = shown.map(({ value, count }): Bar => {
    const text = value === undefined ? context.say('None') : context.field(definition, value);
    const key = typeof value === 'object' ? value[app.collections?.[definition?.of ?? '']?.keyField ?? ''] : value;
    const bar = { text, count, length: count / longest };
    if (bind === undefined || key === undefined || typeof key === 'object') return { ...bar, current: false };
    const current = context.values[bind] === key;
    return { ...bar, current, link: context.changeAnchor(text, { [bind]: current ? undefined : key }) };
  });
  if (rest > 0) bars.push({ text: context.say('Others'), count: rest, length: rest / longest, current: false });
  return {
    show: 'bar-chart',
    id: context.newId(),
    label: context.text(component.label),
    bars,
    summary: bars.map(({ text, count }) => `${text} ${String(count)}`).join(', '),
    empty: emptyText(component, read, context),
  };
}

/** A choice’s values in their own order, those that no row has too; any others by how many rows have them. */
function inOrder(counts: readonly ValueCount[], definition: FieldDefinition | undefined, { payload }: ViewContext): readonly ValueCount[] {
  if (definition?.type !== 'choice' || counts.length === 0) return counts;
  const choices = Object.keys(payload.app.choices?.[definition.of ?? ''] ?? {});
  const others = counts.filter(({ value }) => typeof value !== 'string' || !choices.includes(value));
  return [...choices.map((value) => counts.find((one) => one.value === value) ?? { value, count: 0 }), ...others];
}
