import { toPointer } from '@pallmist/address/declare';
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

function isLanguageTag(tag: string): boolean {
  try {
    return Intl.getCanonicalLocales(tag)[0] === tag;
  } catch {
    return false;
  }
}
