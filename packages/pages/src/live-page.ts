import type { Values } from '@pallmist/app/address';
import type { ShownPage } from '@pallmist/app/view';

/** What the drawing components get: the page as it is now, and the way to change it. */
export interface LivePage {
  readonly shown: ShownPage;
  /** Name of the page that is shown. */
  readonly name: string;
  /** New data are on their way, or something is being saved. */
  readonly busy: boolean;
  /** What to say when they did not come. */
  readonly failure: string | undefined;
  /** True once the browser has taken the page over. */
  readonly hydrated: boolean;
  /** How often something was saved: forms are emptied. */
  readonly saves: number;
  /** How often a form was answered with what is wrong in it. */
  readonly answers: number;
  /** What to say of what was saved just before. */
  readonly said: string | undefined;
  /** What a screen reader is told after a change: how much was found. */
  readonly announced: string;
  /** Asks the visitor first if something typed would be lost. */
  mayLeave(): boolean;
  /** @param coalesceKey changes in a row with the same mark are one step of the history */
  change(changes: Values, coalesceKey?: unknown): void;
  /**
   * Sets a parameter to what was typed or chosen for it; an empty text returns it to its default.
   * @returns what is wrong with the text, which then changes nothing
   */
  enter(name: string, text: string): string | undefined;
  /** Opens an address of the app. */
  open(address: string): void;
  /** Sends a form of the page to be saved. */
  send(form: HTMLFormElement): void;
  /** Back to the page that the visitor came from, as it was left; @returns false when the history does not lead there */
  goBack(): boolean;
  retry(): void;
}
