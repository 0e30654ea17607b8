import type { Values } from '@pallmist/address/declare';
import type { AddressablePage, Reading, SealedValue } from '@pallmist/address/pages';
import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import type { Programs } from '../expressions/program.ts';
import type { Person, Reason } from '../gate/pass.ts';

/** A field of a loaded record: a plain value, or the record that it refers to. */
export type FieldValue = string | number | boolean | RecordData;
/** A loaded record; empty fields are missing. */
export interface RecordData {
  [field: string]: FieldValue | undefined;
}

/** How many rows of a read have a value in a field, on all pages of the list; no value where the field is empty. */
export interface ValueCount {
  value?: FieldValue;
  count: number;
}

/** The records of one read. */
export interface ReadData {
  rows: RecordData[];
  /** How many records there are on all pages of the list. */
  total: number;
  /** The page of the list that was read, from 1, and how many records it may hold. */
  page: number;
  size: number;
  /** Its rows counted by the values of fields: the most frequent first, at most 50 of each field. */
  counts?: Record<string, ValueCount[]>;
  /** Figures of all its records, by name; one that no record has a value for is missing. */
  figures?: Record<string, number | string>;
  /** Nothing was asked for: a value is absent without which the read gives nothing. */
  unasked?: true;
}

/** What was loaded for a page. */
export interface PageData {
  records: Record<string, RecordData>;
  rows: Record<string, ReadData>;
  /** What the records that lists name are called, in the lists’ order, by parameter. */
  titles?: Record<string, string[]>;
  /** For a select bound to a record parameter: the records one may choose, by collection. */
  options: Record<string, { key: string; title: string }[]>;
}

/** What showing needs of the app: the parts that this page touches. */
export type AppPart = Pick<
  AppDefinition,
  | 'title'
  | 'mount'
  | 'choices'
  | 'collections'
  | 'navigation'
  | 'app'
  | 'parameters'
  | 'timeZone'
  | 'language'
  | 'words'
  | 'phrases'
  | 'footer'
  | 'sites'
> & {
  /** The addresses of this page and of those it links to. */
  pages: Record<string, AddressablePage>;
  /** The address of its logo. */
  logo?: string;
  /** The style sheet of its look. */
  look?: string;
  signIn?: { page: string; reasons: Partial<Record<Reason, string>>; byMail?: true };
};

/** The page of the app that the visitor came from. */
export interface PreviousPage {
  page: string;
  address: string;
}

/** What a page depends on beside its address: who asks, when, and how they came. */
export interface RequestContext {
  person?: Person;
  /** Today's date in the app's time zone, YYYY-MM-DD, as the service had it. */
  today: string;
  /** The values remembered for the visit. */
  visit: Values;
  previous?: PreviousPage;
}

/** What stood in a form that could not be saved, and why not. */
export interface FormState {
  values: Record<string, string>;
  /** Sentences by field. */
  problems: Record<string, string>;
  problem?: string;
}

/** Everything that one page is made from. It is plain JSON: the service makes it, the browser takes it over. */
export interface PagePayload extends RequestContext {
  app: AppPart;
  name: string;
  page: PageDefinition;
  reading: Reading;
  data: PageData;
  /** Which of the page's rules for arrivals held, by number. */
  arrival?: number[];
  /** On the sign-in page, by the link of a mail: who would be let in, and what the link held. */
  entering?: { name: string; token: string };
  /** On the sign-in page: what the gate of the page says that was wanted, its words filled in. */
  gateReason?: string;
  /** What to say of a form that was saved just before. */
  said?: string;
  /** Forms that were sent and could not be saved, by name. */
  forms?: Record<string, FormState>;
  /** The values that stand sealed in this page's addresses: what the service has opened, or sealed for its links. */
  seals?: SealedValue[];
  /** Whether a packed parameter is among those that it reads or links to. */
  packed: boolean;
  /** A mark that no other answer has: a form that is sent with it twice is saved once. */
  once?: string;
  /** Parameters on which conditions depend that the service has settled: when one changes, it has to be asked. */
  asks?: string[];
  /** Its expressions as programs, by their texts; those that only follow fields need none. */
  programs?: Programs;
  /** Whether one of its expressions needs the CEL engine. */
  cel: boolean;
  /** True for the page as a draft has it. */
  draft: boolean;
}
