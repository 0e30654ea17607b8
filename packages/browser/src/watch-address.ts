import type { BrowserWindow } from './browser-window.ts';

/**
 * Tells, as long as the window lives, when its address may have changed, and when the document is about to be left.
 * @param moved told whether it was by Back or Forward
 * @param leaving to write what waits
 */
export function watchAddress(window: BrowserWindow, moved: (byHistory: boolean) => void, leaving: () => void): void {
  const { navigation, history } = window;
  const listen = (event: Event & { navigationType?: string | null }) => {
    const { type, navigationType } = event;
    if (type === 'popstate') moved(true);
    // After Back and Forward, “popstate” comes too.
    else if (type === 'pageshow' || (type === 'currententrychange' && navigationType !== 'traverse')) moved(false);
    else if (/^pagehide|^before/.test(type)) leaving();
  };
  for (const type of ['popstate', 'pageshow', 'pagehide', 'beforeunload']) window.addEventListener(type, listen);
  if (navigation !== undefined) navigation.addEventListener('currententrychange', listen);
  // Without the Navigation API, nothing tells of changes that other programs make.
  else
    for (const name of ['pushState', 'replaceState'] as const) {
      const original = history[name];
      history[name] = (...given) => {
        original.apply(history, given);
        moved(false);
      };
    }
}
