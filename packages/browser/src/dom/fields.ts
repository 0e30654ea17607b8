import { joinEnds, type Page } from '@pallmist/address';
import { localTime, readTyped, typedTexts, type Slot, type Template } from '@pallmist/address/live';
import { sentenceOf } from '@pallmist/address/sentences';
import type { Live } from '../live-types.ts';

/** What a person types into or chooses from. Its `name` says which parameter it is for. */
export type Field = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;
type AnyLive = Live<Page<string, unknown>>;

export const isField = (element: Element): element is Field =>
  element instanceof HTMLInputElement || element instanceof HTMLSelectElement || element instanceof HTMLTextAreaElement;

const ticks = (field: Field): field is HTMLInputElement => field instanceof HTMLInputElement && /^(?:checkbox|radio)$/.test(field.type);

/** The declared parameter that a field is for. */
export function slotOf(state: AnyLive, { name }: Field): Slot | undefined {
  const slot = (state.page as Template).byName.get(name);
  return slot?.name === name ? slot : undefined;
}

/** What some fields hold, by parameter. A box that is not ticked is `false`, or an item that the list lacks. */
export function textsIn(state: AnyLive, fields: Iterable<Field>): Record<string, string[]> {
  const texts: Record<string, string[]> = {};
  for (const field of fields) {
    const slot = slotOf(state, field);
    if (slot === undefined || field.disabled) continue;
    const own = (texts[slot.name] ??= []);
    if (field instanceof HTMLSelectElement) own.push(...[...field.selectedOptions].map(({ value }) => value));
    else if (!ticks(field)) own.push(isLocalTime(field, slot) ? withOffset(field.value, slot) : field.value);
    else if (slot.parameter.type === 'boolean') own.push(String(field.checked));
    else if (field.checked) own.push(field.value);
  }
  return texts;
}

/** Has a field show the present value. What is being typed stays as it is, as long as it means the same. */
export function show(state: AnyLive, field: Field): void {
  const slot = slotOf(state, field);
  if (slot === undefined) return;
  const value = state.get(slot.name as never) as unknown;
  const texts = typedTexts(slot, value);
  if (field instanceof HTMLSelectElement)
    for (const option of field.options) option.selected = texts.includes(option.value) || (texts.length === 0 && option.value === '');
  else if (ticks(field)) field.checked = slot.parameter.type === 'boolean' ? value === true : texts.includes(field.value);
  else if (field.type !== 'file') {
    const typed = slot.parameter.joins === joinEnds ? (texts[fieldsOf(field).indexOf(field)] ?? '') : texts.join(',');
    const text = isLocalTime(field, slot) ? localTime(typed, zoneOf(slot) ?? browserZone()) : typed;
    const typing = document.activeElement === field && meansSame(state, slot, field, value);
    if (!typing && field.value !== text) field.value = text;
  }
}

function meansSame(state: AnyLive, { name, write }: Slot, field: Field, value: unknown): boolean {
  const typed = readTyped(state.page, textsIn(state, fieldsOf(field))).values[name];
  return typed === value || (typed !== undefined && value !== undefined && write(typed) === write(value));
}

/** The fields that are for the same parameter as this one: of its form, or of the document where it has none. */
export function fieldsOf(field: Field): Field[] {
  const { form, name } = field;
  const all = form?.elements ?? (field.getRootNode() as ParentNode).querySelectorAll('input, select, textarea');
  const found = [...all].filter((other): other is Field => isField(other) && other.name === name && other.form === form);
  return found.length === 0 ? [field] : found;
}

/** A `datetime-local` box holds local time; an address holds a moment in UTC. */
const isLocalTime = ({ type }: Field, { parameter }: Slot) => type === 'datetime-local' && parameter.type === 'datetime';

/** The time zone that a parameter names for texts without an offset. */
const zoneOf = ({ parameter }: Slot) => (parameter.options as { timeZone?: string }).timeZone;
const browserZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** A local time with its offset from UTC. A parameter without a time zone of its own takes that of the browser. */
function withOffset(text: string, slot: Slot): string {
  const moment = zoneOf(slot) === undefined ? Date.parse(text) : NaN;
  return Number.isNaN(moment) ? text : new Date(moment).toISOString();
}

/** Reads what fields hold, and says at each what is wrong with it. @returns undefined where something is wrong */
export function readFields(state: AnyLive, fields: readonly Field[]): Record<string, unknown> | undefined {
  const { values, problems } = readTyped(state.page, textsIn(state, fields));
  for (const field of fields) {
    const problem = problems.find(({ parameter }) => parameter === field.name);
    field.setCustomValidity(problem === undefined ? '' : sentenceOf(problem.code, problem.data));
  }
  return problems.length === 0 ? values : undefined;
}
