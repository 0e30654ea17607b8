// Spreadsheets evaluate a cell that begins like a formula (OWASP, CSV Injection). An export puts an apostrophe in front of such
// a text, and an import removes it, so that an import restores exactly what was exported.

const formula = /^'*[=+\-@\t\r]/;

/** A text as it stands in a cell of an export. */
export const asNoFormula = (text: string): string => (formula.test(text) ? `'${text}` : text);

/** A text of a cell as it was before it was exported. */
export const asGiven = (text: string): string => (text.startsWith("'") && formula.test(text) ? text.slice(1) : text);
