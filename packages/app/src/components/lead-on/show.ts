import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import type { leadOn } from './definition.ts';

export interface LeadOnNode {
  show: 'lead-on';
  /** Undefined where a value is missing: then it leads nowhere. */
  href?: string;
  /** Drafts are not left: they say where visitors are led. */
  says?: string;
}

export function show(component: ComponentOf<typeof leadOn>, context: ViewContext): LeadOnNode {
  const href = context.href(component.to);
  return {
    show: 'lead-on',
    ...(href === undefined ? {} : { href }),
    ...(context.payload.draft ? { says: `Visitors are led on to the page “${component.to.page}”.` } : {}),
  };
}
