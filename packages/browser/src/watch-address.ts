import type { BrowserWindow } from './browser-window.ts';

/**
 * Tells, as long as the window lives, when its address may have changed, and when the document is about to be left.
 * @param moved told whether it was by Back or Forward
 */
export function watchAddress(window: BrowserWindow, moved: (byHistory: boolean) => void, leaving: () => void): void {
  const { navigation, history } = window;
  const listen = ({ type, destination }: Event & { destination?: { sameDocument: boolean } }) => {
    if (type === 'popstate' || type === 'pageshow' || type === 'currententrychange') moved(type === 'popstate');
    // A reload takes the address as it is at “navigate”; at “beforeunload” it is too late.
    else if (destination?.sameDocument !== true) leaving();
  };
  for (const type of ['popstate', 'pageshow', 'pagehide', 'beforeunload']) window.addEventListener(type, listen);
  if (navigation !== undefined) for (const type of ['currententrychange', 'navigate']) navigation.addEventListener(type, listen);
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
