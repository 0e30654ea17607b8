/** What has come of forms that were sent, so that a form that is sent twice makes one record. */
export interface ReceiptStore {
  /** Where the form led when it was sent before; undefined where it is sent for the first time. */
  find(app: string, mark: string): Promise<string | undefined>;
  /** @param next where it leads */
  keep(app: string, mark: string, next: string): Promise<void>;
}
