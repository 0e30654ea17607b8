import { toPointer } from '@pallmist/address/declare';
import type { AppDefinition, BlockDefinition } from '../app-definition.ts';
import { linksFrom, walkContent } from '../../components/walk-content.ts';
import { firstPageOf } from '../../view/first-page.ts';
import { report, type CheckContext } from './context.ts';

/** Warns of parameters and blocks that nobody uses, and of pages that nobody links to. */
export function checkUsage(context: CheckContext): void {
  const { definition } = context;
  const linked = linkedPages(definition);
  const first = firstPageOf(definition.pages);
  const used = new Set<unknown>();
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
    for (const { component } of walkContent(page.content)) if (component.show === 'block') used.add(component['of']);
    if (name === first || linked.has(name) || definition.signIn?.page === name) continue;
    report(context, ['pages', name], {
      code: 'unlinked-page',
      severity: 'warning',
      message: `No page links to “${name}”.`,
      hint: 'Link to it, or add it to the navigation.',
    });
  }
  for (const [name, block] of Object.entries(definition.blocks ?? {})) {
    checkInputs(context, name, block);
    if (!used.has(name))
      report(context, ['blocks', name], {
        code: 'unused-block',
        severity: 'warning',
        message: `No page uses the block “${name}”, so the check skips its content.`,
        hint: `Use it: { show: block, of: ${name} }. Or remove it.`,
        fix: [{ op: 'remove', path: toPointer(Object.keys(definition.blocks ?? {}).length === 1 ? ['blocks'] : ['blocks', name]) }],
      });
  }
}

/** Warns of what a block takes and its content does not use. */
function checkInputs(context: CheckContext, name: string, { takes = {}, content }: BlockDefinition): void {
  const text = JSON.stringify(content);
  for (const input of Object.keys(takes)) {
    if (new RegExp(`\\bblock\\.${input}\\b`).test(text)) continue;
    report(context, ['blocks', name, 'takes', input], {
      code: 'unused-input',
      severity: 'warning',
      message: `Nothing in the block “${name}” uses what it takes as “${input}”.`,
      hint: `Write {block.${input}} where its content needs it, or take it out.`,
      fix: [{ op: 'remove', path: toPointer(['blocks', name, 'takes', ...(Object.keys(takes).length === 1 ? [] : [input])]) }],
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
