/** What each attribute of a parameter is for, in a sentence. */
export const sentences = {
  name: 'It stands in addresses. Renaming changes every place that names it.',
  reach: 'A language goes along with every link; where a visitor came from is taken from the first address and remembered.',
  required: 'The page makes no sense without it: an address that lacks it shows an error page.',
  default: 'The value when the address gives none. It is never written into an address.',
  sample: 'A value to see the page with while you build it. Visitors never get it.',
  label: 'What people call it: beside controls, and in messages.',
  help: 'A sentence for people who fill it in.',
  by: 'Another unique field can name the record in the address instead of its key.',
  pattern: 'A regular expression that the whole text must match.',
  blank: 'What an address means that names it and gives nothing.',
  ifWrong: 'What happens when an address holds a value that is not accepted.',
  step: 'Turn it off for what visitors change often, such as a tab or each letter of a search.',
  resets: 'These return to their default when this one changes: a new search returns to the first page.',
  once: 'It acts when the page opens, then leaves the address, so that reloading and sharing do not repeat it.',
  sealed: 'It is encrypted in the address, so that nobody can read or change it. Use it for private values.',
  share: 'The Share component, and shared short addresses, leave it out.',
  formerNames: 'Older names, separated by commas. Addresses that have them go on to work.',
} as const;

/** What each type holds, in a sentence. */
export const typeSentences: Readonly<Record<string, string>> = {
  text: 'Any text: a search, a name.',
  integer: 'A whole number: a page of a list, a year.',
  number: 'A number, with decimals.',
  boolean: 'Yes or no. Without a default it has a third state: not given.',
  date: 'A day: 2026-11-25, or “today”.',
  datetime: 'A moment (RFC 3339).',
  choice: 'One of a choices list: a tab, a status.',
  record: 'The key of a record of a collection. The page can show the record.',
  page: 'One of the app’s pages.',
  sort: 'A sort order: fields of a collection, “-” for descending.',
  range: 'From and to: numbers or dates.',
  list: 'Several values of one type.',
  packed: 'Any JSON value, compressed: a drawing, a whole set of settings.',
  colour: 'A colour: #17695a.',
};
