import type { CompiledApp, CompiledPage } from './compiled-app.ts';
import { decodeForShow } from '../percent.ts';
import { readAddress } from './read-address.ts';

/** A stretch of an address, so that its parts can be told apart when it is drawn. */
export interface AddressPart {
  text: string;
  /**
   * - `fixed`: mount, literal segments and the signs between parts;
   * - `path`, `query`: the text of a parameter; `name`: the name of a query parameter;
   * - `strange`: a name or a text that the page does not declare; `fragment`: from “#” on.
   */
  kind: 'fixed' | 'path' | 'name' | 'query' | 'strange' | 'fragment';
  parameter?: string;
}

/** Takes an address apart for drawing. The parts' texts put together are the address, to the last character. */
export function addressParts(app: CompiledApp, address: string): AddressPart[] {
  const page = app.pages.get(readAddress(app, address).page ?? '');
  const [, path = '', query = '', fragment = ''] = /^([^?#]*)(\?[^#]*)?(#.*)?$/s.exec(address) ?? [];
  const parts: AddressPart[] = [];
  const push = (text: string, kind: AddressPart['kind'], parameter?: string) => {
    const last = parts.at(-1);
    if (text === '') return;
    if (kind === 'fixed' && last?.kind === 'fixed') last.text += text;
    else parts.push({ text, kind, ...(parameter === undefined ? {} : { parameter }) });
  };
  if (page && path.startsWith(app.mount)) {
    push(app.mount, 'fixed');
    for (const [index, segment] of path.slice(app.mount.length).split('/').entries()) {
      if (index > 0) push('/', 'fixed');
      const template = page.template.segments[index - 1];
      if (template && 'parameter' in template) push(segment, 'path', template.parameter);
      else push(segment, 'fixed');
    }
  } else push(path, 'fixed');
  for (const [index, pair] of query.slice(1).split('&').entries()) {
    if (query === '') break;
    push(index === 0 ? '?' : '&', 'fixed');
    const equals = pair.indexOf('=');
    const name = equals === -1 ? pair : pair.slice(0, equals);
    const parameter = queryName(page, decodeForShow(name));
    push(name, parameter === undefined ? 'strange' : 'name', parameter);
    if (equals === -1) continue;
    push('=', 'fixed');
    push(pair.slice(equals + 1), parameter === undefined ? 'strange' : 'query', parameter);
  }
  push(fragment, 'fragment');
  return parts;
}

/** Today's name of the query parameter that a name in an address stands for. */
function queryName(page: CompiledPage | undefined, name: string): string | undefined {
  const slot = page?.page.byName.get(name);
  return slot?.inPath === false ? slot.name : undefined;
}

/** Takes an address template apart in the same way. */
export function templateParts(template: string): AddressPart[] {
  return template.split(/(\{[^{}]*\})/).flatMap((text): AddressPart[] => {
    if (text === '') return [];
    if (!text.startsWith('{')) return [{ text, kind: 'fixed' }];
    if (text.startsWith('{?')) {
      const names = text.slice(2, -1).split(',');
      return names.flatMap((name, index): AddressPart[] => [
        { text: index === 0 ? '?' : '&', kind: 'fixed' },
        { text: name, kind: 'query', parameter: name.replace(/\*$/, '') },
      ]);
    }
    const name = text.slice(1, -1);
    return name.startsWith('/')
      ? [
          { text: '/', kind: 'fixed' },
          { text: `${name.slice(1)}?`, kind: 'path', parameter: name.slice(1) },
        ]
      : [{ text: name, kind: 'path', parameter: name }];
  });
}
