/** Everything that an address says: for tools, error pages and consoles. Pages that need only values use `read`. */
export { explain, type Explanation, type ParameterExplanation } from './explain.ts';
export { nearest, suggest } from './near.ts';
