import type { AddressTemplate } from '../declare/parse-template.ts';
import { decodeForShow, standsAt } from '../percent.ts';

/** One place in the tree of all paths: where a literal leads, where any other segment leads, and who lives here. */
interface Place<Page> {
  /** Missing where no literal leads on. */
  literals: Map<string, Place<Page>> | undefined;
  /** The only literal there is, which most places have, and where it leads: compared without cutting the path. */
  only: string | undefined;
  onlyPlace: Place<Page> | undefined;
  other: Place<Page> | undefined;
  page: Page | undefined;
}

const newPlace = <Page>(): Place<Page> => ({
  literals: undefined,
  only: undefined,
  onlyPlace: undefined,
  other: undefined,
  page: undefined,
});

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
        const literals = (place.literals ??= new Map<string, Place<Page>>());
        let next = literals.get(segment.literal);
        if (!next) {
          literals.set(segment.literal, (next = newPlace()));
          const alone = literals.size === 1;
          place.only = alone ? segment.literal : undefined;
          place.onlyPlace = alone ? next : undefined;
        }
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
   * @param text an address
   * @param start where in it the path begins after the mount: at a “/”, or at `end`
   * @param end where the path ends
   * @param captured receives where the segments that parameters took begin and end, in order
   */
  find(text: string, start: number, end: number, captured: number[]): Page | undefined {
    return walk(this.#root, text, start + 1, end, captured);
  }
}

function walk<Page>(place: Place<Page>, text: string, start: number, end: number, captured: number[]): Page | undefined {
  if (start >= end) return place.page;
  const slash = text.indexOf('/', start);
  const stop = slash === -1 || slash > end ? end : slash;
  const literal = literalAt(place, text, start, stop);
  if (literal !== undefined) {
    const page = walk(literal, text, stop + 1, end, captured);
    if (page !== undefined) return page;
  }
  if (place.other === undefined || start === stop) return undefined;
  captured.push(start, stop);
  const page = walk(place.other, text, stop + 1, end, captured);
  if (page === undefined) captured.length -= 2;
  return page;
}

/** Where a segment leads as a literal. */
function literalAt<Page>(place: Place<Page>, text: string, start: number, stop: number): Place<Page> | undefined {
  const { only, literals } = place;
  if (literals === undefined) return undefined;
  if (only !== undefined && only.length === stop - start && standsAt(text, start, only)) return place.onlyPlace;
  const segment = text.slice(start, stop);
  if (segment.includes('%')) return literals.get(decodeForShow(segment.replaceAll('+', '%2B')));
  return only === undefined ? literals.get(segment) : undefined;
}
