/**
 * What stands in place of a list without entries: that there are none is said only once the service has said so.
 * @param list undefined until it is loaded
 * @param failure why it could not be loaded
 */
export const noneYet = (list: readonly unknown[] | undefined, none: string, failure: string | undefined): string =>
  list !== undefined ? none : failure === undefined ? 'Loading …' : 'The list did not load.';
