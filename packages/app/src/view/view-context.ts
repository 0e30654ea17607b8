import type { ParameterDeclaration, Values } from '@pallmist/address/declare';
import type { AppChange, CompiledApp } from '@pallmist/address/pages';
import type { ChoiceDefinition } from '@pallmist/address';
import type { Say } from '../languages/say.ts';
import type { Component, FieldDefinition } from '../definition/app-definition.ts';
import type { LinkDefinition } from '../definition/app-definition.ts';
import type { Evaluator } from '../expressions/evaluator.ts';
import type { FieldValue, PagePayload, RecordData } from './page-payload.ts';
import type { Anchor, ChangeAnchor, KeepingForm } from './node-parts.ts';

/** What a component shows, settled down to the last text and address, and drawn by the component of hosted pages. */
export interface AnyNode {
  show: string;
  /** Of a draft: where its component stands in the page, as a JSON Pointer without the first “/”. */
  place?: string;
}

/** How a component is shown; undefined where it is not there at present. */
export type Show<Declared, Node extends AnyNode> = (component: Declared, context: ViewContext) => Node | undefined;

/** How each kind of component is shown, by the kind’s name. */
export type ShowTable = Readonly<Partial<Record<string, Show<never, AnyNode>>>>;

/** A field as a page shows it. */
export interface ShownField {
  label: string;
  value: Anchor;
  definition: FieldDefinition | undefined;
}

/** What showing a component works with: the page’s payload, and the ways to make texts and addresses. */
export interface ViewContext {
  readonly payload: PagePayload;
  readonly app: CompiledApp;
  readonly evaluator: Evaluator;
  readonly values: Values;
  /** Names of the forms that the page shows: no other is taken. */
  readonly forms: Set<string>;
  /** BCP 47 tag of the language that the page is in. */
  readonly language: string;

  /** How a parameter of the page, or of the whole app, is declared. */
  declaration(name: string): ParameterDeclaration | undefined;
  /** A name that nothing else on the page has. */
  newId(): string;
  text(text: string | undefined, otherwise?: string): string;
  /** One of Pallmist's own texts in the language of the page. */
  readonly say: Say;
  /** A choice as people read it. */
  choice(definition: ChoiceDefinition): string;
  /** What a component shows; undefined where its kind is not at hand. */
  show(component: Component): AnyNode | undefined;
  /** What the components within show; those whose condition does not hold are left out. */
  showAll(content: readonly Component[]): AnyNode[];

  /** The address that a link leads to; undefined where a value is missing or refused. */
  href(link: LinkDefinition, evaluator?: Evaluator): string | undefined;
  /** The values that a link sends. */
  linkValues(link: LinkDefinition, evaluator?: Evaluator): Values;
  anchor(text: string, link: LinkDefinition | undefined, evaluator?: Evaluator): Anchor;
  change(changes: Values): AppChange;
  changeAnchor(text: string, change: Values): ChangeAnchor;
  /**
   * A GET form that changes parameters and keeps the others, as far as the change does not reset them.
   * @param dropped others that it does not keep
   */
  keepingForm(changed: string | readonly string[], dropped?: readonly string[]): KeepingForm;
  /**
   * The GET form that leads to an address of a page, whose query its hidden boxes hold.
   * @param address undefined where it lacks what the boxes give
   * @param boxes names of the boxes that the form shows
   * @param values what it sends besides
   */
  formFor(page: string, address: string | undefined, boxes?: readonly string[], values?: Values): KeepingForm;
  /** Values with those remembered for the visit that are to go along; what is stated already stays. */
  carrying(page: string, values: Values, withVisit: true | readonly string[] | undefined): Values;
  /** Values remembered for the visit, as addresses hold them. */
  visitTexts(names: readonly string[]): [string, string][];

  /** A field, or a field of a reference (`house.name`), of a record of this collection, as people read it. */
  fieldAt(collection: string, path: string, record: RecordData): ShownField;
  /** A field’s value as people read it: labels for choices, titles for records. */
  field(definition: FieldDefinition | undefined, value: FieldValue | undefined): string;
  fieldLabel(collection: string | undefined, field: string): string;
  /** Where a file of the app is, or a file that a visitor has sent; undefined for what is neither. */
  fileAddress(file: string): string | undefined;
}
