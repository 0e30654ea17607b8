/** Whether random tests go on for longer, each time with other values: npm run test:long. */
export const isLong = process.env['PALLMIST_LONG'] === '1';

/** How often something random is tried: as often as given in bin/test, ten times as often in the long run. */
export const often = (usual: number): number => (isLong ? 10 * usual : usual);
