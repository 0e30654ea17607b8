import {
  type DeclaredTypes,
  formerTemplate,
  type ParameterDeclaration,
  type PatchOperation,
  toPointer,
  withTemplate,
} from '@pallmist/address/declare';
import type { FormerAddress } from '@pallmist/address/pages';
import { allParameterTypes } from '../compile-with-all-types.ts';
import type { AppDefinition } from '../definition/app-definition.ts';
import { piecesOf, templateOf, type AddressPiece } from './address-shape.ts';
import { freeName, identifierOf } from './names.ts';
import type { Made } from './page-edits.ts';

/** The JSON Patch that declares a parameter on a page and puts it into its address. */
export function addParameter(
  definition: AppDefinition,
  page: string,
  wanted: string,
  declaration: ParameterDeclaration,
  place: 'path' | 'query' = 'query',
): Made {
  const present = definition.pages[page];
  const taken = [...Object.keys(present?.parameters ?? {}), ...Object.keys(definition.parameters ?? {})];
  const name = freeName(identifierOf(wanted, 'value'), taken);
  if (present === undefined) return { name, patch: [] };
  const pieces = piecesOf(present.address);
  const pathLength = pieces.filter(({ kind }) => kind !== 'query').length;
  const piece: AddressPiece = place === 'path' ? { kind: 'path', name, optional: false } : { kind: 'query', name, repeated: false };
  const longer = place === 'path' ? [...pieces.slice(0, pathLength), piece, ...pieces.slice(pathLength)] : [...pieces, piece];
  const at = ['pages', page, 'parameters'];
  return {
    name,
    patch: [
      { op: 'replace', path: toPointer(['pages', page, 'address']), value: templateOf(longer) },
      present.parameters
        ? { op: 'add', path: toPointer([...at, name]), value: declaration }
        : { op: 'add', path: toPointer(at), value: { [name]: declaration }, before: keyAfterAddress(present) },
    ],
  };
}

/** Parameters stand right after the address that holds them. */
function keyAfterAddress(page: object): string | undefined {
  const keys = Object.keys(page);
  return keys[keys.indexOf('address') + 1];
}

/** The JSON Patch that takes a parameter out of a page and its address. What is bound to it is left for the check to find. */
export function removeParameter(definition: AppDefinition, page: string, name: string): PatchOperation[] {
  const present = definition.pages[page];
  if (present?.parameters?.[name] === undefined) return [];
  const without = (template: string) => templateOf(piecesOf(template).filter((piece) => piece.kind === 'fixed' || piece.name !== name));
  const patch: PatchOperation[] = [
    { op: 'replace', path: toPointer(['pages', page, 'address']), value: without(present.address) },
    Object.keys(present.parameters).length === 1
      ? { op: 'remove', path: toPointer(['pages', page, 'parameters']) }
      : { op: 'remove', path: toPointer(['pages', page, 'parameters', name]) },
  ];
  for (const [other, { resets }] of Object.entries(present.parameters)) {
    if (other === name || !resets?.includes(name)) continue;
    const left = resets.filter((reset) => reset !== name);
    const at = toPointer(['pages', page, 'parameters', other, 'resets']);
    patch.push(left.length === 0 ? { op: 'remove', path: at } : { op: 'replace', path: at, value: left });
  }
  if (present.formerAddresses !== undefined) {
    const at = toPointer(['pages', page, 'formerAddresses']);
    patch.push({
      op: 'replace',
      path: at,
      value: present.formerAddresses.map((one) => withoutValue(withTemplate(one, without(formerTemplate(one))), name)),
    });
  }
  return patch;
}

/** A former address that implies no value for a parameter. */
function withoutValue(former: FormerAddress, name: string): FormerAddress {
  if (typeof former === 'string' || !Object.hasOwn(former.values, name)) return former;
  const { [name]: _, ...values } = former.values;
  return Object.keys(values).length === 0 ? former.address : { address: former.address, values };
}

/** What means nothing, or another thing, for another type. */
const ofSomeTypes = new Set<string>([
  ...Object.values(allParameterTypes).flatMap(({ attributes }) => attributes),
  'default',
  'sample',
  'formerValues',
  'goneValues',
  'inNewLinks',
]);

/** What `of` may name for a type of parameters or fields. */
export function namesForType(definition: AppDefinition, type: string): string[] {
  if (type === 'choice') return Object.keys(definition.choices ?? {});
  if (type === 'record' || type === 'sort') return Object.keys(definition.collections ?? {});
  return type === 'range' ? ['integer', 'number', 'date'] : [];
}

/** The JSON Patch that gives a parameter another type, without what the new one does not understand. */
export function changeParameterType(
  definition: AppDefinition,
  pointer: string,
  present: ParameterDeclaration,
  type: string,
): PatchOperation[] {
  const patch: PatchOperation[] = [{ op: 'replace', path: `${pointer}/type`, value: type }];
  for (const attribute of Object.keys(present))
    if (ofSomeTypes.has(attribute)) patch.push({ op: 'remove', path: `${pointer}/${attribute}` });
  const [first] = namesForType(definition, type);
  if (first !== undefined) patch.push({ op: 'add', path: `${pointer}/of`, value: first });
  if (type === 'list') patch.push({ op: 'add', path: `${pointer}/items`, value: { type: 'text' } });
  return patch;
}

/** Which attributes mean something for a parameter, beside its name and type. */
export function attributesFor({ type }: ParameterDeclaration, inPath: boolean): ReadonlySet<string> {
  const ofAll = ['label', 'help', 'sample', 'ifWrong', 'step', 'resets', 'share', 'sealed', 'formerNames'];
  const inQuery = inPath ? [] : ['required', 'default', 'once'];
  return new Set([...ofAll, ...inQuery, ...((allParameterTypes as DeclaredTypes)[type]?.attributes ?? [])]);
}
