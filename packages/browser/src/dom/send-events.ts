import type { Page, PageValues } from '@pallmist/address';
import type { Live } from '../live-types.ts';
import type { Cause } from '../shared-address.ts';

/** What an event of `sendEvents` tells in its `detail`. */
export interface ValuesChanged<P> {
  readonly values: PageValues<P>;
  /** Names of the parameters whose value changed. */
  readonly changed: readonly (keyof PageValues<P>)[];
  readonly cause: Cause;
}

/**
 * Sends a `CustomEvent` to an element whenever values have changed, for programs that know nothing of Pallmist.
 * @param type the event's name
 * @returns ends it
 */
export function sendEvents<P extends Page<string, unknown>>(state: Live<P>, target: EventTarget, type = 'valueschange'): () => void {
  let before = state.values;
  return state.subscribe((values) => {
    const changed = (Object.keys(values) as (keyof PageValues<P>)[]).filter((name) => values[name] !== before[name]);
    before = values;
    target.dispatchEvent(new CustomEvent<ValuesChanged<P>>(type, { bubbles: true, detail: { values, changed, cause: state.cause } }));
  });
}
