import { pageScopeTypes, recordType } from '../../expressions/page-scope.ts';
import { suggest } from '@pallmist/address/explain';
import type { PageDefinition } from '../app-definition.ts';
import { report, type CheckContext, type Place } from './context.ts';
import { ScopeCheck } from './expressions.ts';
import { checkLink } from './links.ts';
import { fixName } from './fix-name.ts';

/**
 * The mail that a form sends: it is there, and what it says can be said where the form stands.
 * @param saved the collection of the record that the form saves
 */
export function checkMailOf(context: CheckContext, at: Place, page: PageDefinition, name: string, saved: string | undefined): void {
  const { mails = {} } = context.definition;
  const mail = mails[name];
  const place = ['mails', name];
  if (mail === undefined) {
    report(context, at, {
      code: 'unknown-mail',
      message: `There is no mail “${name}”.`,
      hint: suggest(name, Object.keys(mails)),
      ...fixName(at, name, Object.keys(mails)),
    });
    return;
  }
  const types = { ...pageScopeTypes(context.definition, page), saved: recordType(context.definition, saved ?? '', 1) };
  const scope = new ScopeCheck(context, types);
  for (const [link, { text, to }] of Object.entries(mail.links ?? {})) {
    scope.text([...place, 'links', link, 'text'], text);
    checkLink(context, [...place, 'links', link, 'to'], to, scope, page);
  }
  const links = Object.fromEntries(Object.keys(mail.links ?? {}).map((name) => [name, 'string' as const]));
  const filled = new ScopeCheck(context, { ...types, link: { fields: links } });
  for (const key of ['to', 'subject', 'text'] as const) filled.text([...place, key], mail[key]);
}

/** Mails that no form sends. */
export function checkMailsUsed(context: CheckContext, sent: ReadonlySet<string>): void {
  for (const name of Object.keys(context.definition.mails ?? {})) {
    if (sent.has(name)) continue;
    report(context, ['mails', name], {
      code: 'unused-mail',
      severity: 'warning',
      message: `No form sends the mail “${name}”.`,
      hint: 'Name it as “mail” of a form.',
    });
  }
}
