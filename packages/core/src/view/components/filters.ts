import type { ComponentOf } from '../../definition/content-schema.ts';
import { display } from '../../expressions/evaluator.ts';
import type { ParameterDeclaration } from '../../parameters/declaration.ts';
import type { ChoicesNode, InputNode, SearchNode, SelectNode, ToggleNode } from '../nodes.ts';
import { choiceLabel } from '../tools.ts';
import type { Shower } from '../shower.ts';

export function search(component: ComponentOf<'search'>, shower: Shower): SearchNode {
  return {
    show: 'search',
    name: component.bind,
    label: shower.text(component.label),
    hint: shower.text(component.hint),
    value: display(shower.values[component.bind]),
    form: shower.keepingForm(component.bind),
    maxLength: shower.material.page.parameters?.[component.bind]?.maxLength ?? 2000,
  };
}

export function select(component: ComponentOf<'select'>, shower: Shower): SelectNode {
  const declaration = shower.material.page.parameters?.[component.bind];
  const options = optionsOf(declaration, shower);
  const value = display(shower.values[component.bind]);
  // A value that the list does not hold is still what the address says.
  if (value !== '' && !options.some((option) => option.value === value)) options.unshift({ value, text: value });
  if (declaration?.default === undefined && declaration?.required !== true)
    options.unshift({ value: '', text: shower.text(component.anything, 'Any') });
  return {
    show: 'select',
    name: component.bind,
    label: shower.text(component.label),
    value,
    options,
    form: shower.keepingForm(component.bind),
  };
}

export function choices(component: ComponentOf<'choices'>, shower: Shower): ChoicesNode {
  const chosen = (shower.values[component.bind] ?? []) as unknown[];
  return {
    show: 'choices',
    name: component.bind,
    label: shower.text(component.label),
    options: optionsOf(shower.material.page.parameters?.[component.bind]?.items, shower).map((option) => ({
      ...option,
      chosen: chosen.includes(option.value),
    })),
    hasDefault: shower.material.page.parameters?.[component.bind]?.default !== undefined,
    form: shower.keepingForm(component.bind),
  };
}

export function toggle(component: ComponentOf<'toggle'>, shower: Shower): ToggleNode {
  const on = shower.values[component.bind] === true;
  return { show: 'toggle', on, turn: shower.changeAnchor(shower.text(component.label), { [component.bind]: !on }) };
}

export function input(component: ComponentOf<'input'>, shower: Shower): InputNode {
  const declaration = shower.material.page.parameters?.[component.bind];
  const { min, max, type } = declaration ?? {};
  return {
    show: 'input',
    name: component.bind,
    label: shower.text(component.label),
    kind: type === 'date' ? 'date' : 'number',
    value: display(shower.values[component.bind]),
    ...(min === undefined ? {} : { min: String(min) }),
    ...(max === undefined ? {} : { max: String(max) }),
    ...(type === 'number' ? { step: 'any' } : {}),
    form: shower.keepingForm(component.bind),
  };
}

/** What there is to choose from: the values of a choices list, or the records of a collection. */
function optionsOf(declaration: Pick<ParameterDeclaration, 'type' | 'of'> | undefined, shower: Shower): { value: string; text: string }[] {
  const of = declaration?.of ?? '';
  if (declaration?.type === 'choice') {
    return Object.entries(shower.material.app.choices?.[of] ?? {}).map(([value, choice]) => ({ value, text: choiceLabel(choice) }));
  }
  return (shower.material.data.options[of] ?? []).map(({ key, title }) => ({ value: key, text: title }));
}
