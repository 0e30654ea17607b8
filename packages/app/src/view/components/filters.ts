import type { ComponentOf } from '../../definition/content-schema.ts';
import { display } from '../../expressions/evaluator.ts';
import type { Range } from '@pallmist/address';
import type { ParameterDeclaration } from '@pallmist/address/declare';
import type {
  BoxLimits,
  CheckboxesNode,
  InputNode,
  InputsNode,
  RadioNode,
  RangeNode,
  SearchNode,
  SelectNode,
  ToggleNode,
} from '../nodes.ts';
import { choiceLabel } from '../tools.ts';
import { optionsName } from '../options.ts';
import type { Shower } from '../shower.ts';

export function search(component: ComponentOf<'search'>, shower: Shower): SearchNode {
  return {
    show: 'search',
    name: component.bind,
    label: shower.text(component.label),
    hint: shower.text(component.placeholder),
    value: display(shower.values[component.bind]),
    form: shower.keepingForm(component.bind),
    maxLength: shower.declaration(component.bind)?.maxLength ?? 2000,
  };
}

export function select(component: ComponentOf<'select'>, shower: Shower): SelectNode {
  const declaration = shower.declaration(component.bind);
  const options = optionsOf(declaration, shower);
  const value = display(shower.values[component.bind]);
  // A value that the list does not hold is still what the address says.
  if (value !== '' && !options.some((option) => option.value === value)) options.unshift({ value, text: value });
  if (declaration?.default === undefined && declaration?.required !== true)
    options.unshift({ value: '', text: shower.text(component.anyLabel, 'Any') });
  return {
    show: 'select',
    name: component.bind,
    label: shower.text(component.label),
    value,
    options,
    form: shower.keepingForm(component.bind),
  };
}

export const radio = (component: ComponentOf<'radio'>, shower: Shower): RadioNode => ({
  ...select({ ...component, show: 'select' }, shower),
  show: 'radio',
});

export function checkboxes(component: ComponentOf<'checkboxes'>, shower: Shower): CheckboxesNode {
  const chosen = (shower.values[component.bind] ?? []) as unknown[];
  return {
    show: 'checkboxes',
    name: component.bind,
    label: shower.text(component.label),
    options: optionsOf(shower.declaration(component.bind)?.items, shower).map((option) => ({
      ...option,
      chosen: chosen.includes(option.value),
    })),
    hasDefault: shower.declaration(component.bind)?.default !== undefined,
    form: shower.keepingForm(component.bind),
  };
}

export function toggle(component: ComponentOf<'toggle'>, shower: Shower): ToggleNode {
  const on = shower.values[component.bind] === true;
  return { show: 'toggle', on, turn: shower.changeAnchor(shower.text(component.label), { [component.bind]: !on }) };
}

export function input(component: ComponentOf<'input'>, shower: Shower): InputNode | RangeNode | InputsNode {
  const { bind } = component;
  const declaration = shower.declaration(bind);
  const value = shower.values[bind];
  const common = { name: bind, label: shower.text(component.label), form: shower.keepingForm(bind) };
  if (declaration?.type === 'range') {
    const { from, to } = (value ?? {}) as Range;
    return { ...common, ...limitsOf(declaration, declaration.of), show: 'range', from: display(from), to: display(to) };
  }
  if (declaration?.type === 'list') {
    const values = Array.isArray(value) ? value.map(display) : [];
    const grows = values.length < (declaration.maxItems ?? mostBoxes);
    return { ...common, ...limitsOf(declaration.items ?? {}, declaration.items?.type), show: 'inputs', values, grows };
  }
  return { ...common, ...limitsOf(declaration ?? {}, declaration?.type), show: 'input', value: display(value) };
}

/** A list that says no number of items gets no more boxes than this. */
const mostBoxes = 50;

type Limits = Pick<ParameterDeclaration, 'min' | 'max' | 'maxLength'>;

/** The limits of a type as HTML has them. A date that is relative to today is left to the service. */
export function limitsOf({ min, max, maxLength }: Limits, type: string | undefined): BoxLimits {
  const kind = type === 'date' ? 'date' : type === 'integer' || type === 'number' ? 'number' : 'text';
  if (kind === 'text') return { kind, ...(maxLength === undefined ? {} : { maxLength }) };
  return {
    kind,
    ...(min === undefined ? {} : { min: String(min) }),
    ...(max === undefined ? {} : { max: String(max) }),
    ...(type === 'number' ? { step: 'any' } : {}),
  };
}

/** What there is to choose from: the values of a choices list, or the records of a collection. */
export function optionsOf(
  declaration: { type: string; of?: string | undefined; by?: string | undefined } | undefined,
  shower: Shower,
): { value: string; text: string }[] {
  const of = declaration?.of ?? '';
  if (declaration?.type === 'choice') {
    return Object.entries(shower.material.app.choices?.[of] ?? {}).map(([value, choice]) => ({ value, text: choiceLabel(choice) }));
  }
  return (
    shower.material.data.options[optionsName({ from: of, ...(declaration?.by === undefined ? {} : { by: declaration.by }) })] ?? []
  ).map(({ key, title }) => ({ value: key, text: title }));
}
