import type { KeepingForm, ParameterBox } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { parameterBox } from '../shared/parameter-box.ts';
import type { filters } from './definition.ts';

/** A form that changes several values of the page at once. */
export interface FiltersNode {
  show: 'filters';
  id: string;
  label: string;
  form: KeepingForm;
  boxes: ParameterBox[];
  button: string;
  /** Leads to the page with empty boxes; missing where they are empty. */
  clear?: { text: string; href: string };
}

export function show(component: ComponentOf<typeof filters>, context: ViewContext): FiltersNode {
  const { boxes, keep } = component;
  const parameters = context.app.pages.get(context.payload.name)?.parameters ?? [];
  const dropped = parameters.flatMap(({ name, place }) => (place === 'path' || keep === undefined || keep.includes(name) ? [] : [name]));
  // What the page cannot do without stays.
  const stated = parameters.flatMap(({ name, required }) => (boxes.includes(name) && !required ? [name] : []));
  const empty = context.change(Object.fromEntries([...stated, ...dropped].map((name) => [name, undefined]))).written.address;
  return {
    show: 'filters',
    id: context.newId(),
    label: context.text(component.label),
    form: context.keepingForm(boxes, dropped),
    boxes: boxes.map((name) => parameterBox(context.payload.name, name, context.declaration(name), context.values[name], context)),
    button: context.text(component.submit, context.say('Apply')),
    ...(empty === undefined || empty === context.change({}).written.address
      ? {}
      : { clear: { text: context.text(component.clear, context.say('Clear')), href: empty } }),
  };
}
