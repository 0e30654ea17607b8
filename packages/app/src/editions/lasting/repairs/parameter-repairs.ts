import { formatTemplate, parseTemplate, toPointer, type ParameterDeclaration, type PatchOperation } from '@pallmist/address/declare';
import type { AppDefinition } from '../../../definition/app-definition.ts';
import type { Found } from '../promised-page.ts';
import { pagesList } from '../page-version.ts';
import { held, put, todaysPage, type Repair } from './repair.ts';

export function notRequired(found: Found, today: AppDefinition): Repair[] {
  const { place, name, now } = held(found, today) ?? {};
  if (place === undefined || name === undefined || now?.required !== true) return [];
  return [
    {
      kind: 'repair',
      words: `Do not require “${name}”: the page opens without it.`,
      patch: [{ op: 'remove', path: toPointer([...place, name, 'required']) }],
      certain: false,
    },
  ];
}

export function renamedParameter(found: Found, today: AppDefinition): Repair[] {
  const { version, parameter = '' } = found;
  const name = todaysPage(found, today);
  const { then } = held(found, today) ?? {};
  if (name === undefined || then === undefined) return [];
  const former = version.app.pages[version.page]?.parameters ?? {};
  const present = Object.entries(today.pages[name]?.parameters ?? {});
  const alike = present.filter(
    ([one, { type, of, formerNames }]) =>
      !Object.hasOwn(former, one) && formerNames === undefined && type === then.type && of === todaysList(then),
  );
  return alike.map(([one, { formerNames }]) => ({
    kind: 'repair',
    words: `Note “${parameter}” as a former name of “${one}”.`,
    patch: [put(formerNames, ['pages', name, 'parameters', one, 'formerNames'], parameter)],
    certain: alike.length === 1,
  }));
}

const todaysList = ({ of }: ParameterDeclaration) => (of === pagesList ? undefined : of);

export function newLinksOnly(found: Found, today: AppDefinition): Repair[] {
  const { place, name, now, then } = held(found, today) ?? {};
  if (place === undefined || name === undefined || now?.default === undefined || then?.default === undefined) return [];
  const at = [...place, name];
  return [
    {
      kind: 'repair',
      words: `Keep ${told(then.default)} as what an address without “${name}” means, and write ${told(now.default)} into new links.`,
      patch: [
        { op: 'replace', path: toPointer([...at, 'default']), value: then.default },
        { op: now.inNewLinks === undefined ? 'add' : 'replace', path: toPointer([...at, 'inNewLinks']), value: now.default },
      ],
      certain: false,
    },
  ];
}

/** A value as people read it. */
const told = (value: unknown) => (typeof value === 'string' ? `“${value}”` : JSON.stringify(value));

/** Attributes of a parameter as they were, or all of it. */
export function parameterPutBack(found: Found, today: AppDefinition, attributes?: readonly (keyof ParameterDeclaration)[]): Repair[] {
  const { place, name, now, then } = held(found, today) ?? {};
  if (place === undefined || name === undefined || then === undefined) return [];
  const former: ParameterDeclaration = then.of === pagesList ? { ...then, type: 'page', of: undefined } : then;
  if (now === undefined) {
    const page = place[0] === 'pages' ? today.pages[place[1] ?? ''] : undefined;
    const { template } = parseTemplate(page?.address ?? '');
    const address = formatTemplate({ ...template, query: [...template.query, name] });
    const isFirst = page !== undefined && page.parameters === undefined;
    return [
      {
        kind: 'put-back',
        words: `Put the parameter “${name}” back.`,
        patch: [
          ...(page === undefined ? [] : [{ op: 'replace' as const, path: toPointer([...place.slice(0, -1), 'address']), value: address }]),
          isFirst
            ? { op: 'add', path: toPointer(place), value: { [name]: former } }
            : { op: 'add', path: toPointer([...place, name]), value: former },
        ],
        certain: false,
      },
    ];
  }
  if (attributes === undefined) {
    const { label, help, step, resets, share, formerNames } = now;
    const rest = Object.fromEntries(
      Object.entries({ label, help, step, resets, share, formerNames }).filter(([, value]) => value !== undefined),
    );
    const value = Object.fromEntries(Object.entries({ ...former, ...rest }).filter(([, kept]) => kept !== undefined));
    return [
      {
        kind: 'put-back',
        words: `Put the declaration of “${name}” back.`,
        patch: [{ op: 'replace', path: toPointer([...place, name]), value }],
        certain: false,
      },
    ];
  }
  const changed = attributes.filter((attribute) => JSON.stringify(now[attribute]) !== JSON.stringify(former[attribute]));
  if (changed.length === 0) return [];
  return [
    {
      kind: 'put-back',
      words: `Put ${changed.map((attribute) => `“${attribute}”`).join(' and ')} of “${name}” back.`,
      patch: changed.map((attribute): PatchOperation => {
        const path = toPointer([...place, name, attribute]);
        if (former[attribute] === undefined) return { op: 'remove', path };
        return { op: now[attribute] === undefined ? 'add' : 'replace', path, value: former[attribute] };
      }),
      certain: false,
    },
  ];
}
