import type { LinkDefinition } from '../definition/app-definition.ts';
import type { PageDefinition } from '../definition/app-definition.ts';
import { leadOn } from '../components/lead-on/definition.ts';
import type { PagePayload } from './page-payload.ts';
import { PageView } from './page-view.ts';
import type { ShowTools } from './tools.ts';

/** Where a page leads on to instead of being shown; `href` is undefined where a value for it is missing. */
export function leadsOnTo(page: PageDefinition, payload: PagePayload, tools: ShowTools): { href: string | undefined } | undefined {
  const leading = page.content.filter(({ show }) => show === leadOn.name);
  if (leading.length === 0) return undefined;
  const view = new PageView(payload, tools);
  const first = leading.find(({ when }) => view.evaluator.holds(when));
  return first && { href: view.href(first['to'] as LinkDefinition) };
}
