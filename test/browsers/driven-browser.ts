/** A real browser that a test drives by an open protocol. Functions are sent to the page as their text. */
export interface DrivenBrowser {
  readonly name: string;
  open(url: string): Promise<void>;
  /** Runs a function in the page, and waits for what it promises. */
  run<Result>(work: (given: never) => Result | Promise<Result>, given?: unknown): Promise<Result>;
  back(): Promise<void>;
  forward(): Promise<void>;
  reload(): Promise<void>;
  close(): Promise<void>;
}

/** The text of a call of `work` with `given`, for the page. */
export const callText = (work: (given: never) => unknown, given: unknown): string =>
  `(${String(work)})(${given === undefined ? '' : JSON.stringify(given)})`;

/** Waits until a condition holds in the page; the page may be on its way elsewhere meanwhile. */
export async function until(
  browser: DrivenBrowser,
  holds: (given: never) => boolean,
  given?: unknown,
  milliseconds = 20_000,
): Promise<void> {
  const end = Date.now() + milliseconds;
  let last: unknown;
  while (Date.now() < end) {
    try {
      if (await browser.run(holds, given)) return;
    } catch (error) {
      last = error;
    }
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  const place = await browser.run(() => location.href).catch(() => 'nowhere');
  throw new Error(`${browser.name} at ${place} never came to ${callText(holds, given)}${last instanceof Error ? `: ${last.message}` : ''}`);
}
