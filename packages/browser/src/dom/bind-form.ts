import type { Page } from '@pallmist/address';
import type { Live } from '../live-types.ts';
import { isField, readFields, show, type Field } from './fields.ts';

/**
 * Binds a form: its fields show the present values, sending it changes all of them in one step, and a reset button
 * returns them to their defaults. Fields whose `name` is no parameter are left alone. Without JavaScript the same form
 * works by `method="get"`.
 * @returns ends it
 */
export function bindForm<P extends Page<string, unknown>>(state: Live<P>, form: HTMLFormElement): () => void {
  const live = state as unknown as Live<Page<string, unknown>>;
  const fields = (): Field[] => [...form.elements].filter((element): element is Field => isField(element));
  const shown = () => {
    for (const field of fields()) show(live, field);
  };
  const send = (event: Event) => {
    event.preventDefault();
    const values = readFields(live, fields());
    if (values !== undefined) live.set(values as never);
    else form.reportValidity();
  };
  const reset = (event: Event) => {
    event.preventDefault();
    for (const field of fields()) field.setCustomValidity('');
    live.set(
      Object.fromEntries(
        Object.keys(live.values)
          .filter((name) => fields().some((field) => field.name === name))
          .map((name) => [name, undefined]),
      ),
    );
    shown();
  };
  // A sentence about a field is out of date once something else stands in it; the form could not be sent again.
  const typed = ({ target }: Event) => {
    if (target instanceof Element && isField(target)) target.setCustomValidity('');
  };
  shown();
  form.addEventListener('submit', send);
  form.addEventListener('reset', reset);
  form.addEventListener('input', typed);
  const end = state.subscribe(shown);
  return () => {
    form.removeEventListener('submit', send);
    form.removeEventListener('reset', reset);
    form.removeEventListener('input', typed);
    end();
  };
}
