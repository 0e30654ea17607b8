import type { ParameterDeclaration } from '@pallmist/address/declare';
import type { AppDefinition } from '../definition/app-definition.ts';

/** The app's words in a language; a word without a text in it is in its first language. */
export function wordsIn(all: AppDefinition['words'], language: string): Record<string, string> {
  const words: Record<string, string> = {};
  for (const [name, texts] of Object.entries(all ?? {})) words[name] = texts[language] ?? Object.values(texts)[0] ?? '';
  return words;
}

/**
 * The message of a problem with the texts that the app file has for its parameter in the present language.
 * @param inWords fills in words; nothing else of the message, which may hold text from an address
 */
export function withTextsInWords(
  message: string,
  declaration: Pick<ParameterDeclaration, 'label' | 'goneValues'> | undefined,
  inWords: (text: string) => string,
): string {
  const reasons = Object.values(declaration?.goneValues ?? {}).map(({ reason }) => reason);
  return [declaration?.label, ...reasons].reduce<string>(
    (said, text) => (text?.includes('{') === true ? said.replace(text, () => inWords(text)) : said),
    message,
  );
}

/**
 * The words that texts mention. A browser is sent no others, which may belong to a page that not everyone may see.
 * @param parts everything that holds texts
 */
export function mentionedWords(words: NonNullable<AppDefinition['words']>, parts: readonly unknown[]): typeof words {
  const mentions = JSON.stringify(parts).matchAll(/\bword(?:\.\??(\w+)|\[\\?["']([^"'\\]+))/g);
  const names = new Set([...mentions].map(([, name, quoted]) => name ?? quoted));
  return Object.fromEntries(Object.entries(words).filter(([name]) => names.has(name)));
}
