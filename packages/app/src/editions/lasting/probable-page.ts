import { parseTemplate } from '@pallmist/address/declare';
import { nearest } from '@pallmist/address/explain';
import { decodeForShow, readAddress, writeAddress, type CompiledApp } from '@pallmist/address/pages';
import type { AppDefinition } from '../../definition/app-schema.ts';

/** The page that an address of no page probably meant. */
export interface ProbablePage {
  page: string;
  /** Today's address of what was meant. */
  address: string;
  /** The template under which the page would also be found: as a former address of it. */
  template: string;
}

/**
 * The page whose address differs from a path by a slip in its literals: `/specimen/QM-0412` meant `/specimens/QM-0412`.
 * @param path with the mount, or a former one, and without a query
 * @returns undefined where none is near, or several are
 */
export function probablePage(path: string, { pages, formerMounts = [] }: AppDefinition, compiled: CompiledApp): ProbablePage | undefined {
  const mounts = [compiled.mount, ...formerMounts.map((mount) => (mount === '/' ? '' : mount))];
  const mount = mounts.find((one) => path.startsWith(`${one}/`));
  if (mount === undefined) return undefined;
  const given = path
    .slice(mount.length + 1)
    .replace(/\/$/, '')
    .split('/');
  let best: { slips: number; found: ProbablePage[] } = { slips: Infinity, found: [] };
  for (const [page, { address }] of Object.entries(pages)) {
    const { segments } = parseTemplate(address).template;
    if (segments.length !== given.length) continue;
    let slips = 0;
    const template = given.map((text, index) => {
      const segment = segments[index];
      if (segment === undefined || 'parameter' in segment) return `{${segment?.parameter ?? ''}}`;
      const plain = decodeForShow(text);
      if (plain !== segment.literal) slips += nearest(plain, [segment.literal]) === undefined ? Infinity : 1;
      return text;
    });
    if (slips === 0 || slips > best.slips || slips === Infinity) continue;
    const today = segments.map((segment, index) => ('literal' in segment ? encodeURIComponent(segment.literal) : (given[index] ?? '')));
    const reading = readAddress(compiled, `${compiled.mount}/${today.join('/')}`);
    const { address: written } = reading.status === 'found' ? writeAddress(compiled, page, reading.values) : {};
    if (reading.page !== page || written === undefined) continue;
    const found = { page, address: written, template: `/${template.join('/')}` };
    best = slips < best.slips ? { slips, found: [found] } : { slips, found: [...best.found, found] };
  }
  return best.found.length === 1 ? best.found[0] : undefined;
}
