import { commonRenderers } from './common-components.ts';
import { formRenderers } from './form-components.ts';
import { lazyRenderers } from './lazy-components.ts';
import type { Renderers } from './renderers.ts';

/** Everything, as the service has it. A kind of component that nothing draws does not compile. */
export const allRenderers: Renderers = { ...commonRenderers, ...formRenderers, ...lazyRenderers };
