/**
 * The text for an empty list. It says that the list is empty only after the list has loaded.
 * @param list undefined until it is loaded
 * @param failure why it could not be loaded
 */
export const noneYet = (list: readonly unknown[] | undefined, none: string, failure: string | undefined): string =>
  list !== undefined ? none : failure === undefined ? 'Loading …' : 'The list did not load.';
