import type { ReadData } from '../../view/page-payload.ts';
import type { ViewContext } from '../../view/view-context.ts';

/** What to say in the place of rows: none, none on this page of the list, or none asked for. */
export function emptyText(
  component: { empty?: string | undefined; beforeSearch?: string | undefined },
  data: ReadData | undefined,
  context: ViewContext,
): string {
  if (data?.rows.length === 0 && data.total > 0) return context.say('The list does not have so many pages.');
  if (data?.unasked) return context.text(component.beforeSearch, context.say('Nothing was searched for yet.'));
  return context.text(component.empty, context.say('Nothing found.'));
}
