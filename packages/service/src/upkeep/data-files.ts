/** The database of a data directory. */
export const databaseFile = 'pallmist.sqlite';
/** The keys that seal values in addresses. */
export const keysFile = 'keys.json';
/** The owner’s token. */
export const tokenFile = 'api-token';
/** What says of a backup what is in it. */
export const manifestFile = 'backup.json';
