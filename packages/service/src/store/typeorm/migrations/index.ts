import { Tables1700000000009 } from './1-tables.ts';
import { NumberedRecordTables1700000000010 } from './2-numbered-record-tables.ts';

/** Every change of the tables, in the order in which they are made. */
export const migrations = [Tables1700000000009, NumberedRecordTables1700000000010] as const;
