// Spreadsheets carry out what begins like a formula (OWASP, CSV Injection). An apostrophe in front makes it a text, and an import
// takes it off again: what goes out comes in as it was.

const formula = /^'*[=+\-@\t\r]/;

/** A text as it stands in a cell of an export. */
export const asNoFormula = (text: string): string => (formula.test(text) ? `'${text}` : text);

/** A text of a cell as it was before it was exported. */
export const asGiven = (text: string): string => (text.startsWith("'") && formula.test(text) ? text.slice(1) : text);
