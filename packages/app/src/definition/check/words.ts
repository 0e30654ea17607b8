import { quote, toPointer } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import { phrases } from '../../languages/phrases.ts';
import { messagePhrases } from '../../languages/message-phrases.ts';
import { isTranslated } from '../../languages/say.ts';
import { report, type CheckContext } from './context.ts';

/** The language is a parameter of the whole app, its choices are language tags, and each word has a text in each. */
export function checkWords(context: CheckContext): void {
  const { language, parameters = {}, choices = {}, words = {} } = context.definition;
  if (language === undefined) {
    const first = Object.keys(words)[0];
    if (first !== undefined)
      report(context, ['words'], {
        code: 'no-language',
        message: 'There are words, but the app has no language.',
        hint: 'Name the parameter under “language”.',
      });
    return;
  }
  const declared = parameters[language];
  if (declared?.type !== 'choice') {
    report(context, ['language'], {
      code: 'unknown-binding',
      message: `“${language}” is not a choice that the app declares for every page.`,
      hint: 'Declare it under the app’s own “parameters”, with a default.',
    });
    return;
  }
  const tags = Object.keys(choices[declared.of ?? ''] ?? {});
  for (const tag of tags) {
    if (isLanguageTag(tag)) continue;
    report(context, ['choices', declared.of ?? '', tag], {
      code: 'bad-language',
      message: `“${tag}” is no language tag.`,
      hint: 'Write it as in BCP 47: en, cy, pt-BR.',
    });
  }
  checkPhrases(context, declared.of ?? '', tags);
  if (declared.default === undefined)
    report(context, ['parameters', language], {
      code: 'language-without-default',
      severity: 'warning',
      message: 'The language has no default.',
      hint: 'Give it one.',
    });
  for (const [name, texts] of Object.entries(words)) {
    for (const tag of tags.filter((wanted) => !Object.hasOwn(texts, wanted))) {
      report(context, ['words', name], {
        code: 'word-missing-language',
        severity: 'warning',
        message: `The word “${name}” has no text in ${tag}; another language stands in for it.`,
        hint: `Give it one under “${tag}”.`,
      });
    }
    for (const tag of Object.keys(texts).filter((given) => !tags.includes(given))) {
      report(context, ['words', name, tag], {
        code: 'unknown-language',
        message: `“${tag}” is not one of the app’s languages.`,
        hint: `They are: ${tags.join(', ')}.`,
        fix: [{ op: 'remove', path: toPointer(['words', name, tag]) }],
      });
    }
  }
}

/** In a language that Pallmist does not speak, the app file says what stands on buttons and in messages. */
function checkPhrases(context: CheckContext, list: string, tags: readonly string[]): void {
  const { phrases: own = {} } = context.definition;
  const all = [...Object.keys(phrases), ...Object.keys(messagePhrases)];
  for (const [tag, given] of Object.entries(own))
    for (const name of Object.keys(given).filter((phrase) => !all.includes(phrase)))
      report(context, ['phrases', tag, name], {
        code: 'unknown-phrase',
        message: `Pallmist has no text ${quote(name)} of its own.`,
        hint: suggest(name, all),
      });
  for (const tag of tags) {
    const missing = tag.split('-')[0] === 'en' || isTranslated(tag) ? [] : all.filter((phrase) => own[tag]?.[phrase] === undefined);
    if (missing.length === 0) continue;
    report(context, ['choices', list, tag], {
      code: 'phrases-missing',
      severity: 'warning',
      message: `${String(missing.length)} of Pallmist’s own texts are not translated to ${tag} and stay English, such as ${quote(missing[0])}.`,
      hint: `Give them under “phrases”, “${tag}”, by their English texts: see the guide “Languages”.`,
    });
  }
}

function isLanguageTag(tag: string): boolean {
  try {
    return Intl.getCanonicalLocales(tag)[0] === tag;
  } catch {
    return false;
  }
}
