import { describe, expect, it } from 'vitest';
import { recallLeft, rememberLeft } from '../src/left-address.ts';
import { windowAt } from '../src/window-at.ts';

/** A window whose document came by some kind of navigation, with a storage that both documents share. */
function windowOf(type: string | undefined, kept: Map<string, string>) {
  return {
    ...windowAt('https://quillmoor.example/'),
    sessionStorage: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
      removeItem: (key: string) => void kept.delete(key),
    },
    performance: { getEntriesByType: () => (type === undefined ? [] : [{ type } as unknown as PerformanceEntry]) },
  };
}

describe('the address that was left', () => {
  const left = ['/a', '/a?page=2', '/a?page=3'];

  it.each([
    ['reload', '/a', '/a?page=3'],
    ['reload', '/a?page=2', '/a?page=3'],
    // The newest itself was asked for: nothing is to be done.
    ['reload', '/a?page=3', undefined],
    // None of those that this document had: another program, or the visitor, has gone there.
    ['reload', '/b', undefined],
    ['reload', '/a?page=4', undefined],
    ['reload', '/a?page=', undefined],
    ['reload', '', undefined],
    // No reload: Back, a link, an address that was typed.
    ['navigate', '/a', undefined],
    ['back_forward', '/a', undefined],
    ['prerender', '/a', undefined],
    [undefined, '/a', undefined],
  ])('after a %s that asked for %j it is %j, once', (type, here, wanted) => {
    const kept = new Map<string, string>();
    rememberLeft(windowOf('navigate', kept), left);
    const next = windowOf(type, kept);
    expect(recallLeft(next, here)).toBe(wanted);
    expect(recallLeft(next, here)).toBeUndefined();
  });

  it('is none where nothing was left, and where the document may keep nothing', () => {
    expect(recallLeft(windowOf('reload', new Map()), '/a')).toBeUndefined();
    const without = windowAt('https://quillmoor.example/');
    rememberLeft(without, left);
    expect(recallLeft(without, '/a')).toBeUndefined();
  });
});
