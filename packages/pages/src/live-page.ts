import type { Values } from '@pallmist/core/address';
import type { ShownPage } from '@pallmist/core/view';

/** What the drawing components get: the page as it is now, and the way to change it. */
export interface LivePage {
  readonly shown: ShownPage;
  /** Name of the page that is shown. */
  readonly name: string;
  /** New data are on their way. */
  readonly busy: boolean;
  /** What to say when they did not come. */
  readonly failure: string | undefined;
  /** True once the browser has taken the page over. */
  readonly taken: boolean;
  change(changes: Values): void;
  retry(): void;
}
