/** Regular expressions in linear time, whatever the pattern and the text. */
export { linearPattern, linearSearch, type LinearPattern } from './linear-pattern.ts';
export { PatternNotLinear } from './parse-pattern.ts';
export { shortestText } from './shortest-text.ts';
