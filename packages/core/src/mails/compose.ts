import type { MailDefinition } from '../definition/app-schema.ts';
import type { LinkDefinition } from '../definition/schema-parts.ts';
import type { Evaluator } from '../expressions/evaluator.ts';

/** A mail, ready to be sent. */
export interface ComposedMail {
  recipient: string;
  subject: string;
  text: string;
  html: string;
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
  const links: Record<string, string> = {};
  const says: { href: string; text: string }[] = [];
  for (const [name, { text, to }] of Object.entries(mail.links ?? {})) {
    const path = href(to, evaluator);
    if (path === undefined) return undefined;
    links[name] = base + path;
    says.push({ href: base + path, text: evaluator.text(text) });
  }
  const fields = Object.fromEntries(Object.keys(links).map((name) => [name, 'string' as const]));
  const filled = evaluator.with('link', links, { fields });
  const recipient = oneLine(filled.text(mail.to));
  if (recipient === '') return undefined;
  const text = filled.text(mail.text).trim();
  return {
    recipient,
    subject: oneLine(`${draft ? '[Draft] ' : ''}${filled.text(mail.subject)}`),
    text: `${text}\n`,
    html: asHtml(text, says),
  };
}

/** The text as HTML: paragraphs, and in the place of each address the link with what it says. */
function asHtml(text: string, links: readonly { href: string; text: string }[]): string {
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
