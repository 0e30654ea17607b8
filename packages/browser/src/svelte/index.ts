/** Live state for Svelte 5: values that templates and effects follow, and that `bind:` writes. */
export { reactive, type ReactiveLive } from './reactive.ts';
