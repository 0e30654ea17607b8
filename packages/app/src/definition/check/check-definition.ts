import { compileApp } from '../../compile-with-all-types.ts';
import type { Problem } from '@pallmist/address/declare';
import type { CompiledApp } from '@pallmist/address/pages';
import type { AppDefinition, PageDefinition } from '../app-definition.ts';
import { checkCollections } from './collections.ts';
import { checkPageContent } from './content.ts';
import type { CheckContext } from './context.ts';
import { ScopeCheck } from './expressions.ts';
import { checkLink, checkSites } from './links.ts';
import { walkContent } from '../../components/walk-content.ts';
import { checkMailsUsed } from './mails.ts';
import { checkNames } from './names.ts';
import { checkTies } from './tied.ts';
import { checkOpenSensitive, checkSecrets, checkSensitive } from './sensitive.ts';
import { checkSignIn } from './sign-in.ts';
import { checkUsage } from './usage.ts';
import { checkTextsInWords, wordScope } from './texts-in-words.ts';
import { checkWords } from './words.ts';

/** An app file, checked. `definition` and `compiled` are there as soon as the file has the right shape. */
export interface CheckedApp {
  definition?: AppDefinition;
  compiled?: CompiledApp;
  /** Every problem at once, in the order of the file. */
  problems: Problem[];
}

/** Checks the content of a page and notes its problems. */
export type PageCheck = (context: CheckContext, name: string, page: PageDefinition) => void;

/**
 * Checks what an app means, its shape being right.
 * @param checkPage another way to check the content of a page: by what was found before, where nothing has changed
 */
export function checkDefinition(
  definition: AppDefinition,
  checkPage: PageCheck = checkPageContent,
): { compiled: CompiledApp; problems: Problem[] } {
  const { app: compiled, problems } = compileApp(definition);
  const context: CheckContext = { definition, compiled, problems };
  checkCollections(context);
  for (const [name, page] of Object.entries(definition.pages)) checkPage(context, name, page);
  checkTextsInWords(context);
  const scope = new ScopeCheck(context, wordScope(definition));
  for (const [index, entry] of (definition.navigation ?? []).entries()) {
    scope.text(['navigation', index, 'text'], entry.text);
    checkLink(context, ['navigation', index, 'to'], entry.to, scope);
  }
  if (definition.footer?.text !== undefined) scope.text(['footer', 'text'], definition.footer.text);
  for (const [index, entry] of (definition.footer?.links ?? []).entries()) {
    scope.text(['footer', 'links', index, 'text'], entry.text);
    checkLink(context, ['footer', 'links', index, 'to'], entry.to, scope);
  }
  for (const [index, { reason, to }] of (definition.gone ?? []).entries()) {
    if (reason !== undefined) scope.text(['gone', index, 'reason'], reason);
    if (to) checkLink(context, ['gone', index, 'to'], to, scope);
  }
  const { newcomers } = definition.signIn ?? {};
  if (newcomers?.afterSignUp) checkLink(context, ['signIn', 'newcomers', 'afterSignUp'], newcomers.afterSignUp, scope);
  for (const key of ['afterSignIn', 'afterSignOut'] as const) {
    const link = definition.signIn?.[key];
    if (link) checkLink(context, ['signIn', key], link, scope);
  }
  checkSites(context);
  checkSecrets(context);
  checkSensitive(context);
  checkOpenSensitive(context);
  checkSignIn(context);
  checkNames(context);
  checkTies(context);
  checkWords(context);
  checkMailsUsed(context, sentMails(definition));
  checkUsage(context);
  return { compiled, problems };
}

const sentMails = (definition: AppDefinition) =>
  new Set(
    Object.values(definition.pages).flatMap(({ content }) => [...walkContent(content)].flatMap(({ references }) => references.mails)),
  );
