import type { Bound } from './remembered-queries.ts';

/** A place in a list: how many rows come before it, and the values by which its row is sorted. */
export interface ListPlace {
  offset: number;
  values: readonly Bound[];
}

const mostPlaces = 500;

/**
 * Where pages of a long list begin, as far as they were read: a page far on is walked to from the nearest place before it
 * rather than from the beginning. (An index of SQLite does not know how many rows come before one of its own.)
 */
export class ListPlaces {
  readonly #places: ListPlace[] = [];

  /** The last known place that is not after `offset`. */
  before(offset: number): ListPlace | undefined {
    return this.#places.findLast((place) => place.offset <= offset);
  }

  add(place: ListPlace): void {
    const at = this.#places.findIndex(({ offset }) => offset >= place.offset);
    if (this.#places[at]?.offset === place.offset) return;
    if (this.#places.length >= mostPlaces) this.#places.length = 0;
    this.#places.splice(at === -1 ? this.#places.length : at, 0, place);
  }
}
