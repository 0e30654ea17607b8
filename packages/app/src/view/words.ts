import type { AppDefinition } from '../definition/app-schema.ts';

/** The app's words in a language; where one has none, in the first language that it has. */
export function wordsIn(all: AppDefinition['words'], language: string): Record<string, string> {
  const words: Record<string, string> = {};
  for (const [name, texts] of Object.entries(all ?? {})) words[name] = texts[language] ?? Object.values(texts)[0] ?? '';
  return words;
}
