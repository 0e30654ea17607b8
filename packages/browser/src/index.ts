/** The values of a page in the address of a window, live. It draws nothing: any front end can stand on it. */
export { addressToShare } from './address-to-share.ts';
export { followLinks } from './follow-links.ts';
export { live } from './live.ts';
export type { ChangeOptions, Live, LiveChanges, LiveOptions, Subscribe } from './live-types.ts';
export type { BrowserWindow } from './browser-window.ts';
export type { Cause } from './shared-address.ts';
export { windowAt } from './window-at.ts';
