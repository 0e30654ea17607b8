/** Functions for adding your own types. */
export { isDate } from '../calendar.ts';
export { corrected, refusalCode, refusalData, refuse } from '../outcome.ts';
export { parameter, type CommonOptions, type Exactly, type Made } from '../parameter.ts';
export { decode, decodeText, encode } from '../percent.ts';
