import type { AppDefinition } from '../app-schema.ts';
import { linksFrom, walkContent } from '../../components/walk-content.ts';
import { firstPageOf } from '../../view/first-page.ts';
import { report, type CheckContext } from './context.ts';

/** Warns of parameters that nobody uses and of pages that nobody links to. */
export function checkUsage(context: CheckContext): void {
  const { definition } = context;
  const linked = linkedPages(definition);
  const first = firstPageOf(definition.pages);
  for (const [name, page] of Object.entries(definition.pages)) {
    const text = JSON.stringify({ title: page.title, admit: page.admit, rows: page.rows, arrival: page.arrival, content: page.content });
    const bound = new Set([...walkContent(page.content)].flatMap(({ references }) => references.binds.map((bind) => bind.name)));
    for (const parameter of Object.keys(page.parameters ?? {})) {
      if (bound.has(parameter) || new RegExp(`\\b(?:param|record|label)\\.\\??${parameter}\\b`).test(text)) continue;
      report(context, ['pages', name, 'parameters', parameter], {
        code: 'unused-parameter',
        severity: 'warning',
        message: `Nothing on the page uses the parameter “${parameter}”.`,
        hint: 'Bind it to something, read it in an expression, or take it out.',
      });
    }
    if (name === first || linked.has(name) || definition.signIn?.page === name) continue;
    report(context, ['pages', name], {
      code: 'unlinked-page',
      severity: 'warning',
      message: `No page links to “${name}”.`,
      hint: 'Link to it, or add it to the navigation.',
    });
  }
}

function linkedPages(definition: AppDefinition): Set<string> {
  const linked = new Set([...(definition.navigation ?? []), ...(definition.footer?.links ?? [])].map((entry) => entry.to.page));
  for (const mail of Object.values(definition.mails ?? {})) for (const { to } of Object.values(mail.links ?? {})) linked.add(to.page);
  for (const link of [definition.signIn?.afterSignIn, definition.signIn?.afterSignOut, definition.signIn?.newcomers?.afterSignUp])
    if (link) linked.add(link.page);
  for (const [name, page] of Object.entries(definition.pages)) {
    for (const target of linksFrom(page)) if (target !== name) linked.add(target);
  }
  return linked;
}
