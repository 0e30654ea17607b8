import { toPointer } from '@pallmist/address/declare';
import type { AppDefinition } from '../../../definition/app-definition.ts';
import type { Found } from '../promised-page.ts';
import { held, put, type Repair } from './repair.ts';

/** A value of a choices list that is no more: another stands for it, or it comes back. */
export function formerChoice(found: Found, today: AppDefinition, formerly: AppDefinition | undefined): Repair[] {
  const { version, before = '', parameter = '' } = found;
  const then = version.app.pages[version.page]?.parameters?.[parameter] ?? version.app.parameters?.[parameter];
  const list = then?.of ?? then?.items?.of;
  const present = list === undefined ? undefined : today.choices?.[list];
  if (list === undefined || present === undefined || (then?.type !== 'choice' && then?.items?.type !== 'choice')) return [];
  const former = version.app.choices?.[list] ?? {};
  const gone = Object.keys(former).filter((value) => !Object.hasOwn(present, value) && before.split(',').includes(value));
  const [value] = gone;
  if (value === undefined) return [];
  const label = labelOf(formerly?.choices?.[list]?.[value]);
  const added = Object.entries(present).filter(([one]) => !Object.hasOwn(former, one));
  const heirs = added.filter(([, one]) => labelOf(one) === label);
  const candidates = heirs.length > 0 ? heirs : added;
  const repairs = candidates.map(([one, held]): Repair => ({
    kind: 'repair',
    words: `Note “${value}” as a former value of “${one}”.`,
    patch: [
      typeof held === 'string'
        ? { op: 'replace', path: toPointer(['choices', list, one]), value: { label: held, formerValues: [value] } }
        : put(held.formerValues, ['choices', list, one, 'formerValues'], value),
    ],
    certain: heirs.length === 1,
  }));
  return [
    ...repairs,
    ...valueGone(found, today, value),
    {
      kind: 'put-back',
      words: `Put “${value}” back into the choices list “${list}”.`,
      patch: [{ op: 'add', path: toPointer(['choices', list, value]), value: formerly?.choices?.[list]?.[value] ?? value }],
      certain: false,
    },
  ];
}

/** A value that is no more, declared as gone. */
function valueGone(found: Found, today: AppDefinition, value: string): Repair[] {
  const { place, name, now } = held(found, today) ?? {};
  if (place === undefined || name === undefined || now === undefined || now.type === 'list') return [];
  const at = [...place, name, 'goneValues'];
  const gone = { reason: 'It was removed.' };
  return [
    {
      kind: 'repair',
      words: `Declare “${value}” as gone: visitors are told so, and no other value can take its place.`,
      patch: [
        now.goneValues === undefined
          ? { op: 'add', path: toPointer(at), value: { [value]: gone } }
          : { op: 'add', path: toPointer([...at, value]), value: gone },
      ],
      certain: false,
    },
  ];
}

/** The field that named a record is kept as a former key of its collection. */
export function formerKey(found: Found, today: AppDefinition): Repair[] {
  const { now, then } = held(found, today) ?? {};
  if ((then?.items ?? then)?.type !== 'record' || (now?.items ?? now)?.type !== 'record') return [];
  const [was, is] = [then?.of ?? then?.items?.of ?? '', now?.of ?? now?.items?.of ?? ''];
  const present = today.collections?.[is];
  const former = then?.by ?? found.version.app.collections?.[was]?.keyField ?? '';
  const field = present && Object.keys(present.fields).find((one) => one === former || present.fields[one]?.formerNames?.includes(former));
  if (present === undefined || field === undefined || present.formerKeys?.includes(field) === true) return [];
  if (field === (now?.by ?? present.keyField)) return [];
  return [
    {
      kind: 'repair',
      words: `Keep “${field}” as a former key of the collection “${is}”: addresses that name a record by it lead to today’s.`,
      patch: [
        ...(present.fields[field]?.unique === true || present.keyField === field
          ? []
          : [{ op: 'add' as const, path: toPointer(['collections', is, 'fields', field, 'unique']), value: true }]),
        put(present.formerKeys, ['collections', is, 'formerKeys'], field),
      ],
      certain: present.fields[field]?.unique === true,
    },
  ];
}

const labelOf = (held: string | { label: string } | undefined) => (typeof held === 'object' ? held.label : held);
