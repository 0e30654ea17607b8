import { toPointer, type Problem } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import { fillIn } from './fill-in.ts';

type Place = (string | number)[];
type Data = Record<string, unknown>;

/** Where a page uses a block: what stands below `content` there is written under the block. */
export interface BlockUse {
  /** Pointer to the component in the expanded app. */
  at: string;
  block: string;
}

/** An app with the content of its blocks in every place that uses one. */
export interface ExpandedApp {
  data: unknown;
  uses: readonly BlockUse[];
  problems: readonly Problem[];
}

/** What was found of one page; places are below the page. */
interface ExpandedPage {
  blocks: unknown;
  page: Data;
  uses: { at: Place; block: string }[];
  problems: { at: Place; problem: Omit<Problem, 'pointer' | 'severity'> }[];
}

/** Components that the blocks of a page bring before no more blocks are put in: blocks in blocks could grow without bound. */
const mostComponents = 5000;

const isMap = (value: unknown): value is Data => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Pages that have not changed are the same objects again. */
const known = new WeakMap<object, ExpandedPage>();

/** Puts the content of blocks where pages use them. An app without blocks is the same object again. */
export function expandBlocks(data: unknown): ExpandedApp {
  if (!isMap(data) || !isMap(data['blocks']) || !isMap(data['pages'])) return { data, uses: [], problems: [] };
  const { blocks } = data;
  const uses: BlockUse[] = [];
  const problems: Problem[] = [];
  const pages: Data = {};
  for (const [name, page] of Object.entries(data['pages'])) {
    pages[name] = page;
    if (!isMap(page)) continue;
    let expanded = known.get(page);
    if (expanded?.blocks !== blocks) known.set(page, (expanded = new PageExpansion(blocks).expand(page)));
    pages[name] = expanded.page;
    uses.push(...expanded.uses.map(({ at, block }) => ({ at: toPointer(['pages', name, ...at]), block })));
    problems.push(
      ...expanded.problems.map(({ at, problem }): Problem => ({
        ...problem,
        severity: 'error',
        pointer: toPointer(['pages', name, ...at]),
      })),
    );
  }
  return { data: { ...data, pages }, uses, problems };
}

class PageExpansion {
  readonly #blocks: Data;
  readonly #uses: ExpandedPage['uses'] = [];
  readonly #problems: ExpandedPage['problems'] = [];
  #components = 0;
  #isFull = false;

  constructor(blocks: Data) {
    this.#blocks = blocks;
  }

  expand(page: Data): ExpandedPage {
    const content = this.#content(page['content'], ['content'], []);
    const expanded = this.#uses.length === 0 && this.#problems.length === 0 ? page : { ...page, content };
    return { blocks: this.#blocks, page: expanded, uses: this.#uses, problems: this.#problems };
  }

  /** @param within names of the blocks that it stands in */
  #content(content: unknown, at: Place, within: readonly string[]): unknown {
    return Array.isArray(content) ? content.map((component, index) => this.#component(component, [...at, index], within)) : content;
  }

  #component(component: unknown, at: Place, within: readonly string[]): unknown {
    if (!isMap(component)) return component;
    if (within.length > 0) this.#components++;
    if (component['show'] === 'block') return this.#block(component, at, within);
    const { content, panes } = component;
    if (content !== undefined) return { ...component, content: this.#content(content, [...at, 'content'], within) };
    if (!isMap(panes)) return component;
    const entries = Object.entries(panes).map(([name, inner]) => [name, this.#content(inner, [...at, 'panes', name], within)]);
    return { ...component, panes: Object.fromEntries(entries) as Data };
  }

  #block(component: Data, at: Place, within: readonly string[]): unknown {
    const { of, values } = component;
    const block = typeof of === 'string' && Object.hasOwn(this.#blocks, of) ? this.#blocks[of] : undefined;
    if (typeof of !== 'string' || !isMap(block)) return { ...component, content: [] };
    if (within.includes(of)) {
      const way = [...within.slice(within.indexOf(of)), of].map((name) => `“${name}”`).join(' in ');
      this.#report([...at, 'of'], 'block-in-itself', `The block “${of}” stands in itself: ${way}.`, 'Remove one of the two.');
      return { ...component, content: [] };
    }
    if (this.#components > mostComponents) {
      if (!this.#isFull)
        this.#report(
          [...at, 'of'],
          'too-many-blocks',
          `The blocks of the page bring more than ${String(mostComponents)} components.`,
          'Use fewer blocks within blocks.',
        );
      this.#isFull = true;
      return { ...component, content: [] };
    }
    this.#uses.push({ at, block: of });
    const takes = isMap(block['takes']) ? block['takes'] : {};
    const given = isMap(values) ? values : {};
    const inputs = new Map(
      Object.entries(takes).map(([name, input]) => [name, given[name] ?? (isMap(input) ? input['default'] : undefined)]),
    );
    const unknown = (name: string) => {
      this.#report([...at, 'content'], 'unknown-input', `The block “${of}” takes no “${name}”.`, suggest(name, Object.keys(takes)));
    };
    const filled = fillIn(block['content'] ?? [], inputs, unknown);
    return { ...component, content: this.#content(filled, [...at, 'content'], [...within, of]) };
  }

  #report(at: Place, code: string, message: string, hint: string): void {
    this.#problems.push({ at, problem: { code, message, hint } });
  }
}
