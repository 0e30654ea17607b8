/** A component as the app file has it, whatever its kind: what else it holds, its kind says. */
export interface Component {
  show: string;
  when?: string | undefined;
  /** Not of the app file: where it stands in its page, which the service notes in drafts for the console. */
  place?: string;
  [key: string]: unknown;
}
