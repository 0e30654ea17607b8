import { Tables1700000000009 } from './1-tables.ts';
import { NumberedRecordTables1700000000010 } from './2-numbered-record-tables.ts';
import { BuildersAndLog1700000000011 } from './3-builders-and-log.ts';
import { TokensAndWebhooks1700000000012 } from './4-tokens-and-webhooks.ts';
import { LinksThatLast1700000000013 } from './5-links-that-last.ts';
import { TriedAddresses1700000000014 } from './6-tried-addresses.ts';
import { ComputedColumns1700000000015 } from './7-computed-columns.ts';

/** Every change of the tables, in the order in which they are made. */
export const migrations = [
  Tables1700000000009,
  NumberedRecordTables1700000000010,
  BuildersAndLog1700000000011,
  TokensAndWebhooks1700000000012,
  LinksThatLast1700000000013,
  TriedAddresses1700000000014,
  ComputedColumns1700000000015,
] as const;
