import type { ask } from './definition.ts';
import type { KeepingForm, ParameterBox } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { parameterBox } from '../shared/parameter-box.ts';

/** A form that leads to another page with what was typed. */
export interface AskNode {
  show: 'ask';
  id: string;
  label: string;
  form: KeepingForm;
  boxes: ParameterBox[];
  button: string;
}

/** A form whose answers are the parameters of the page that it leads to. */
export function show(component: ComponentOf<typeof ask>, context: ViewContext): AskNode {
  const { page, values, boxes } = component;
  const declared = { ...context.payload.app.parameters, ...context.payload.app.pages[page]?.parameters };
  const link = { page, ...(values === undefined ? {} : { values }) };
  // A question about the very page that it stands on begins with what is so.
  const present = page === context.payload.name ? context.values : {};
  return {
    show: 'ask',
    id: context.newId(),
    label: context.text(component.label),
    form: context.formFor(page, context.href(link), boxes, context.linkValues(link)),
    boxes: boxes.map((name) => parameterBox(page, name, declared[name], present[name], context)),
    button: context.text(component.submit, context.say('Go')),
  };
}
