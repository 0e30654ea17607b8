import type { Say } from '../languages/say.ts';
import type { NodeOf } from '../components/all-shows.ts';
import type { Anchor } from './node-parts.ts';
import type { AnyNode } from './view-context.ts';

/** A whole page, ready to be drawn. */
export interface ShownPage {
  /** Says one of Pallmist's own texts in the language of the page. */
  say: Say;
  title: string;
  appTitle: string;
  home: string;
  navigation: NodeOf<'navigation'> | undefined;
  /** What was wrong in the address although the page can be shown. */
  notices: string[];
  content: AnyNode[];
  person?: { name: string; signOut: string; account?: string };
  signInHref?: string;
  /** The one written form of the present address. */
  address: string;
  /** Names of the forms that it shows. */
  forms: string[];
  /** What is to be said at arrival. */
  arrival: string[];
  /** The same page in each of the app's languages, where it has several. */
  languages: () => { tag: string; href: string }[];
  /** BCP 47 tag of the language that the page is in. */
  language: string;
  draft: boolean;
  /** The address of the app's logo. */
  logo?: string;
  description?: string;
  /** What search engines are asked not to do, as in HTML. */
  robots?: string;
  footer?: { text: string; links: Anchor[] };
  /** The style sheet of the app’s look. */
  look?: string;
}
