import { french, german, spanish, type Sentences } from '@pallmist/address/sentences';

const byLanguage: Readonly<Record<string, Sentences>> = { de: german, fr: french, es: spanish };

/** What is said of refused values in a language; undefined for English, and where there is no translation. */
export const sentencesIn = (language: string): Sentences | undefined => byLanguage[language.toLowerCase().split('-')[0] ?? ''];
