/** For programs whose pages are an app’s, compiled from an app file: Pallmist’s own pages and console. */
export { LiveAddress, type Listener } from './live-address.ts';
