import { choice, integer, list, page, range, read, text, write } from '@pallmist/address';
import { live, windowAt, type Live } from '@pallmist/browser';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { often } from '../../../test/support/often.ts';

const plants = page('/plants{?q,health,zones*,height,page,note,tint}', {
  q: text({ blank: 'absent', step: false, resets: ['page'] }),
  health: choice(['thriving', 'poorly'], { resets: ['page'] }),
  zones: list(choice(['arid', 'mist', 'dry'])),
  height: range(integer({ min: 0 })),
  page: integer({ min: 1, default: 1 }),
  note: text({ once: true }),
  tint: text({ formerNames: ['colour'] }),
});
const panel = page('{?open,q}', { open: choice(['help', 'map']), q: text({ blank: 'absent' }) });

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const addressOf = ({ location }: { location: { pathname: string; search: string; hash: string } }) =>
  location.pathname + location.search + location.hash;
/** Lets so much time pass that everything is written. */
const settle = () => vi.advanceTimersByTime(150);
/** What the history holds, from the first entry on. */
function entriesOf(window: ReturnType<typeof windowAt>): string[] {
  window.go(-1000);
  const entries = [addressOf(window)];
  for (window.go(1); addressOf(window) !== entries.at(-1); window.go(1)) entries.push(addressOf(window));
  return entries;
}

function begin(address: string) {
  const window = windowAt(address);
  return { window, state: live(plants, { window }) };
}

describe('values', () => {
  it('are read from the address, and written into it in the next task', () => {
    const { window, state } = begin('/plants?health=Poorly&page=3#top');
    expect(state.values).toEqual({ health: 'poorly', page: 3 });
    expect(state.set({ q: 'fern', zones: ['arid', 'mist'] })).toEqual([]);
    expect(state.values).toEqual({ q: 'fern', health: 'poorly', zones: ['arid', 'mist'], page: 1 });
    expect(addressOf(window)).toBe('/plants?health=Poorly&page=3#top');
    vi.advanceTimersByTime(0);
    expect(addressOf(window)).toBe('/plants?q=fern&health=poorly&zones=arid&zones=mist#top');
  });

  it('that are refused change nothing, and say why', () => {
    const { window, state } = begin('/plants?page=3');
    const before = state.values;
    expect(state.set({ page: 0, q: 'fern', zones: ['moss' as 'arid'] }).map(({ code, parameter }) => `${parameter ?? ''} ${code}`)).toEqual(
      ['page too-small', 'zones unknown-choice'],
    );
    expect(state.set({ pgae: 2 } as never).map(({ code }) => code)).toEqual(['undeclared']);
    expect(state.set({ note: 'x'.repeat(1999), q: 'é'.repeat(1999) }).map(({ code }) => code)).toEqual(['address-too-long']);
    settle();
    expect(state.values).toBe(before);
    expect(addressOf(window)).toBe('/plants?page=3');
  });

  it('that were wrong in the address are named, and leave it with the next change', () => {
    const { window, state } = begin('/plants?page=many&q=fern');
    expect([state.status, state.values.page, state.problems.map(({ code }) => code)]).toEqual(['found', 1, ['not-an-integer']]);
    state.set({ q: 'fern' });
    settle();
    expect([addressOf(window), state.problems]).toEqual(['/plants?q=fern', []]);
  });

  it('keep their identity where they are equal, and the snapshot until one changes', () => {
    const { window, state } = begin('/plants?zones=arid&height=1..9');
    const { values } = state;
    state.set({ zones: ['arid'], height: { from: 1, to: 9 } });
    expect(state.values).toBe(values);
    state.set({ page: 2 });
    settle();
    window.go(-1);
    expect(state.values).toEqual(values);
    expect(state.values.zones).toBe(values.zones);
    expect(state.values.height).toBe(values.height);
  });

  it('of a former name are rewritten, those that act once hold and leave; neither is a step', () => {
    const { window, state } = begin('/plants?colour=red&note=hello&utm=x');
    const first = live(plants, { window });
    expect([state.values.tint, state.values.note, first.values.note]).toEqual(['red', 'hello', undefined]);
    settle();
    expect(entriesOf(window)).toEqual(['/plants?tint=red&utm=x']);
    expect(begin('/plants?note=hello').state.values.note).toBe('hello');
  });

  it('that act once hold until something changes', () => {
    const { state, window } = begin('/plants?note=hello');
    settle();
    expect([state.values.note, addressOf(window)]).toEqual(['hello', '/plants']);
    expect(state.href({ page: 2 })).toBe('/plants?page=2');
    state.set({ page: 2 });
    expect(state.values.note).toBeUndefined();
    expect(state.href({ note: 'again' })).toBe('/plants?page=2&note=again');
  });
});

describe('those who subscribe', () => {
  it('are told only of what changed, once, after the values have changed', () => {
    const { state } = begin('/plants?page=3');
    const told: unknown[] = [];
    state.subscribe('page', (page) => told.push(page));
    state.subscribe('zones', (zones) => told.push(zones));
    const end = state.subscribe((values) => told.push({ ...values }));
    state.set({ health: 'poorly' });
    state.set({ health: 'poorly' });
    state.set({ zones: [] });
    end();
    state.set({ page: 4 });
    expect(told).toEqual([1, { health: 'poorly', page: 1 }, [], { health: 'poorly', page: 1, zones: [] }, 4]);
  });

  it('may throw: the others are told, and values and address agree', () => {
    const { window, state } = begin('/plants');
    const told: unknown[] = [];
    state.subscribe('page', () => {
      throw new Error('not today');
    });
    state.subscribe('page', (page) => told.push(page));
    const errors: unknown[] = [];
    const microtask = vi.spyOn(globalThis, 'queueMicrotask').mockImplementation((task) => {
      try {
        task();
      } catch (error) {
        errors.push(error);
      }
    });
    state.set({ page: 2 });
    microtask.mockRestore();
    settle();
    expect([told, addressOf(window), errors]).toEqual([[2], '/plants?page=2', [new Error('not today')]]);
  });

  it('may change values: everybody is told the newest, once, and all of it is one step', () => {
    const { window, state } = begin('/plants');
    const other = live(plants, { window });
    const told: string[] = [];
    state.subscribe('page', (page) => {
      told.push(`first ${String(page)}`);
      if (page === 2) state.set({ page: 3 });
    });
    state.subscribe('page', (page) => told.push(`second ${String(page)}`));
    other.subscribe('page', (page) => told.push(`other ${String(page)}`));
    state.subscribe(({ page }) => told.push(`all ${String(page)}`));
    state.set({ page: 2 });
    settle();
    expect(told.toSorted()).toEqual(['all 3', 'first 2', 'first 3', 'other 2', 'other 3', 'second 3']);
    expect(entriesOf(window)).toEqual(['/plants', '/plants?page=3']);
  });

  it('that answer each other without end are stopped', () => {
    const { state } = begin('/plants');
    const microtask = vi.spyOn(globalThis, 'queueMicrotask').mockImplementation(() => undefined);
    state.subscribe('page', (page) => void state.set({ page: page + 1 }));
    state.set({ page: 2 });
    expect(microtask).toHaveBeenCalledOnce();
    microtask.mockRestore();
  });
});

describe('the history', () => {
  it('has a step for each change that declares one, and Back undoes it', () => {
    const { window, state } = begin('/plants');
    for (const change of [{ health: 'poorly' }, { q: 'f' }, { page: 2 }] as const) {
      state.set(change);
      vi.advanceTimersByTime(200);
    }
    expect(entriesOf(window)).toEqual(['/plants', '/plants?q=f&health=poorly', '/plants?q=f&health=poorly&page=2']);
    window.go(-1);
    expect([state.values.page, state.cause]).toEqual([1, 'history']);
    state.set({ page: 5 }, { step: false });
    state.set({ zones: ['dry'] }, { step: false });
    settle();
    expect(entriesOf(window).at(1)).toBe('/plants?q=f&health=poorly&zones=dry&page=5');
  });

  it('takes the changes of one gesture as one step', () => {
    const { window, state } = begin('/plants');
    for (const page of [2, 3, 4]) {
      state.set({ page }, { gesture: 'drag' });
      vi.advanceTimersByTime(300);
    }
    state.set({ page: 9 }, { gesture: 'next drag' });
    settle();
    expect(entriesOf(window)).toEqual(['/plants', '/plants?page=4', '/plants?page=9']);
  });

  it('is written at most eight times a second, and has the last state after 150 ms', () => {
    const { window, state } = begin('/plants');
    const push = vi.spyOn(window.history, 'pushState');
    for (let number = 2; number <= 5001; number++) {
      state.set({ page: number });
      vi.advanceTimersByTime(2);
    }
    expect(push.mock.calls.length).toBeLessThan(90);
    settle();
    expect(addressOf(window)).toBe('/plants?page=5001');
  });

  it('gets what the browser refused or dropped as soon as it takes it', () => {
    const { window, state } = begin('/plants');
    const { pushState } = window.history;
    let refusals = 0;
    window.history.pushState = () => {
      if (refusals++ % 2 === 0) throw new DOMException('too often', 'SecurityError');
    };
    state.set({ page: 7 });
    vi.advanceTimersByTime(2000);
    expect([refusals > 1, addressOf(window), state.values.page]).toEqual([true, '/plants', 7]);
    window.history.pushState = pushState;
    vi.advanceTimersByTime(8000);
    expect(addressOf(window)).toBe('/plants?page=7');
  });

  it('is not written over where the person has gone back meanwhile', () => {
    const { window, state } = begin('/plants');
    state.set({ page: 2 });
    vi.advanceTimersByTime(0);
    state.set({ q: 'late' });
    window.go(-1);
    settle();
    expect([addressOf(window), state.values.q]).toEqual(['/plants', undefined]);
  });

  it('keeps what another program holds in its entries', () => {
    const { window, state } = begin('/plants');
    window.history.replaceState({ theirs: 1 }, '');
    state.set({ page: 2 });
    settle();
    state.set({ q: 'x' });
    settle();
    expect([addressOf(window), window.history.state]).toEqual(['/plants?q=x', { theirs: 1 }]);
  });
});

describe('beside others', () => {
  it('keeps the fragment and what it does not declare', () => {
    const { window, state } = begin('/plants?utm_source=a+b&page=2&x=%zz&x&utm_source=c#a?b');
    state.set({ page: 3 });
    settle();
    expect(addressOf(window)).toBe('/plants?page=3&utm_source=a+b&x=%zz&x&utm_source=c#a?b');
    expect(state.href({ q: '&' })).toBe('/plants?q=%26&utm_source=a+b&x=%zz&x&utm_source=c#a?b');
  });

  it('two parts with declarations of their own share one address', () => {
    const { window, state } = begin('/plants?open=map&page=2&q=fern');
    const side = live(panel, { window });
    expect(side.values).toEqual({ open: 'map', q: 'fern' });
    const told: unknown[] = [];
    side.subscribe('q', (q) => told.push(q));
    state.set({ q: 'moss' });
    side.set({ open: 'help' });
    expect([told, side.values]).toEqual([['moss'], { open: 'help', q: 'moss' }]);
    settle();
    expect(addressOf(window)).toBe('/plants?q=moss&open=help');
    side.set({ q: undefined });
    settle();
    expect([addressOf(window), state.values.q]).toEqual(['/plants?open=help', undefined]);
    side.close();
    state.set({ page: 3 });
    settle();
    expect(addressOf(window)).toBe('/plants?page=3&open=help');
  });

  it('the order of the parts makes no difference to the address', () => {
    const written = [true, false].map((plantsFirst) => {
      const window = windowAt('/plants?z=1');
      const parts = plantsFirst ? [live(plants, { window }), live(panel, { window })] : [live(panel, { window }), live(plants, { window })];
      for (const part of parts as Live<typeof panel>[]) part.set('page' in part.values ? ({ page: 4 } as never) : { open: 'map' });
      settle();
      return addressOf(window);
    });
    expect(written).toEqual(['/plants?page=4&open=map&z=1', '/plants?page=4&open=map&z=1']);
  });

  it('follows what other programs make of the address', () => {
    const { window, state } = begin('/plants?page=2');
    const causes: string[] = [];
    state.subscribe(() => causes.push(state.cause));
    window.history.pushState(null, '', '/plants?page=5');
    window.history.replaceState(null, '', '#top');
    window.history.replaceState(null, '', '/other?page=7');
    expect([state.status, state.values.page]).toEqual(['elsewhere', 5]);
    expect(state.set({ page: 8 }).map(({ code }) => code)).toEqual(['unknown-page']);
    settle();
    expect(addressOf(window)).toBe('/other?page=7');
    window.go(-1);
    expect([state.status, state.values.page, causes]).toEqual(['found', 2, ['foreign', 'foreign', 'history']]);
  });

  it('is silent once closed, and what it had in the address stays', () => {
    const { window, state } = begin('/plants?page=2');
    const told = vi.fn();
    state.subscribe(told);
    state.set({ page: 3 });
    state.close();
    expect(state.set({ page: 4 })).not.toEqual([]);
    window.history.pushState(null, '', '/plants?page=9');
    settle();
    expect([told.mock.calls.length, state.values.page, entriesOf(window)]).toEqual([
      1,
      3,
      ['/plants?page=2', '/plants?page=3', '/plants?page=9'],
    ]);
  });
});

describe('a value that is held', () => {
  it('is seen and told, but not written, until it is set or let go', () => {
    const { window, state } = begin('/plants?page=2');
    const told: unknown[] = [];
    state.subscribe('page', (page) => told.push(page));
    state.hold({ page: 3 });
    state.hold({ page: 4 });
    expect([state.values.page, state.get('page'), state.hold({ page: 0 }).length]).toEqual([4, 4, 1]);
    state.set({ q: 'x' }, { step: true });
    settle();
    expect([addressOf(window), state.values.page]).toEqual(['/plants?q=x', 1]);
    state.hold({ page: 9 });
    state.release();
    state.hold({ page: 6 });
    state.set({ page: 6 });
    settle();
    expect([addressOf(window), told]).toEqual(['/plants?q=x&page=6', [3, 4, 1, 9, 1, 6]]);
  });

  it('goes when the person goes Back', () => {
    const { window, state } = begin('/plants');
    state.set({ page: 2 });
    settle();
    state.hold({ page: 3 });
    window.go(-1);
    expect(state.values.page).toBe(1);
  });
});

describe('links', () => {
  it('are opened in place where they lead to this page', () => {
    const { window, state } = begin('/plants?page=2');
    expect(state.go('http://elsewhere.example/plants?page=3')).toBe(false);
    expect(state.go('/houses')).toBe(false);
    expect(state.go('http://[')).toBe(false);
    expect(state.go('?page=4#x')).toBe(true);
    expect(state.values.page).toBe(4);
    settle();
    expect(entriesOf(window)).toEqual(['/plants?page=2', '/plants?page=4#x']);
    const side = live(panel, { window });
    expect([side.go('/houses?open=map'), side.go('?open=map')]).toEqual([false, true]);
  });

  it('refuse a value as `write` does', () => {
    expect(() => begin('/plants').state.href({ page: 0 })).toThrow('too-small page');
  });

  it('a path with two slashes stays on this site', () => {
    const window = windowAt('http://garden.example//evil.example/x');
    const side = live(panel, { window });
    side.set({ open: 'map' });
    settle();
    expect(window.location.href).toBe('http://garden.example//evil.example/x?open=map');
    expect(new URL(side.href(), window.location).host).toBe('garden.example');
    // What is read is this address, not the one that was read before.
    begin('/plants?page=7&open=help');
    expect(live(panel, { window }).values).toEqual({ open: 'map' });
  });
});

it('without a window says what to do', () => {
  expect(() => live(plants)).toThrow(/windowAt/);
});

it('after any changes, by anybody, the address reads as the values', () => {
  const change = fc.record(
    {
      q: fc.constantFrom('fern', '', '&=?#', 'é', undefined),
      health: fc.constantFrom('poorly' as const, undefined),
      zones: fc.subarray(['arid', 'mist', 'dry'] as const),
      page: fc.integer({ min: -1, max: 3 }),
    },
    { requiredKeys: [] },
  );
  const act = fc.oneof(
    fc.tuple(fc.constant('set' as const), fc.nat(1), change),
    fc.tuple(fc.constant('hold' as const), fc.nat(1), change),
    fc.tuple(fc.constant('side' as const), fc.nat(1), fc.constantFrom('help', 'map', undefined)),
    fc.tuple(fc.constant('go' as const), fc.nat(1), fc.integer({ min: -2, max: 2 })),
    fc.tuple(
      fc.constant('foreign' as const),
      fc.nat(1),
      fc.constantFrom('/plants?page=2', '/plants?q=x&utm=1#y', '/plants?page=no&colour=red'),
    ),
    fc.tuple(fc.constant('wait' as const), fc.nat(1), fc.nat(200)),
  );
  fc.assert(
    fc.property(fc.array(act, { maxLength: 30 }), (acts) => {
      const window = windowAt('/plants?keep=1');
      const states = [live(plants, { window }), live(plants, { window })] as const;
      const side = live(panel, { window });
      const seen = states.map((state) => ({ ...state.values }) as Record<string, unknown>);
      states.forEach((state, index) => {
        for (const name of Object.keys(state.values))
          state.subscribe(name as 'q', (value) => ((seen[index] as Record<string, unknown>)[name] = value));
      });
      for (const [what, which, given] of acts) {
        const state = states[which] as (typeof states)[0];
        if (what === 'set') state.set(given);
        else if (what === 'hold') state.hold(given);
        else if (what === 'side') side.set({ open: given as 'map' });
        else if (what === 'go') window.go(given);
        else if (what === 'foreign') window.history.pushState(null, '', given);
        else vi.advanceTimersByTime(given);
        // Who listens knows exactly what the state says.
        expect(seen).toEqual(states.map(({ values }) => ({ ...values })));
      }
      for (const state of states) state.release();
      settle();
      const reading = read(plants, addressOf(window));
      for (const { values } of states) expect({ ...values, note: undefined }).toEqual({ ...reading.values, note: undefined });
      expect(side.values).toEqual(read(panel, addressOf(window)).values);
      if (reading.status === 'found')
        expect(addressOf(window)).toContain(write(plants, { ...reading.values, note: undefined }).replace(/^\/plants\??/, ''));
    }),
    { numRuns: often(300) },
  );
});
