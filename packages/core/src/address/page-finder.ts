import { decodeSegment, malformed } from './percent.ts';
import type { AddressTemplate } from './template.ts';

/** One place in the tree of all paths: where a literal leads, where any other segment leads, and who lives here. */
interface Place<Page> {
  literals: Map<string, Place<Page>>;
  other: Place<Page> | undefined;
  page: Page | undefined;
}

const newPlace = <Page>(): Place<Page> => ({ literals: new Map(), other: undefined, page: undefined });

/**
 * Finds the page of a path. A literal segment beats a parameter; where the literal leads nowhere, the parameter is tried.
 * The cost depends on the number of segments, not on the number of pages.
 */
export class PageFinder<Page> {
  readonly #root: Place<Page> = newPlace();

  /** Claims the template's paths for a page. @returns the page that has claimed one of them already, if any */
  claim(template: AddressTemplate, page: Page): Page | undefined {
    let place = this.#root;
    let rival: Page | undefined;
    for (const segment of template.segments) {
      if ('literal' in segment) {
        let next = place.literals.get(segment.literal);
        if (!next) place.literals.set(segment.literal, (next = newPlace()));
        place = next;
      } else {
        if (segment.optional) {
          rival ??= place.page;
          place.page ??= page;
        }
        place = place.other ??= newPlace();
      }
    }
    rival ??= place.page === page ? undefined : place.page;
    place.page ??= page;
    return rival;
  }

  /**
   * @param path from after the mount to before `?`, beginning with “/” or empty
   * @param captured receives the raw texts of the segments that parameters took, in order
   */
  find(path: string, captured: string[]): Page | undefined {
    return this.#walk(this.#root, path, path.startsWith('/') ? 1 : 0, captured);
  }

  #walk(place: Place<Page>, path: string, start: number, captured: string[]): Page | undefined {
    if (start >= path.length) return place.page;
    const slash = path.indexOf('/', start);
    const end = slash === -1 ? path.length : slash;
    const segment = path.slice(start, end);
    const literal = place.literals.get(segment.includes('%') ? decodedOrSame(segment) : segment);
    if (literal !== undefined) {
      const page = this.#walk(literal, path, end + 1, captured);
      if (page !== undefined) return page;
    }
    if (place.other === undefined || segment === '') return undefined;
    captured.push(segment);
    const page = this.#walk(place.other, path, end + 1, captured);
    if (page === undefined) captured.pop();
    return page;
  }
}

function decodedOrSame(segment: string): string {
  const decoded = decodeSegment(segment);
  return decoded === malformed ? segment : decoded;
}
