import { compileApp, type ParameterDeclaration, type Values, withContext } from '@pallmist/address/declare';
import {
  type AppChange,
  writePlainText,
  changeValues,
  type CompiledApp,
  decodeForShow,
  Refusal,
  SealBook,
  unprotect,
  valueFrom,
  writeAddress,
} from '@pallmist/address/pages';
import { joinItems, type ChoiceDefinition } from '@pallmist/address';
import { sayIn, type Say } from '../languages/say.ts';
import type { Component, FieldDefinition, LinkDefinition } from '../definition/app-definition.ts';
import { display, Evaluator } from '../expressions/evaluator.ts';
import { celWith } from '../expressions/program.ts';
import { pageScopeTypes } from '../expressions/page-scope.ts';
import { fileNameIn, filePath } from '../records/file-value.ts';
import { choiceLabel } from './choice-label.ts';
import type { ShowTools } from './tools.ts';
import type { AnyNode, ShownField, ShowTable, ViewContext } from './view-context.ts';
import { pathTemplate } from './form-address.ts';
import { labelsOf, recordTitle } from './labels.ts';
import { wordsIn } from './words.ts';
import { spoken } from './spoken.ts';
import { languageOf, scopeBeforeLoad } from './load-plan.ts';
import type { FieldValue, PagePayload, RecordData } from './page-payload.ts';
import type { Anchor, ChangeAnchor, KeepingForm } from './node-parts.ts';

const compiledParts = new WeakMap<object, CompiledApp>();

/** A page’s payload, and the ways to make its texts and addresses. */
export class PageView implements ViewContext {
  readonly payload: PagePayload;
  readonly app: CompiledApp;
  readonly evaluator: Evaluator;
  readonly values: Values;
  readonly say: Say;
  readonly #shows: ShowTable;
  /** Names of the forms that the page shows: no other is taken. */
  readonly forms = new Set<string>();
  #ids = 0;

  constructor(payload: PagePayload, { cel, types, shows, seals, phrases }: ShowTools) {
    this.payload = payload;
    this.#shows = shows;
    this.values = payload.reading.values;
    this.say = sayIn(this.language, payload.app.phrases, phrases);
    let app = compiledParts.get(payload.app);
    if (!app) compiledParts.set(payload.app, (app = compileApp(payload.app, { types }).app));
    this.app = withContext(app, { today: () => payload.today, seals: seals ?? new SealBook(payload.seals) });
    const { records, rows } = payload.data;
    const each = <Value>(pick: (read: (typeof rows)[string]) => Value) =>
      Object.fromEntries(Object.entries(rows).map(([name, read]) => [name, pick(read)]));
    const scope: Record<string, unknown> = {
      ...scopeBeforeLoad(payload.app, this.values, payload),
      record: records,
      rows: each((read) => read.rows),
      total: each((read) => read.total),
      figures: each((read) => read.figures ?? {}),
      label: {},
      word: wordsIn(payload.app.words, this.language),
    };
    const scopeTypes = pageScopeTypes(payload.app, payload.page);
    const inWords = new Evaluator(scope, scopeTypes, celWith(payload.programs, cel), this.say);
    scope['label'] = labelsOf(payload.app, payload.page, this.values, payload.data, (text) => inWords.text(text));
    this.evaluator = new Evaluator(scope, scopeTypes, celWith(payload.programs, cel), this.say);
  }

  /** How a parameter of the page, or of the whole app, is declared. */
  declaration(name: string): ParameterDeclaration | undefined {
    return this.payload.page.parameters?.[name] ?? this.payload.app.parameters?.[name];
  }

  /** BCP 47 tag of the language that the page is in. */
  get language(): string {
    return languageOf(this.payload.app, this.values);
  }

  show(component: Component): AnyNode | undefined {
    return this.#shows[component.show]?.(component as never, this);
  }

  /** What components show; those whose condition does not hold are left out. */
  showAll(content: readonly Component[]): AnyNode[] {
    return content
      .filter((component) => this.evaluator.holds(component.when))
      .map((component) => {
        const node = this.show(component);
        return node === undefined || component.place === undefined ? node : { ...node, place: component.place };
      })
      .filter((node) => node !== undefined);
  }

  /** A name that nothing else on the page has. */
  newId(): string {
    return `part-${String(++this.#ids)}`;
  }

  choice(definition: ChoiceDefinition): string {
    return this.text(choiceLabel(definition));
  }

  text(text: string | undefined, otherwise = ''): string {
    return text === undefined ? otherwise : this.evaluator.text(text);
  }

  /** The address that a link leads to; undefined where a value is missing or refused. */
  href(link: LinkDefinition, evaluator = this.evaluator): string | undefined {
    return writeAddress(this.app, link.page, this.linkValues(link, evaluator), { present: this.values, newLink: true }).address;
  }

  /** The values that a link sends. */
  linkValues(link: LinkDefinition, evaluator = this.evaluator): Values {
    const values = this.kept(link);
    for (const [name, given] of Object.entries(link.values ?? {})) {
      const value = evaluator.value(given);
      if (value === undefined) Reflect.deleteProperty(values, name);
      else values[name] = this.#asWritten(link.page, name, value);
    }
    return this.carrying(link.page, values, link.withVisit);
  }

  /** Values with those remembered for the visit that are to go along; what is stated already stays. */
  carrying(page: string, values: Values, withVisit: true | readonly string[] | undefined): Values {
    if (withVisit === undefined) return values;
    const remembered = [...(this.app.pages.get(page)?.byName.values() ?? [])].filter((parameter) => parameter.remembered);
    const names = remembered.map(({ name }) => name).filter((name) => withVisit === true || withVisit.includes(name));
    const { visit } = this.payload;
    return { ...Object.fromEntries(names.flatMap((name) => (visit[name] === undefined ? [] : [[name, visit[name]]]))), ...values };
  }

  /** Values remembered for the visit, as addresses hold them. */
  visitTexts(names: readonly string[]): [string, string][] {
    const declared = this.app.pages.get(this.payload.name)?.byName;
    return names.flatMap((name) => {
      const plain = declared?.get(name)?.plain;
      const text = plain && writePlainText(plain, this.payload.visit[name]);
      return typeof text === 'string' ? [[name, text]] : [];
    });
  }

  /** The present values that a link takes along: those that its page accepts under the same names. */
  kept({ page, keep }: Pick<LinkDefinition, 'page' | 'keep'>): Values {
    const kept: Values = {};
    const target = this.app.pages.get(page);
    if (keep === undefined || target === undefined) return kept;
    for (const { name, parameter, declaration } of target.parameters) {
      const value = this.values[name];
      if (value === undefined || declaration.once === true || (keep !== true && !keep.includes(name))) continue;
      if (parameter.write(value) !== undefined) kept[name] = value;
    }
    return kept;
  }

  anchor(text: string, link: LinkDefinition | undefined, evaluator = this.evaluator): Anchor {
    const href = link && this.href(link, evaluator);
    return href === undefined
      ? { text }
      : { text, href, ...(link?.window === 'new' ? { newWindow: this.say('(opens in a new window)') } : {}) };
  }

  /** A text for a parameter that is no text, such as a sort order written out in the app file. */
  #asWritten(page: string, name: string, value: unknown): Values[string] {
    const plain = this.app.pages.get(page)?.byName.get(name)?.plain;
    const read = typeof value === 'string' && plain ? valueFrom(value, plain) : value;
    return (read instanceof Refusal ? value : read) as Values[string];
  }

  change(changes: Values): AppChange {
    return changeValues(this.app, this.payload.name, this.values, changes);
  }

  changeAnchor(text: string, change: Values): ChangeAnchor {
    return { text, change, href: this.change(change).written.address ?? '' };
  }

  keepingForm(changed: string | readonly string[], dropped: readonly string[] = []): KeepingForm {
    const boxes = typeof changed === 'string' ? [changed] : changed;
    const { byName } = this.app.pages.get(this.payload.name) ?? {};
    const resets = boxes.flatMap((name) => byName?.get(name)?.resets ?? []);
    // What the page cannot do without stays in the address until the box takes its place.
    const gone = [...boxes, ...resets, ...dropped].filter((name) => byName?.get(name)?.required !== true);
    const next = this.change(Object.fromEntries(gone.map((name) => [name, undefined])));
    return this.formFor(this.payload.name, next.written.address, boxes, this.values);
  }

  formFor(page: string, address: string | undefined, boxes: readonly string[] = [], values: Values = {}): KeepingForm {
    const target = this.app.pages.get(page);
    const [path = '', query = ''] = address?.split('?') ?? [];
    const keeps = query
      .split('&')
      .filter((pair) => pair !== '')
      .flatMap((pair) => {
        const [name = '', text = ''] = pair.split('=');
        if (boxes.includes(name)) return [];
        // A list is kept item by item: a form would encode the commas between them.
        const several = target?.byName.get(name)?.parameter.joins === joinItems;
        return (several ? text.split(',') : [text]).map((item) => ({ name, value: decodeForShow(unprotect(item)) }));
      });
    if (target === undefined || (address !== undefined && !target.path.some(({ name }) => boxes.includes(name))))
      return { action: path, keeps };
    const { mount } = this.app;
    const template = pathTemplate(this.payload.app.pages[page]?.address ?? '');
    // Without an address there are only the values themselves.
    const missing = address === undefined ? target.parameters : target.path;
    const others = missing.flatMap(({ name, plain }) => {
      const text = boxes.includes(name) || values[name] === undefined ? undefined : writePlainText(plain, values[name]);
      return typeof text === 'string' ? [{ name, value: text }] : [];
    });
    return { action: `${mount}/~to/${page}`, keeps: [...others, ...keeps], path: mount + template };
  }

  /** A field, or a field of a reference (`house.name`), of a record of this collection, as people read it. */
  fieldAt(collection: string, path: string, record: RecordData): ShownField {
    const [first = '', second] = path.split('.');
    const definition = this.payload.app.collections?.[collection]?.fields[first];
    const inner = record[first];
    if (second === undefined) {
      // A file leads to itself.
      const href = definition?.type === 'file' && typeof inner === 'string' ? this.fileAddress(inner) : undefined;
      const text = this.field(definition, inner);
      return { label: this.fieldLabel(collection, first), value: href === undefined ? { text } : { text, href }, definition };
    }
    return this.fieldAt(definition?.of ?? '', second, typeof inner === 'object' ? inner : {});
  }

  /** A field’s value as people read it: labels for choices, titles for records. */
  field(definition: FieldDefinition | undefined, value: FieldValue | undefined): string {
    if (definition?.type === 'choice' && typeof value === 'string')
      return this.choice(this.payload.app.choices?.[definition.of ?? '']?.[value] ?? value);
    if (definition?.type === 'record' && typeof value === 'object') return recordTitle(this.payload.app, definition.of ?? '', value);
    return definition?.type === 'file' && typeof value === 'string' ? fileNameIn(value) : display(value);
  }

  /** Where a file of the app is, or a file that a visitor has sent; undefined for what is neither. */
  fileAddress(file: string): string | undefined {
    const path = filePath(file);
    return path === '' ? undefined : `${this.app.mount}/~files/${path}`;
  }

  fieldLabel(collection: string | undefined, field: string): string {
    const label = this.payload.app.collections?.[collection ?? '']?.fields[field]?.label;
    return label === undefined ? spoken(field) : this.text(label);
  }
}
