import { quoteName } from './sqlite.ts';

/** The table of an app's collection. */
export const tableName = (app: string, collection: string): string => quoteName(`records_${app}_${collection}`);
/** The column of a field. */
export const column = (field: string): string => quoteName(`f_${field}`);
/** Beside each text stands its folded form, for finding and sorting. */
export const foldedColumn = (field: string): string => quoteName(`n_${field}`);
