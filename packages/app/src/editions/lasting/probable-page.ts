import { nearest } from '@pallmist/address/explain';
import { decodeForShow, readAddress, writeAddress, type CompiledApp } from '@pallmist/address/pages';
import type { AppDefinition } from '../../definition/app-definition.ts';
import { partsOf } from './template-parts.ts';

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
export function probablePage(path: string, definition: AppDefinition, compiled: CompiledApp): ProbablePage | undefined {
  const mounts = [compiled.mount, ...(definition.formerMounts ?? []).map((mount) => (mount === '/' ? '' : mount))];
  const mount = mounts.find((one) => path.startsWith(`${one}/`));
  if (mount === undefined) return undefined;
  const given = path
    .slice(mount.length + 1)
    .replace(/\/$/, '')
    .split('/');
  const slips = slipsOf(definition);
  let best: { slips: number; found: ProbablePage[] } = { slips: Infinity, found: [] };
  for (const name of slips.candidates(given)) {
    const { segments } = partsOf(definition.pages[name]?.address ?? '');
    const count = segments.reduce((sum, segment, index) => {
      return 'parameter' in segment ? sum : sum + slips.between(decodeForShow(given[index] ?? ''), segment.literal);
    }, 0);
    if (count === 0 || count > best.slips || count === Infinity) continue;
    const today = segments.map((segment, index) => ('literal' in segment ? encodeURIComponent(segment.literal) : (given[index] ?? '')));
    const reading = readAddress(compiled, `${compiled.mount}/${today.join('/')}`);
    const { address } = reading.status === 'found' ? writeAddress(compiled, name, reading.values) : {};
    if (reading.page !== name || address === undefined) continue;
    const template = segments.map((segment, index) => ('parameter' in segment ? `{${segment.parameter}}` : (given[index] ?? '')));
    const found = { page: name, address, template: `/${template.join('/')}` };
    best = count < best.slips ? { slips: count, found: [found] } : { slips: count, found: [...best.found, found] };
  }
  return best.found.length === 1 ? best.found[0] : undefined;
}

/** Texts of which it is kept what is near: the same ones are followed again and again. */
const mostKept = 2000;

/** The first literals of an app's templates, and which of them a text may have meant. */
class Slips {
  /** Names of pages by the number of segments and the first literal, `*` for a parameter. */
  readonly #pages = new Map<string, string[]>();
  readonly #literals = new Set<string>();
  readonly #near = new Map<string, readonly string[]>();

  constructor({ pages }: AppDefinition) {
    for (const [name, { address }] of Object.entries(pages)) {
      const { segments } = partsOf(address);
      const [first] = segments;
      const literal = first !== undefined && 'literal' in first ? first.literal : '*';
      if (literal !== '*') this.#literals.add(literal);
      const key = `${String(segments.length)} ${literal}`;
      this.#pages.set(key, [...(this.#pages.get(key) ?? []), name]);
    }
  }

  /** Pages with as many segments, whose first literal is near. */
  candidates(given: readonly string[]): string[] {
    const length = String(given.length);
    const firsts = ['*', ...this.#nearTo(decodeForShow(given[0] ?? ''))];
    return firsts.flatMap((first) => this.#pages.get(`${length} ${first}`) ?? []);
  }

  /** 0 for the same text, 1 for one that is near, else more than any address can have. */
  between(text: string, literal: string): number {
    return text === literal ? 0 : nearest(text, [literal]) === undefined ? Infinity : 1;
  }

  #nearTo(text: string): readonly string[] {
    let near = this.#near.get(text);
    if (near === undefined) {
      near = [...this.#literals].filter((literal) => this.between(text, literal) < Infinity);
      if (this.#near.size >= mostKept) this.#near.clear();
      this.#near.set(text, near);
    }
    return near;
  }
}

const known = new WeakMap<AppDefinition, Slips>();

function slipsOf(definition: AppDefinition): Slips {
  let slips = known.get(definition);
  if (slips === undefined) known.set(definition, (slips = new Slips(definition)));
  return slips;
}

/** Per app and beginning of a path: what is near it. */
const beginnings = new WeakMap<AppDefinition, Map<string, string | undefined>>();

/** The path of a page, below the mount, that begins nearly as a text does; undefined where none does. */
export function nearestBeginning(text: string, definition: AppDefinition): string | undefined {
  let kept = beginnings.get(definition);
  if (kept === undefined || kept.size >= mostKept) beginnings.set(definition, (kept = new Map<string, string | undefined>()));
  if (!kept.has(text)) {
    const paths = Object.values(definition.pages).map((page) => page.address.replace(/\/?\{.*$/s, ''));
    kept.set(
      text,
      nearest(
        text,
        paths.filter((one) => one.length > 1),
      ),
    );
  }
  return kept.get(text);
}
