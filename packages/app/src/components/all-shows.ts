import { commonShows } from './common-shows.ts';
import { formShows } from './form-shows.ts';
import type { ComponentName } from './kinds.ts';
import { lazyShows } from './lazy-shows.ts';

const all = { ...commonShows, ...formShows, ...lazyShows };

/** How each kind of component is shown. A kind that is missing does not compile. */
export const shows: Readonly<Record<ComponentName, (typeof all)[keyof typeof all]>> = all;

/** What a kind of component shows. */
export type NodeOf<Name extends ComponentName> = NonNullable<ReturnType<(typeof all)[Name]>>;
