import type { ParameterDeclaration, Values } from '@pallmist/address/declare';
import { writePlainText } from '@pallmist/address/pages';
import { display } from '../../expressions/evaluator.ts';
import type { ParameterBox } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import { boxText } from './box-text.ts';
import { limitsOf } from './box-limits.ts';
import { optionsOf } from './options.ts';

/** A text that may be longer than this gets several lines. */
const oneLine = 300;
const lines = 4;

/**
 * What a parameter is typed into, or chosen from, with what stands in it.
 * @param page whose parameter it is
 */
export function parameterBox(
  page: string,
  name: string,
  declaration: ParameterDeclaration | undefined,
  value: Values[string],
  context: ViewContext,
): ParameterBox {
  const { label, help, required = false, default: given, type = 'text' } = declaration ?? {};
  const common = {
    name,
    label: label === undefined ? context.fieldLabel(undefined, name) : context.text(label),
    ...(help === undefined ? {} : { help: context.text(help) }),
  };
  const plain = context.app.pages.get(page)?.byName.get(name)?.plain;
  const written = plain === undefined || value === undefined ? '' : writePlainText(plain, value);
  // As it would be in an address.
  const text = typeof written === 'string' ? written : '';
  if (type === 'list' && choosable(declaration?.items)) {
    const chosen = Array.isArray(value) ? (value as unknown[]) : [];
    const options = optionsOf(declaration?.items, context);
    return { ...common, of: 'several', options: options.map((option) => ({ ...option, chosen: chosen.includes(option.value) })) };
  }
  if (type === 'range') {
    const { from, to } = (value ?? {}) as { from?: unknown; to?: unknown };
    return { ...common, of: 'ends', limits: limitsOf(declaration ?? {}, declaration?.of), from: display(from), to: display(to) };
  }
  const one = { ...common, of: 'one' as const, value: text, required };
  const { timeZone } = context.payload.app;
  if (choosable(declaration)) {
    const options = optionsOf(declaration, context);
    // A collection too large to choose from: then its key is typed. A value that the list does not hold is still the address’s.
    if (options.length > 0) {
      const all = text === '' || options.some((option) => option.value === text) ? options : [{ value: text, text }, ...options];
      return { ...one, kind: 'select', options: required || given !== undefined ? all : [{ value: '', text: context.say('Any') }, ...all] };
    }
  }
  if (type === 'packed') return { ...one, value: boxText(type, value), kind: 'lines', lines };
  if (type === 'colour' && text !== '') return { ...one, kind: 'color' };
  if (type === 'datetime') return { ...one, ...limitsOf(declaration ?? {}, type, timeZone), value: boxText(type, value, timeZone) };
  const { maxLength = Infinity } = declaration ?? {};
  if (type === 'text' && maxLength !== Infinity && maxLength > oneLine)
    return { ...one, ...limitsOf(declaration ?? {}, type), kind: 'lines', lines };
  return { ...one, ...limitsOf(declaration ?? {}, type) };
}

const choosable = (declared: { type?: string | undefined } | undefined) =>
  declared?.type === 'choice' || declared?.type === 'record' || declared?.type === 'boolean';
