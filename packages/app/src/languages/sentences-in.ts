import { own } from '../own.ts';
import { french, german, spanish, type Sentences } from '@pallmist/address/sentences';

const byLanguage: Readonly<Record<string, Sentences>> = { de: german, fr: french, es: spanish };

/** The sentences for refused values in a language; undefined for English and for a language without a translation. */
export const sentencesIn = (language: string): Sentences | undefined => own(byLanguage, language.toLowerCase().split('-')[0] ?? '');
