import type { AppDefinition, MailDefinition } from '../definition/app-definition.ts';
import type { LinkDefinition } from '../definition/app-definition.ts';
import { Evaluator, type EvaluateCel } from '../expressions/evaluator.ts';
import { appScopeTypes } from '../expressions/page-scope.ts';
import type { Person } from '../gate/pass.ts';
import { mailAddress } from './mail-address.ts';

/** A mail, written out. */
export interface WrittenMail {
  recipient: string;
  subject: string;
  text: string;
  html: string;
  /** Why it cannot be sent. */
  problem?: string;
}

/** Where a link leads, whole, and what it says. */
interface MailLink {
  /** Undefined where a value is missing or refused. */
  href: string | undefined;
  text: string;
}

interface MailContext {
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

/** Writes a mail from its template. Links are made from page and values and begin with the public base address. */
export function composeMail(mail: MailDefinition, { evaluator, href, base, draft }: MailContext): WrittenMail {
  const links: Record<string, MailLink> = {};
  for (const [name, { text, to }] of Object.entries(mail.links ?? {})) {
    const path = href(to, evaluator);
    links[name] = { href: path === undefined ? undefined : base + path, text: evaluator.text(text) };
  }
  return fill(mail, links, evaluator, draft);
}

/** The mail that lets a person in, to the address that the owner has given for them. */
export function composeEntryMail(
  app: Pick<AppDefinition, 'title' | 'mount' | 'signIn'>,
  { person, recipient, href, today, draft }: { person: Person; recipient: string; href: string; today: string; draft: boolean },
  cel: EvaluateCel,
): WrittenMail | undefined {
  const template = app.signIn?.byMail;
  if (template === undefined) return undefined;
  const evaluator = new Evaluator({ person, today, app: { title: app.title, mount: app.mount } }, appScopeTypes, cel);
  const links = { enter: { href, text: evaluator.text(template.enter ?? 'Come in') } };
  return fill({ ...template, to: '{recipient}' }, links, evaluator.with('recipient', recipient, 'string'), draft);
}

/** What stands for a link while the text is written. No text that is saved or typed holds it. */
const markOf = (index: number) => `\u0001${String(index)}\u0002`;
// eslint-disable-next-line no-control-regex -- marks that no text holds
const marks = /\u0001(\d+)\u0002/;

function fill(
  { to, subject, text: template }: Pick<MailDefinition, 'to' | 'subject' | 'text'>,
  links: Record<string, MailLink>,
  evaluator: Evaluator,
  draft: boolean,
): WrittenMail {
  const names = Object.keys(links);
  const types = { fields: Object.fromEntries(names.map((name) => [name, 'string' as const])) };
  const addresses = (of: (name: string, index: number) => string) =>
    Object.fromEntries(names.map((name, index) => [name, of(name, index)]));
  const filled = evaluator.with(
    'link',
    addresses((name) => links[name]?.href ?? ''),
    types,
  );
  const marked = evaluator.with(
    'link',
    addresses((_, index) => markOf(index)),
    types,
  );
  const given = filled.text(to);
  const recipient = mailAddress(given);
  const lost = names.find((name) => links[name]?.href === undefined);
  // One pass: what stands between two marks is text, whatever address it may look like.
  const pieces = marked.text(template).trim().split(marks);
  const linkAt = (index: string) => links[names[Number(index)] ?? ''];
  const problem =
    recipient === undefined
      ? 'The recipient is not exactly one mail address.'
      : lost === undefined
        ? undefined
        : `The link “${lost}” cannot be written: its page needs a value that is missing or not accepted.`;
  return {
    recipient: recipient ?? oneLine(given).slice(0, 200),
    subject: oneLine(`${draft ? '[Draft] ' : ''}${filled.text(subject)}`),
    text: `${pieces.map((piece, index) => (index % 2 === 0 ? piece : (linkAt(piece)?.href ?? ''))).join('')}\n`,
    html: asHtml(pieces, linkAt),
    ...(problem === undefined ? {} : { problem }),
  };
}

/** The text as HTML: paragraphs, and in the place of each address the link with what it says. */
function asHtml(pieces: readonly string[], linkAt: (index: string) => MailLink | undefined): string {
  const html = pieces.map((piece, index) => {
    if (index % 2 === 0)
      return escapeHtml(piece)
        .replaceAll(/\n{2,}/g, '</p><p>')
        .replaceAll('\n', '<br>');
    const link = linkAt(piece);
    return link?.href === undefined ? '' : `<a href="${escapeHtml(link.href)}">${escapeHtml(link.text)}</a>`;
  });
  return `<!doctype html><html><body><p>${html.join('')}</p></body></html>`;
}

const escapeHtml = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;').replaceAll("'", '&#39;');
