import { changeValues, type Change } from '../address/change.ts';
import { compileApp } from '../address/compile.ts';
import type { CompiledApp } from '../address/compiled-app.ts';
import { decodeForShow } from '../address/percent.ts';
import { valueFrom } from '../address/value-text.ts';
import { writeAddress } from '../address/write.ts';
import type { FieldDefinition } from '../definition/app-schema.ts';
import type { LinkDefinition } from '../definition/schema-parts.ts';
import { display, Evaluator } from '../expressions/evaluator.ts';
import { pageScopeTypes } from '../expressions/page-scope.ts';
import { Refusal } from '../parameters/codec.ts';
import type { Values } from '../parameters/declaration.ts';
import { choiceLabel, type ShowTools } from './tools.ts';
import { scopeBeforeLoad } from './load-plan.ts';
import type { FieldValue, PageMaterial, RecordData } from './material.ts';
import type { Anchor, ChangeAnchor, KeepingForm } from './nodes.ts';

const compiledParts = new WeakMap<object, CompiledApp>();

/** What every component’s file in this folder works with: the page’s material, and the ways to make texts and addresses. */
export class Shower {
  readonly material: PageMaterial;
  readonly app: CompiledApp;
  readonly evaluator: Evaluator;
  readonly values: Values;
  #ids = 0;

  constructor(material: PageMaterial, { cel, types }: ShowTools) {
    this.material = material;
    this.values = material.reading.values;
    let app = compiledParts.get(material.app);
    if (!app) compiledParts.set(material.app, (app = compileApp(material.app, { types, today: () => material.today }).app));
    this.app = app;
    const { records, reads } = material.data;
    const each = <Value>(pick: (read: (typeof reads)[string]) => Value) =>
      Object.fromEntries(Object.entries(reads).map(([name, read]) => [name, pick(read)]));
    this.evaluator = new Evaluator(
      {
        ...scopeBeforeLoad(material.app, this.values, material.person),
        record: records,
        rows: each((read) => read.rows),
        total: each((read) => read.total),
      },
      pageScopeTypes(material.app, material.page),
      cel,
    );
  }

  /** A name that nothing else on the page has. */
  newId(): string {
    return `part-${String(++this.#ids)}`;
  }

  text(text: string | undefined, otherwise = ''): string {
    return text === undefined ? otherwise : this.evaluator.text(text);
  }

  /** The address that a link leads to; undefined where a value is missing or refused. */
  href(link: LinkDefinition, evaluator = this.evaluator): string | undefined {
    const values: Values = {};
    for (const [name, given] of Object.entries(link.values ?? {})) {
      const value = evaluator.value(given);
      if (value !== undefined) values[name] = this.#asWritten(link.page, name, value);
    }
    return writeAddress(this.app, link.page, values, { present: this.values }).address;
  }

  anchor(text: string, link: LinkDefinition | undefined, evaluator = this.evaluator): Anchor {
    const href = link && this.href(link, evaluator);
    return href === undefined ? { text } : { text, href };
  }

  /** A text for a parameter that is no text, such as a sort order written out in the app file. */
  #asWritten(page: string, name: string, value: unknown): Values[string] {
    const codec = this.app.pages.get(page)?.byName.get(name)?.codec;
    const read = typeof value === 'string' && codec ? valueFrom(value, codec) : value;
    return (read instanceof Refusal ? value : read) as Values[string];
  }

  change(changes: Values): Change {
    return changeValues(this.app, this.material.name, this.values, changes);
  }

  changeAnchor(text: string, change: Values): ChangeAnchor {
    return { text, change, href: this.change(change).written.address ?? '' };
  }

  /** A GET form that changes one parameter and keeps the others, as far as the change does not reset them. */
  keepingForm(changed: string): KeepingForm {
    const resets = this.app.pages.get(this.material.name)?.byName.get(changed)?.resets ?? [];
    const next = this.change(Object.fromEntries([changed, ...resets].map((name) => [name, undefined])));
    const [action = '', query = ''] = (next.written.address ?? '').split('?');
    const keeps = query
      .split('&')
      .filter((pair) => pair !== '')
      .flatMap((pair) => {
        const [name = '', text = ''] = pair.split('=');
        // A list is kept item by item: a form would encode the commas between them.
        const several = this.app.pages.get(this.material.name)?.byName.get(name)?.codec.several !== undefined;
        return (several ? text.split(',') : [text]).map((item) => ({ name, value: decodeForShow(item) }));
      });
    return { action, keeps };
  }

  /** A field’s value as people read it: labels for choices, titles for records. */
  field(definition: FieldDefinition | undefined, value: FieldValue | undefined): string {
    if (definition?.type === 'choice' && typeof value === 'string')
      return choiceLabel(this.material.app.choices?.[definition.of ?? '']?.[value] ?? value);
    if (definition?.type === 'record' && typeof value === 'object') return this.recordTitle(definition.of ?? '', value);
    return display(value);
  }

  recordTitle(collection: string, record: RecordData): string {
    const definition = this.material.app.collections?.[collection];
    return display(record[definition?.title ?? ''] ?? record[definition?.key ?? '']);
  }

  fieldLabel(collection: string | undefined, field: string): string {
    return this.material.app.collections?.[collection ?? '']?.fields[field]?.label ?? spoken(field);
  }
}

/** A name from the app file as words: “lastSeen” and “last-seen” become “Last seen”. */
export function spoken(name: string): string {
  const words = name
    .replaceAll(/[-_]+/g, ' ')
    .replaceAll(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}
