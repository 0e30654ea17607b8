import { report } from '../../definition/check/context.ts';
import { link } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import type { ComponentPlace } from '../kind.ts';
import type { Component } from '../../definition/app-definition.ts';

export const leadOn = componentKind({
  name: 'lead-on',
  label: 'Lead on',
  sentence: 'Redirects to another page at once, so that a page can be a second address for it.',
  example: { to: { page: 'specimen', values: { specimen: '{param.specimen}', lend: true } } },
  fields: { to: link.describe('Where it leads') },
  refersTo(component, references) {
    references.link(['to'], component.to);
  },
  check(component, { context, at }) {
    const [, start = ''] = at;
    if (component.when !== undefined) return;
    const way = [String(start)];
    for (let page: string | undefined = component.to.page; page !== undefined; page = nextOf(page, context)) {
      if (page !== way[0]) {
        if (way.includes(page)) return;
        way.push(page);
        continue;
      }
      report(context, [...at, 'to', 'page'], {
        code: 'leads-in-circle',
        message: `The page leads in a circle: ${[...way, page].join(', ')}.`,
        hint: 'Let one of them lead to a page that is shown, or give it a condition under “when”.',
      });
      return;
    }
  },
});

/** The page that a page always leads on to. */
function nextOf(page: string, { definition }: ComponentPlace['context']): string | undefined {
  const content: readonly Component[] = definition.pages[page]?.content ?? [];
  const next = content.find(({ show, when }) => show === leadOn.name && when === undefined);
  return (next?.['to'] as { page: string } | undefined)?.page;
}
