import type { Page } from '@pallmist/address';
import type { Live } from '../live-types.ts';
import { fieldsOf, readFields, show, type Field } from './fields.ts';

export interface FieldOptions {
  /** The event at which the value is taken: at each `input`, or at `change`, when the person is done. */
  on?: 'input' | 'change' | undefined;
}

/**
 * Binds an input, a selection or a text area to the parameter of its `name`, both ways. All that is typed until the
 * field is left is one step of the history. The browser shows what is wrong
 * with a value, as for any field (`setCustomValidity`).
 * @returns ends it
 */
export function bindField<P extends Page<string, unknown>>(state: Live<P>, field: Field, { on = 'input' }: FieldOptions = {}): () => void {
  const live = state as unknown as Live<Page<string, unknown>>;
  let gesture = {};
  const take = () => {
    const values = readFields(live, fieldsOf(field));
    if (values !== undefined) live.set(values as never, { gesture });
    else if (on === 'change') field.reportValidity();
  };
  const done = () => {
    gesture = {};
    if (field.validity.valid) show(live, field);
    else field.reportValidity();
  };
  const shown = () => {
    show(live, field);
  };
  shown();
  field.addEventListener(on, take);
  field.addEventListener('change', done);
  const end = state.subscribe(shown);
  return () => {
    field.removeEventListener(on, take);
    field.removeEventListener('change', done);
    end();
  };
}
