/** Counts the requests that are under way, so that a service with too many of them says so instead of making all wait. */
export class BusyGuard {
  readonly #most: number;
  #underWay = 0;

  constructor(most: number) {
    this.#most = most;
  }

  get isFull(): boolean {
    return this.#underWay >= this.#most;
  }

  async during(work: () => Promise<void>): Promise<void> {
    this.#underWay++;
    try {
      await work();
    } finally {
      this.#underWay--;
    }
  }
}
