import type { Values } from '@pallmist/address/declare';

/**
 * What a page shows, settled down to the last text and address, and drawn by the components of hosted pages.
 * Every control carries the address that it leads to, so that it works without JavaScript, and, where it changes the
 * page in place, the change, so that with JavaScript nothing needs to be loaded anew.
 */
export type Node =
  | HeadingNode
  | TextNode
  | NoticeNode
  | ImageNode
  | LinkNode
  | SiteLinkNode
  | BackNode
  | ShareNode
  | NavigationNode
  | LanguageNode
  | SearchNode
  | SelectNode
  | RadioNode
  | CheckboxesNode
  | ToggleNode
  | InputNode
  | RangeNode
  | InputsNode
  | PanelNode
  | DialogNode
  | TabsNode
  | ViewsNode
  | TableNode
  | ListNode
  | PagerNode
  | DetailsNode
  | FormNode
  | AskNode
  | SignInNode
  | SignUpNode;

/** A link to an address; without one where a value is missing or wrong, so that nobody is led astray. */
export interface Anchor {
  text: string;
  href?: string;
  newWindow?: true;
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
export interface ImageNode {
  show: 'image';
  source: string;
  alt: string;
  width?: number;
}
export interface LinkNode {
  show: 'link';
  link: Anchor;
  look?: 'button';
}
/** Leads to another site. */
export interface SiteLinkNode {
  show: 'site-link';
  link: Anchor;
  /** The host that it leads to, said beside it. */
  host: string;
}
/** Leads back to where one came from; with JavaScript through the history, so that everything is as it was left. */
export interface BackNode {
  show: 'back';
  link: Anchor;
  /** Whether one came from there. */
  cameFrom: boolean;
}
export interface ShareNode {
  show: 'share';
  text: string;
  /** The address for sharing: without what is nobody else's. */
  href: string;
  /** Where it is drawn as a QR code. */
  qr?: string;
  /** Where a short address is made of it. */
  short?: string;
}
export interface LanguageNode {
  show: 'language';
  label: string;
  languages: (ChangeAnchor & { tag: string; current: boolean })[];
}
export interface NavigationNode {
  show: 'navigation';
  label: string;
  links: (Anchor & { current: boolean; change?: Values })[];
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
/** As a select, every choice in sight. */
export interface RadioNode extends Omit<SelectNode, 'show'> {
  show: 'radio';
}
export interface CheckboxesNode {
  show: 'checkboxes';
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
/** What HTML needs to know of a box. */
export interface BoxLimits {
  kind: 'text' | 'date' | 'number';
  min?: string;
  max?: string;
  step?: string;
  maxLength?: number;
}
export interface InputNode extends BoxLimits {
  show: 'input';
  name: string;
  label: string;
  value: string;
  form: KeepingForm;
}
/** A range: two boxes of one name. */
export interface RangeNode extends BoxLimits {
  show: 'range';
  name: string;
  label: string;
  from: string;
  to: string;
  form: KeepingForm;
}
/** A list: a box for each item, and one more while it may grow. */
export interface InputsNode extends BoxLimits {
  show: 'inputs';
  name: string;
  label: string;
  values: string[];
  grows: boolean;
  form: KeepingForm;
}
export interface PanelNode {
  show: 'panel';
  label: string;
  content: Node[];
}
/** An open dialog; a closed one is no node. */
export interface DialogNode {
  show: 'dialog';
  id: string;
  label: string;
  close: ChangeAnchor;
  content: Node[];
}
export interface ViewsNode {
  show: 'views';
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
  rows: { key: string; cells: Anchor[]; href?: string; chosen?: boolean; edit?: ChangeAnchor }[];
  total: number;
  empty: string;
  /** Rows can be chosen. */
  choose?: { name: string; chosen: string[]; form: KeepingForm };
  /** The row that is being edited. */
  edited?: { key: string; form: FormNode; cancel: ChangeAnchor };
}
export interface ListNode {
  show: 'list';
  label: string;
  entries: { key: string; link: Anchor; detail: string; picture?: string }[];
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
  size?: SelectNode;
}
export interface DetailsNode {
  show: 'details';
  entries: { label: string; value: Anchor }[];
}
/** A box of a form, with what stands in it and what is wrong with that. */
export interface Box {
  name: string;
  label: string;
  kind: 'text' | 'lines' | 'number' | 'date' | 'select' | 'check' | 'password' | 'file';
  /** What browsers fill in by themselves (HTML autofill). */
  autocomplete?: 'username' | 'name' | 'new-password';
  value: string;
  required: boolean;
  options?: { value: string; text: string }[];
  lines?: number;
  min?: string;
  max?: string;
  step?: string;
  maxLength?: number;
  /** Media types of the files that it takes, as HTML lists them. */
  accept?: string;
  /** The file that is kept already. */
  present?: Anchor;
  help?: string;
  problem?: string;
}
/** A form that is sent to the service, which saves a record. */
export interface FormNode {
  show: 'form';
  name: string;
  id: string;
  label: string;
  /** The present address, which the form is sent to. */
  action: string;
  boxes: Box[];
  button: string;
  /** It takes something away. */
  removes: boolean;
  /** It sends files, hence as multipart/form-data (RFC 7578). */
  files: boolean;
  /** What the record looked like when the form was drawn, to notice that another person changed it meanwhile. */
  seen?: string;
  /** By it a form that is sent twice is known. */
  once?: string;
  problem?: string;
}
/** A form that leads to another page with what was typed. */
export interface AskNode {
  show: 'ask';
  id: string;
  label: string;
  form: KeepingForm;
  boxes: Box[];
  button: string;
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
  /** The box for a mail address, to which a link is sent that lets one in. */
  byMail?: { label: string; button: string };
  /** One has come by such a link: what the button says, and what it sends. */
  entering?: { button: string; token: string };
  /** Somebody is signed in already. */
  signedInAs?: string;
  signOut: string;
}

/** A form in which people make an account for themselves. */
export interface SignUpNode {
  show: 'sign-up';
  id: string;
  action: string;
  /** The name to sign in with, the name that others see, the password. */
  boxes: Box[];
  button: string;
  back: string;
  problem?: string;
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
  person?: { name: string; signOut: string; account?: string };
  signInHref?: string;
  /** The one written form of the present address. */
  address: string;
  /** Names of the forms that it shows. */
  forms: string[];
  /** What is to be said at arrival. */
  arrival: string[];
  /** BCP 47 tag of the language that the page is in. */
  language: string;
  draft: boolean;
}
