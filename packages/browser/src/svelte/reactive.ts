import type { Page, PageValues } from '@pallmist/address';
import type { Template } from '@pallmist/address/live';
import { createSubscriber } from 'svelte/reactivity';
import type { Live } from '../live-types.ts';

/** As `Live`, for Svelte: what a template or an effect reads is followed, and values can be assigned. */
export type ReactiveLive<P extends Page<string, unknown>> = Omit<Live<P>, 'values'> & {
  /** Each value by name: reading one follows it alone; assigning one changes it as `set` does, `bind:value` too. */
  readonly values: { -readonly [Name in keyof PageValues<P>]: PageValues<P>[Name] };
};

/**
 * Makes live state reactive in Svelte 5. Call it once for a state, where components share it or in one of them.
 * A value that is refused changes nothing: `set` says why.
 */
export function reactive<P extends Page<string, unknown>>(state: Live<P>): ReactiveLive<P> {
  const values = {};
  for (const { name } of (state.page as unknown as Template).slots) {
    const key = name as keyof PageValues<P>;
    const follow = createSubscriber((update) => state.subscribe(key, update));
    Object.defineProperty(values, name, {
      enumerable: true,
      get() {
        follow();
        return state.get(key);
      },
      set(value: unknown) {
        state.set({ [name]: value } as never);
      },
    });
  }
  const followAll = createSubscriber((update) => state.subscribe(update));
  return new Proxy(state, {
    get(target, key) {
      if (key === 'values') return values;
      if (key !== 'page') followAll();
      const member: unknown = Reflect.get(target, key, target);
      return typeof member === 'function' ? (member as (...given: unknown[]) => unknown).bind(target) : member;
    },
  });
}
