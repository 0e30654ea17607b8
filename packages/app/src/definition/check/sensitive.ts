import { expressionsOf } from '../../expressions/template-text.ts';
import { admissionOf } from '../../gate/pass.ts';
import type { FieldTree } from '../../view/field-tree.ts';
import { fieldsOn } from '../../view/page-fields.ts';
import { conditionsOf, operands } from '../operators.ts';
import type { AppDefinition, FieldDefinition, PageDefinition } from '../app-definition.ts';
import { formOf, walkContent } from '../../components/walk-content.ts';
import type { LinkDefinition } from '../app-definition.ts';
import { report, type CheckContext, type Place } from './context.ts';

const path = /[A-Za-z_]\w*(?:\.[A-Za-z_]\w*)+/g;

/** Words for what opens doors: it stands in no address, not even sealed, for addresses are kept in histories and logs. */
const secretName =
  /(?:^|[-_])(?:password|passwd|passphrase|pin-?code|token|secret|api-?key|access-?key|credential|session(?:-?id)?)s?(?:$|[-_])/i;

/** Refuses parameters whose name says that they hold a password or a token. */
export function checkSecrets(context: CheckContext): void {
  const look = (place: Place, names: readonly string[]) => {
    for (const name of names) {
      if (!secretName.test(name.replaceAll(/([a-z])([A-Z])/g, '$1-$2'))) continue;
      report(context, [...place, name], {
        code: 'secret-in-address',
        message: `“${name}” would put a password or a token into an address, where histories, logs and other people find it.`,
        hint: 'Use the sign-in of the app, or give the parameter another name if it is something else.',
      });
    }
  };
  look(['parameters'], Object.keys(context.definition.parameters ?? {}));
  for (const [name, page] of Object.entries(context.definition.pages))
    look(['pages', name, 'parameters'], Object.keys(page.parameters ?? {}));
}

/** A sensitive field enters no address: not by a link, not by a condition on a parameter, not as a key. */
export function checkSensitive(context: CheckContext): void {
  const { collections = {}, pages } = context.definition;
  const fields = Object.values(collections).flatMap((collection) => Object.values(collection.fields));
  if (!fields.some(({ sensitive }) => sensitive === true)) return;
  const refuse = (place: Place, field: string) => {
    report(context, place, {
      code: 'sensitive-in-address',
      message: `This would put the sensitive field “${field}” readable into an address.`,
      hint: 'Send the record’s key instead, and read the field on the page.',
    });
  };
  for (const [name, collection] of Object.entries(collections)) {
    if (collection.fields[collection.keyField]?.sensitive === true) refuse(['collections', name, 'keyField'], collection.keyField);
    for (const [index, former] of (collection.formerKeys ?? []).entries())
      if (collection.fields[former]?.sensitive === true) refuse(['collections', name, 'formerKeys', index], former);
  }
  for (const [name, page] of Object.entries(pages)) {
    const look = (place: Place, target: string, values: LinkDefinition['values'], roots: Roots) => {
      for (const [parameter, value] of Object.entries(values ?? {})) {
        if (context.compiled.pages.get(target)?.byName.get(parameter)?.sealed === true) continue;
        const field = typeof value === 'string' ? sensitiveIn(context, page, value, roots) : undefined;
        if (field !== undefined) refuse([...place, parameter], field);
      }
    };
    for (const { path: below, component, references } of walkContent(page.content)) {
      const place = ['pages', name, ...below];
      for (const { path: at, link, row, saved } of references.links)
        look([...place, ...at, 'values'], link.page, link.values, { row, saved });
      for (const way of references.ways) look([...place, 'values'], way.page, way.values, {});
      const toSite = [...references.texts.map(({ text, ...rest }) => ({ value: text, ...rest })), ...references.values];
      for (const { path: at, value, toSite: leaves } of toSite) {
        const field = leaves && typeof value === 'string' ? sensitiveIn(context, page, value, {}) : undefined;
        if (field !== undefined) refuse([...place, ...at], field);
      }
      const form = formOf(component, page, context.definition);
      if (form?.mail === undefined) continue;
      for (const [link, { to }] of Object.entries(context.definition.mails?.[form.mail]?.links ?? {}))
        look(['mails', form.mail, 'links', link, 'to', 'values'], to.page, to.values, { saved: form.collection });
    }
    for (const [index, rule] of (page.arrival ?? []).entries()) look(['pages', name, 'arrival', index, 'set'], name, rule.set, {});
    for (const [readName, read] of Object.entries(page.rows ?? {})) {
      for (const { key, index, condition } of conditionsOf(read)) {
        const fromAddress = operands<unknown>(condition).some(
          (value) => typeof value === 'string' && expressionsOf(value).some((expression) => readable(page, expression)),
        );
        if (fromAddress && fieldAt(collections, read.from, condition.field)?.sensitive === true)
          refuse(['pages', name, 'rows', readName, key, index], condition.field);
      }
    }
  }
}

/** Points out sensitive fields on pages that are open to everyone, unless only a sealed address leads to their record. */
export function checkOpenSensitive(context: CheckContext): void {
  const { definition } = context;
  const { collections = {} } = definition;
  const sensitiveOf = (collection: string | undefined, tree: FieldTree): string[] =>
    Object.entries(tree).flatMap(([name, below]) => {
      const field = collections[collection ?? '']?.fields[name];
      const inner = field?.type === 'record' ? sensitiveOf(field.of, below) : [];
      return field?.sensitive === true ? [name, ...inner] : inner;
    });
  for (const [name, page] of Object.entries(definition.pages)) {
    if (admissionOf(page.admit, definition.gates) !== 'everyone') continue;
    const { records, rows } = fieldsOn(definition, page, 'sent');
    const shown = [
      ...Object.entries(records).flatMap(([parameter, tree]) => {
        const declared = page.parameters?.[parameter] ?? definition.parameters?.[parameter];
        const isSealed = declared?.sealed !== undefined && declared.sealed !== false;
        return isSealed ? [] : sensitiveOf(declared?.of, tree);
      }),
      ...Object.entries(rows).flatMap(([read, tree]) => sensitiveOf(page.rows?.[read]?.from, tree)),
    ];
    for (const field of new Set(shown))
      report(context, ['pages', name, 'content'], {
        code: 'sensitive-on-open-page',
        severity: 'warning',
        message: `The sensitive field “${field}” stands on the page “${name}”, which is open to everyone.`,
        hint: 'Give the page a gate under “admit”, or let only a sealed parameter lead to the record.',
      });
  }
}

/** Whether an expression takes a value from the address that stands readable in it. */
const readable = (page: PageDefinition, expression: string) =>
  [...expression.matchAll(/\bparam\.\??(\w+)/g)].some(([, name = '']) => {
    const sealed = page.parameters?.[name]?.sealed;
    return sealed === undefined || sealed === false;
  });

/** What the names `row` and `saved` stand for in an expression. */
interface Roots {
  row?: string | undefined;
  saved?: string | undefined;
}

/** What holds no field of a collection. */
const harmless = new Set(['param', 'person', 'app', 'visit', 'label', 'word', 'previous', 'total', 'link']);

/** The sensitive field that a value’s expressions lead to, if any; where a path is not clear, any field of its name. */
function sensitiveIn(context: CheckContext, page: PageDefinition, value: string, { row, saved }: Roots): string | undefined {
  const { collections = {} } = context.definition;
  const named = (name: string) => Object.values(collections).some(({ fields }) => fields[name]?.sensitive === true);
  const recordParameter = (name: string) => page.parameters?.[name] ?? context.definition.parameters?.[name];
  for (const expression of expressionsOf(value)) {
    // row["mail"], row.?mail and rows.found[0].mail are paths as well.
    const plain = expression
      .replaceAll(/\[\s*(["'])(\w+)\1\s*\]/g, '.$2')
      .replaceAll(/\[\s*\d+\s*\]/g, '')
      .replaceAll('.?', '.');
    for (const [found] of plain.matchAll(path)) {
      const [root = '', ...names] = found.split('.');
      if (harmless.has(root)) continue;
      const starts: Record<string, string | undefined> = {
        row: page.rows?.[row ?? '']?.from,
        saved,
        ...(root === 'record' ? { record: recordParameter(names.shift() ?? '')?.of } : {}),
      };
      let collection = collections[starts[root] ?? ''];
      for (const name of names) {
        const field = collection?.fields[name];
        if (collection === undefined ? named(name) : field?.sensitive === true) return name;
        collection = field?.type === 'record' ? collections[field.of ?? ''] : collection;
      }
    }
  }
  return undefined;
}

/** The field that a path over references ends at. */
function fieldAt(collections: NonNullable<AppDefinition['collections']>, from: string, path: string): FieldDefinition | undefined {
  const [first = '', ...further] = path.split('.');
  const field = collections[from]?.fields[first];
  return further.length === 0 || field?.of === undefined ? field : fieldAt(collections, field.of, further.join('.'));
}
