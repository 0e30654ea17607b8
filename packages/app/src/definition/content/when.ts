import { condition } from '../schema-parts.ts';

/** Every component may have a condition. */
export const when = condition.optional().describe('Shown only while this holds');
