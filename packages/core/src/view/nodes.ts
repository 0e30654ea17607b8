import type { Values } from '../parameters/declaration.ts';

/**
 * What a page shows, settled down to the last text and address, and drawn by the components of hosted pages.
 * Every control carries the address that it leads to, so that it works without JavaScript, and, where it changes the
 * page in place, the change, so that with JavaScript nothing needs to be loaded anew.
 */
export type Node =
  | HeadingNode
  | TextNode
  | NoticeNode
  | LinkNode
  | NavigationNode
  | SearchNode
  | SelectNode
  | ChoicesNode
  | ToggleNode
  | InputNode
  | PanelNode
  | TabsNode
  | TableNode
  | PagerNode
  | DetailsNode
  | SignInNode;

/** A link to an address; without one where a value is missing or wrong, so that nobody is led astray. */
export interface Anchor {
  text: string;
  href?: string;
}

/** A link that changes values of the present page. */
export interface ChangeAnchor {
  text: string;
  href: string;
  change: Values;
}

/** A form that is sent by GET without JavaScript: where to, and the values it keeps. */
export interface KeepingForm {
  action: string;
  keeps: { name: string; value: string }[];
}

export interface HeadingNode {
  show: 'heading';
  text: string;
  level: number;
}
export interface TextNode {
  show: 'text';
  text: string;
}
export interface NoticeNode {
  show: 'notice';
  text: string;
  tone: 'plain' | 'good' | 'warning';
}
export interface LinkNode {
  show: 'link';
  link: Anchor;
}
export interface NavigationNode {
  show: 'navigation';
  label: string;
  links: (Anchor & { current: boolean })[];
}
export interface SearchNode {
  show: 'search';
  name: string;
  label: string;
  hint: string;
  value: string;
  form: KeepingForm;
  /** Longest text that the parameter accepts. */
  maxLength: number;
}
export interface SelectNode {
  show: 'select';
  name: string;
  label: string;
  value: string;
  options: { value: string; text: string }[];
  form: KeepingForm;
}
export interface ChoicesNode {
  show: 'choices';
  name: string;
  label: string;
  options: { value: string; text: string; chosen: boolean }[];
  /** None chosen is a choice of its own, since there is a default. */
  hasDefault: boolean;
  form: KeepingForm;
}
export interface ToggleNode {
  show: 'toggle';
  on: boolean;
  /** Turns it over. */
  turn: ChangeAnchor;
}
export interface InputNode {
  show: 'input';
  name: string;
  label: string;
  kind: 'date' | 'number';
  value: string;
  /** Limits and step, as HTML has them. */
  min?: string;
  max?: string;
  step?: string;
  form: KeepingForm;
}
export interface PanelNode {
  show: 'panel';
  label: string;
  content: Node[];
}
export interface TabsNode {
  show: 'tabs';
  /** Unique on the page, for naming its parts. */
  id: string;
  label: string;
  tabs: (ChangeAnchor & { current: boolean })[];
  content: Node[];
}
export interface TableNode {
  show: 'table';
  label: string;
  columns: {
    label: string;
    align: 'start' | 'end';
    whole: boolean;
    sort?: ChangeAnchor & { direction: 'ascending' | 'descending' | 'none' };
  }[];
  rows: { key: string; cells: string[]; href?: string }[];
  total: number;
  empty: string;
}
export interface PagerNode {
  show: 'pager';
  page: number;
  pages: number;
  total: number;
  /** First and last record of this page, from 1. */
  from: number;
  to: number;
  previous?: ChangeAnchor;
  next?: ChangeAnchor;
  near: (ChangeAnchor & { current: boolean })[];
}
export interface DetailsNode {
  show: 'details';
  entries: { label: string; value: Anchor }[];
}
export interface SignInNode {
  show: 'sign-in';
  action: string;
  name: string;
  password: string;
  button: string;
  /** Carried through the form, and checked again when it comes back. */
  back: string;
  reason?: string;
  /** Somebody is signed in already. */
  signedInAs?: string;
}

/** A whole page, ready to be drawn. */
export interface ShownPage {
  title: string;
  appTitle: string;
  home: string;
  navigation: NavigationNode | undefined;
  /** What was wrong in the address although the page can be shown. */
  notices: string[];
  content: Node[];
  person?: { name: string; signOut: string };
  signInHref?: string;
  /** The one written form of the present address. */
  address: string;
  draft: boolean;
}
