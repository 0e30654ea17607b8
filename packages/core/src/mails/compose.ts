import type { AppDefinition, MailDefinition } from '../definition/app-schema.ts';
import type { LinkDefinition } from '../definition/schema-parts.ts';
import { Evaluator, type EvaluateCel } from '../expressions/evaluator.ts';
import { appScopeTypes } from '../expressions/page-scope.ts';
import type { Person } from '../gate/pass.ts';

/** A mail, ready to be sent. */
export interface ComposedMail {
  recipient: string;
  subject: string;
  text: string;
  html: string;
}

/** Where a link leads, whole, and what it says. */
interface MailLink {
  href: string;
  text: string;
}

interface Surroundings {
  evaluator: Evaluator;
  /** The address that a link leads to, as a path; undefined where it leads nowhere. */
  href: (link: LinkDefinition, evaluator: Evaluator) => string | undefined;
  /** Where the public reaches the service, without a “/” at the end. */
  base: string;
  /** Of a draft: marked, so that nobody takes it for real. */
  draft: boolean;
}

/** One line, whatever the text holds: no line of a header ends inside another. */
const oneLine = (text: string) => text.replaceAll(/\p{Cc}+/gu, ' ').trim();

/**
 * Writes a mail from its template. Links are made from page and values and begin with the public base address.
 * @returns undefined where there is no recipient, or a link leads nowhere: such a mail helps nobody
 */
export function composeMail(mail: MailDefinition, { evaluator, href, base, draft }: Surroundings): ComposedMail | undefined {
  const links: Record<string, MailLink> = {};
  for (const [name, { text, to }] of Object.entries(mail.links ?? {})) {
    const path = href(to, evaluator);
    if (path === undefined) return undefined;
    links[name] = { href: base + path, text: evaluator.text(text) };
  }
  return fill(mail, links, evaluator, draft);
}

/** The mail that lets somebody in, to the address that the owner has given for them. */
export function composeEntryMail(
  app: Pick<AppDefinition, 'title' | 'mount' | 'signIn'>,
  { person, recipient, href, today, draft }: { person: Person; recipient: string; href: string; today: string; draft: boolean },
  cel: EvaluateCel,
): ComposedMail | undefined {
  const template = app.signIn?.byMail;
  if (template === undefined) return undefined;
  const evaluator = new Evaluator({ person, today, app: { title: app.title, mount: app.mount } }, appScopeTypes, cel);
  const links = { enter: { href, text: evaluator.text(template.enter ?? 'Come in') } };
  return fill({ ...template, to: '{recipient}' }, links, evaluator.with('recipient', recipient, 'string'), draft);
}

function fill(
  { to, subject, text: template }: Pick<MailDefinition, 'to' | 'subject' | 'text'>,
  links: Record<string, MailLink>,
  evaluator: Evaluator,
  draft: boolean,
): ComposedMail | undefined {
  const names = Object.keys(links);
  const addresses = Object.fromEntries(Object.entries(links).map(([name, { href }]) => [name, href]));
  const filled = evaluator.with('link', addresses, { fields: Object.fromEntries(names.map((name) => [name, 'string' as const])) });
  const recipient = oneLine(filled.text(to));
  if (recipient === '') return undefined;
  const text = filled.text(template).trim();
  return {
    recipient,
    subject: oneLine(`${draft ? '[Draft] ' : ''}${filled.text(subject)}`),
    text: `${text}\n`,
    html: asHtml(text, Object.values(links)),
  };
}

/** The text as HTML: paragraphs, and in the place of each address the link with what it says. */
function asHtml(text: string, links: readonly MailLink[]): string {
  const paragraphs = text.split(/\n{2,}/).map((paragraph) => {
    let html = escapeHtml(paragraph).replaceAll('\n', '<br>');
    for (const link of links) {
      const address = escapeHtml(link.href);
      html = html.replaceAll(address, `<a href="${address}">${escapeHtml(link.text)}</a>`);
    }
    return `<p>${html}</p>`;
  });
  return `<!doctype html><html><body>${paragraphs.join('')}</body></html>`;
}

const escapeHtml = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;').replaceAll("'", '&#39;');
