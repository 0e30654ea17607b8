import type { NodeOf, Say } from '@pallmist/app/view';

/** A page that says what went wrong, in the look of the app it belongs to. */
export interface MessagePage {
  say: Say;
  /** BCP 47 tag. */
  language: string;
  title: string;
  sentences: string[];
  /** What a visitor has typed and the page cannot keep otherwise. */
  typed?: string[];
  /** Where to go from here. */
  ways: { text: string; href: string }[];
  picture?: { source: string; alternative: string };
  /** A button that sends one thing. */
  action?: { to: string; name: string; value: string; button: string };
  appTitle: string;
  home: string;
  navigation: NodeOf<'navigation'> | undefined;
  draft: boolean;
}
