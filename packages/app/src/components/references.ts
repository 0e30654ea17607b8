import type { LinkDefinition } from '../definition/app-definition.ts';

export type Path = (string | number)[];
type Value = string | number | boolean;
/** What the expression of a setting has to give. */
export type SettingType = 'text' | 'number';

/** Where an expression stands: in the rows of a read, sent to another site, or settled only when its form is sent. */
interface Standing {
  row?: string | undefined;
  toSite?: true;
  /** Settled when the form of the component is saved, and may name what it has saved. */
  saved?: true;
  service?: true;
}

/** A link, or a form, that leads to a page of the app. */
interface Way {
  page: string;
  values?: LinkDefinition['values'] | undefined;
  boxes: readonly string[];
}

/** Everything in a component that refers to something else, each with its place below the component. */
export class References {
  readonly texts: ({ path: Path; text: string } & Standing)[] = [];
  /** Values that are settled on the page itself, or, with `service`, when its form is sent. */
  readonly values: ({ path: Path; value: Value; gives?: SettingType } & Standing)[] = [];
  /** `row` names the read in whose rows the link stands, `saved` the collection of the record that a form has saved. */
  readonly links: { path: Path; link: LinkDefinition; row?: string | undefined; saved?: string | undefined; service?: true }[] = [];
  /** Pages that are led to by a form. */
  readonly ways: Way[] = [];
  readonly mails: string[] = [];
  readonly binds: { path: Path; name: string; types: readonly string[] }[] = [];
  readonly rows: { path: Path; name: string }[] = [];
  /** Fields by whose values the rows of a read are counted. */
  readonly counted: { rows: string; field: string }[] = [];
  readonly collections: string[] = [];
  /** Parameters whose values are chosen from a list. */
  readonly chosen: string[] = [];
  /** Fields that are shown, by path: of the record that a parameter names, or of the rows of a read. */
  readonly fields: { root: { of: 'record' | 'rows'; name: string }; path: string }[] = [];
  /** Whether one can sign in here. */
  signsIn = false;
  /** For how many days a short address leads here that is made here. */
  shortAddressDays: number | undefined;

  text(path: Path, text: string | undefined, standing: Standing = {}): void {
    if (text !== undefined) this.texts.push({ path, text, ...standing });
  }

  /** The texts of several keys of a component. */
  textsOf<Key extends string>(
    component: { readonly [key in Key]?: string | undefined },
    keys: readonly Key[],
    standing: Standing = {},
  ): void {
    for (const key of keys) this.text([key], component[key], standing);
  }

  value(path: Path, value: Value, standing: Standing = {}): void {
    this.values.push({ path, value, ...standing });
  }

  /** A setting that may be an expression. */
  setting(path: Path, value: string | number | undefined, gives: SettingType, standing: Standing = {}): void {
    if (typeof value === 'string' && value.startsWith('{')) this.values.push({ path, value, gives, ...standing });
  }

  link(path: Path, link: LinkDefinition | undefined, standing: { row?: string; saved?: string | undefined; service?: true } = {}): void {
    if (link !== undefined) this.links.push({ path, link, ...standing });
  }

  /** @param types the types of parameters that fit */
  bind(path: Path, name: string | undefined, types: readonly string[]): void {
    if (name !== undefined) this.binds.push({ path, name, types });
  }

  rowsOf(name: string): void {
    this.rows.push({ path: ['rows'], name });
  }

  shown(of: 'record' | 'rows', name: string, paths: readonly string[]): void {
    for (const path of paths) this.fields.push({ root: { of, name }, path });
  }
}
