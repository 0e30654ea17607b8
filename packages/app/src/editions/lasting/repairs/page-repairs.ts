import { formatTemplate, formerTemplate, parseTemplate, toPointer, withTemplate } from '@pallmist/address/declare';
import type { AppDefinition } from '../../../definition/app-definition.ts';
import type { Found } from '../promised-page.ts';
import { put, todaysPage, type Repair } from './repair.ts';

export function movedApp({ version: { app } }: Found, { mount, formerMounts }: AppDefinition): Repair[] {
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

export function movedPage(found: Found, today: AppDefinition): Repair[] {
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

export function renamedPage({ version, page: taker }: Found, today: AppDefinition): Repair[] {
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

export function pageGone({ version }: Found, { gone }: AppDefinition): Repair[] {
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

export function pagePutBack({ version }: Found, today: AppDefinition, formerly: AppDefinition | undefined): Repair[] {
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
