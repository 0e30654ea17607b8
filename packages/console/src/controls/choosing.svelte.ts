/** Choosing from a list while the focus stays in a box: the arrows move through the list, Enter takes the item. */
export class Choosing<Item> {
  index = $state(0);
  readonly #items: () => readonly Item[];
  readonly #take: (item: Item) => void;

  constructor(items: () => readonly Item[], take: (item: Item) => void) {
    this.#items = items;
    this.#take = take;
  }

  get count(): number {
    return this.#items().length;
  }

  /** @returns whether the list had a use for the key */
  keyed(event: KeyboardEvent): boolean {
    if (this.count === 0) return false;
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const item = this.#items()[this.index];
    if (step !== undefined) this.index = Math.max(0, Math.min(this.count - 1, this.index + step));
    else if (event.key === 'Enter' && item !== undefined) this.#take(item);
    else return false;
    event.preventDefault();
    return true;
  }
}
