import type { AppDefinition } from '../definition/app-schema.ts';

/** The app's words in a language; a word without a text in it is in its first language. */
export function wordsIn(all: AppDefinition['words'], language: string): Record<string, string> {
  const words: Record<string, string> = {};
  for (const [name, texts] of Object.entries(all ?? {})) words[name] = texts[language] ?? Object.values(texts)[0] ?? '';
  return words;
}
