/** What the hosted pages and the console need of addresses: apps with several pages, and their declarations. */
export * from '@pallmist/address/declare';
export * from '@pallmist/address/pages';
export { nearest, suggest } from '@pallmist/address/explain';
export { PallmistError, type ChoiceDefinition, type Range, type SortKey } from '@pallmist/address';
