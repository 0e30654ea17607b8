import {
  formatTemplate,
  formerTemplate,
  parseTemplate,
  withTemplate,
  toPointer,
  type ParameterDeclaration,
  type PatchOperation,
} from '@pallmist/address/declare';
import type { AppDefinition } from '../../definition/app-schema.ts';
import type { Found } from './promised-page.ts';
import { pagesList } from './page-version.ts';

/** A change of the draft after which earlier addresses mean again what they meant. */
export interface Repair {
  /** `repair` keeps what the builder has changed; `put-back` takes the change back. */
  kind: 'repair' | 'put-back';
  words: string;
  patch: PatchOperation[];
  /** There is only one thing that it can mean: it may be applied without asking. */
  certain: boolean;
}

/** Repairs that may help against a difference, the best first; whether one does, comparing again shows. */
export function possibleRepairs(found: Found, today: AppDefinition, formerly: AppDefinition | undefined): Repair[] {
  const { kind } = found;
  if (kind === 'app-moved') return movedApp(found, today);
  if (kind === 'no-page') return [...movedPage(found, today), ...pageGone(found, today), ...pagePutBack(found, today, formerly)];
  if (kind === 'other-page') return [...renamedPage(found, today), ...movedPage(found, today), ...pagePutBack(found, today, formerly)];
  if (found.parameter === undefined) return [];
  if (kind === 'missing-value') return notRequired(found, today);
  if (kind === 'tied') return parameterPutBack(found, today, ['tied']);
  if (kind === 'value-ignored') return [...renamedParameter(found, today), ...parameterPutBack(found, today)];
  if (kind === 'value-refused')
    return [...formerChoice(found, today, formerly), ...parameterPutBack(found, today, limits), ...parameterPutBack(found, today)];
  if (kind === 'other-default') return [...newLinksOnly(found, today), ...parameterPutBack(found, today, ['default', 'inNewLinks'])];
  return parameterPutBack(found, today);
}

const limits = [
  'min',
  'max',
  'minLength',
  'maxLength',
  'pattern',
  'minItems',
  'maxItems',
  'unique',
  'fields',
  'blank',
  'required',
  'items',
  'schema',
] as const;

const todaysPage = ({ version: { page } }: Found, { pages }: AppDefinition): string | undefined =>
  Object.hasOwn(pages, page) ? page : Object.keys(pages).find((name) => pages[name]?.formerNames?.includes(page));

const put = (list: readonly unknown[] | undefined, path: readonly (string | number)[], value: unknown): PatchOperation =>
  list === undefined ? { op: 'add', path: toPointer([...path]), value: [value] } : { op: 'add', path: toPointer([...path, '-']), value };

function movedApp({ version: { app } }: Found, { mount, formerMounts }: AppDefinition): Repair[] {
  if (app.mount === mount || formerMounts?.includes(app.mount) === true) return [];
  return [
    {
      kind: 'repair',
      words: `Keep ${app.mount} as a former place of the app: addresses there lead to ${mount}.`,
      patch: [put(formerMounts, ['formerMounts'], app.mount)],
      certain: true,
    },
  ];
}

function movedPage(found: Found, today: AppDefinition): Repair[] {
  const name = todaysPage(found, today);
  const page = name === undefined ? undefined : today.pages[name];
  const then = found.version.app.pages[found.version.page];
  if (name === undefined || page === undefined || then === undefined) return [];
  return [then.address, ...(then.formerAddresses ?? [])].flatMap((former): Repair[] => {
    const template = withTodaysNames(formerTemplate(former), page);
    if (template === undefined) return [];
    return [
      {
        kind: 'repair',
        words: `Keep ${template} as a former address of the page “${name}”.`,
        patch: [put(page.formerAddresses, ['pages', name, 'formerAddresses'], withTemplate(former, template))],
        certain: true,
      },
    ];
  });
}

/** The path of a template with the names that its parameters have today; undefined where one is no more. */
function withTodaysNames(address: string, { address: today, parameters = {} }: AppDefinition['pages'][string]): string | undefined {
  const { template } = parseTemplate(address);
  const todaysName = (name: string) =>
    Object.hasOwn(parameters, name) ? name : Object.keys(parameters).find((one) => parameters[one]?.formerNames?.includes(name));
  const segments: typeof template.segments = [];
  for (const segment of template.segments) {
    if ('literal' in segment) segments.push(segment);
    else {
      const name = todaysName(segment.parameter);
      if (name === undefined) return undefined;
      segments.push({ ...segment, parameter: name });
    }
  }
  // Of a query, only what stands in the path today needs to be told.
  const inPath = parseTemplate(today).template.segments.flatMap((segment) => ('parameter' in segment ? [segment.parameter] : []));
  const given = segments.flatMap((segment) => ('parameter' in segment ? [segment.parameter] : []));
  const query = template.query.flatMap((name) => todaysName(name) ?? []).filter((name) => inPath.includes(name) && !given.includes(name));
  return formatTemplate({ segments, query, repeated: new Set() });
}

function renamedPage({ version, page: taker }: Found, today: AppDefinition): Repair[] {
  const present = taker === undefined ? undefined : today.pages[taker];
  if (taker === undefined || present === undefined || Object.hasOwn(today.pages, version.page)) return [];
  const path = (address: string) => address.replace(/\{\?[^{}]*\}$/, '').replaceAll(/\{(\/?)[^{}]*\}/g, '{$1}');
  if (path(present.address) !== path(version.app.pages[version.page]?.address ?? '')) return [];
  return [
    {
      kind: 'repair',
      words: `Note “${version.page}” as a former name of the page “${taker}”: it is the same page.`,
      patch: [put(present.formerNames, ['pages', taker, 'formerNames'], version.page)],
      certain: true,
    },
  ];
}

function pageGone({ version }: Found, { gone }: AppDefinition): Repair[] {
  const address = (version.app.pages[version.page]?.address ?? '').replace(/\{\?[^{}]*\}$/, '');
  return [
    {
      kind: 'repair',
      words: `Declare ${address} as gone: visitors are told so (410), and no other page can take it.`,
      patch: [put(gone, ['gone'], { address, reason: 'This page was removed.' })],
      certain: false,
    },
  ];
}

function pagePutBack({ version }: Found, today: AppDefinition, formerly: AppDefinition | undefined): Repair[] {
  const page = formerly?.pages[version.page];
  if (page === undefined || Object.hasOwn(today.pages, version.page)) return [];
  return [
    {
      kind: 'put-back',
      words: `Put the page “${version.page}” back.`,
      patch: [{ op: 'add', path: toPointer(['pages', version.page]), value: page }],
      certain: false,
    },
  ];
}

interface Held {
  place: string[];
  name: string;
  now: ParameterDeclaration | undefined;
  then: ParameterDeclaration | undefined;
}

/** A parameter today and as it was, on its page or of the app. */
function held(found: Found, today: AppDefinition): Held | undefined {
  const { version, parameter = '' } = found;
  const page = todaysPage(found, today);
  const ofApp = version.app.parameters?.[parameter];
  const declared =
    ofApp === undefined ? (page === undefined ? undefined : (today.pages[page]?.parameters ?? {})) : (today.parameters ?? {});
  if (declared === undefined) return undefined;
  const place = ofApp === undefined ? ['pages', page ?? '', 'parameters'] : ['parameters'];
  const then = ofApp ?? version.app.pages[version.page]?.parameters?.[parameter];
  const name = Object.hasOwn(declared, parameter)
    ? parameter
    : Object.keys(declared).find((one) => declared[one]?.formerNames?.includes(parameter));
  return { place, name: name ?? parameter, now: name === undefined ? undefined : declared[name], then };
}

function notRequired(found: Found, today: AppDefinition): Repair[] {
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

function renamedParameter(found: Found, today: AppDefinition): Repair[] {
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

function newLinksOnly(found: Found, today: AppDefinition): Repair[] {
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

/** A value of a choices list that is no more: another stands for it, or it comes back. */
function formerChoice(
  { version, before = '', parameter = '' }: Found,
  today: AppDefinition,
  formerly: AppDefinition | undefined,
): Repair[] {
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
    {
      kind: 'put-back',
      words: `Put “${value}” back into the choices list “${list}”.`,
      patch: [{ op: 'add', path: toPointer(['choices', list, value]), value: formerly?.choices?.[list]?.[value] ?? value }],
      certain: false,
    },
  ];
}

const labelOf = (held: string | { label: string } | undefined) => (typeof held === 'object' ? held.label : held);

/** Attributes of a parameter as they were, or all of it. */
function parameterPutBack(found: Found, today: AppDefinition, attributes?: readonly (keyof ParameterDeclaration)[]): Repair[] {
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
