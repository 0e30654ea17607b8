import { getContext } from 'svelte';
import type { Draft } from '../draft/draft.svelte.ts';

/** Under which the components of a workbench find its draft. */
export const draftKey = Symbol('draft');

/** The draft that is being built. */
export const useDraft = (): Draft => getContext<Draft>(draftKey);
