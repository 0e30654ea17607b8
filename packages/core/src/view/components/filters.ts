import type { ComponentOf } from '../../definition/content-schema.ts';
import { display } from '../../expressions/evaluator.ts';
import type { SearchNode, SelectNode } from '../nodes.ts';
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
  const of = declaration?.of ?? '';
  const options =
    declaration?.type === 'choice'
      ? Object.entries(shower.material.app.choices?.[of] ?? {}).map(([value, choice]) => ({ value, text: choiceLabel(choice) }))
      : (shower.material.data.options[of] ?? []).map(({ key, title }) => ({ value: key, text: title }));
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
