import { appScopeTypes } from '../../expressions/page-scope.ts';
import { toPointer } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import type { PageDefinition } from '../app-definition.ts';
import { walkContent } from '../../components/walk-content.ts';
import { report, type CheckContext } from './context.ts';
import { ScopeCheck } from './expressions.ts';
import { fixName } from './fix-name.ts';

/** A page that asks for sign-in needs a page to sign in on, which anybody may see and which holds the form. */
export function checkSignIn(context: CheckContext): void {
  const { pages, signIn } = context.definition;
  for (const [name, page] of Object.entries(pages)) {
    checkGateName(context, name, page.admit);
    if (page.admit !== undefined && page.admit !== 'everyone' && signIn === undefined) {
      report(context, ['pages', name, 'admit'], {
        code: 'no-sign-in',
        message: `“${name}” asks for sign-in, but the app has no sign-in page.`,
        hint: 'Name one under “signIn”.',
      });
    }
  }
  if (signIn === undefined) return;
  const page = pages[signIn.page];
  if (page === undefined) {
    report(context, ['signIn', 'page'], {
      code: 'unknown-page',
      message: `There is no page “${signIn.page}”.`,
      hint: suggest(signIn.page, Object.keys(pages)),
    });
    return;
  }
  if (page.admit !== undefined && page.admit !== 'everyone') {
    report(context, ['pages', signIn.page, 'admit'], {
      code: 'sign-in-closed',
      message: 'The sign-in page itself asks for sign-in, so nobody could sign in.',
      hint: 'Admit everyone to it.',
      fix: [{ op: 'remove', path: `/pages/${signIn.page}/admit` }],
    });
  }
  checkByMail(context);
  if (context.compiled.pages.get(signIn.page)?.parameters.some((parameter) => parameter.required)) {
    report(context, ['signIn', 'page'], {
      code: 'sign-in-requires',
      message: 'The sign-in page requires a parameter, which no link gives it.',
      hint: 'Make the parameter optional.',
    });
  }
  if (![...walkContent(page.content)].some(({ references }) => references.signsIn)) {
    report(context, ['pages', signIn.page, 'content'], {
      code: 'sign-in-without-form',
      message: 'The sign-in page has no sign-in form.',
      hint: 'Add { show: sign-in } to its content.',
    });
  }
}

/** The mail that lets people in can be written, and holds the link. */
function checkByMail(context: CheckContext): void {
  const byMail = context.definition.signIn?.byMail;
  if (byMail === undefined) return;
  const place = ['signIn', 'byMail'];
  const scope = new ScopeCheck(context, { ...appScopeTypes, link: { fields: { enter: 'string' } } });
  for (const key of ['subject', 'text', 'enter'] as const) {
    const text = byMail[key];
    if (text !== undefined) scope.text([...place, key], text);
  }
  if (byMail.text.includes('link.enter')) return;
  report(context, [...place, 'text'], {
    code: 'mail-without-link',
    message: 'The mail does not contain the sign-in link.',
    hint: 'Write {link.enter} where it should appear.',
    fix: [{ op: 'replace', path: toPointer([...place, 'text']), value: `${byMail.text.trimEnd()}\n\n{link.enter}\n` }],
  });
}

/** A page that names a gate names one that there is. */
function checkGateName(context: CheckContext, page: string, admit: PageDefinition['admit']): void {
  if (typeof admit !== 'string' || admit === 'everyone' || admit === 'signed-in') return;
  const gates = Object.keys(context.definition.gates ?? {});
  if (gates.includes(admit)) return;
  const place = ['pages', page, 'admit'];
  report(context, place, {
    code: 'unknown-gate',
    message: `There is no gate “${admit}”.`,
    hint: suggest(admit, ['everyone', 'signed-in', ...gates]),
    ...fixName(place, admit, ['everyone', 'signed-in', ...gates]),
  });
}
