import type { ask } from './definition.ts';
import type { KeepingForm, Box } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { boxFor, type Boxed } from '../shared/form-box.ts';

/** A form that leads to another page with what was typed. */
export interface AskNode {
  show: 'ask';
  id: string;
  label: string;
  form: KeepingForm;
  boxes: Box[];
  button: string;
}

/** A form whose answers are the parameters of the page that it leads to. */
export function show(component: ComponentOf<typeof ask>, context: ViewContext): AskNode {
  const { page, values } = component;
  const declared = context.payload.app.pages[page]?.parameters ?? {};
  // Where a path would lack a value there is no address, and the form leads to the app's first page.
  const address = context.href({ page, ...(values === undefined ? {} : { values }) }) ?? (context.app.mount || '/');
  return {
    show: 'ask',
    id: context.newId(),
    label: context.text(component.label),
    form: context.formFor(page, address),
    boxes: component.boxes.map((name) => {
      const declaration = declared[name];
      const { type, of, min, max, maxLength, label, help } = declaration ?? { type: 'text' as const };
      const boxed: Boxed = { type: type as Boxed['type'], of, min, max, maxLength, required: declaration?.required };
      return {
        ...boxFor(boxed, undefined, context),
        name,
        label: label ?? context.fieldLabel(undefined, name),
        value: '',
        ...(help === undefined ? {} : { help }),
      };
    }),
    button: context.text(component.submit, 'Go'),
  };
}
