/** What people call a key of a component; its own name, in words, for the others. */
const names: Readonly<Record<string, string>> = {
  text: 'Text',
  bind: 'Bound to',
  to: 'Leads to',
  then: 'Leads on to',
  rows: 'Rows',
  label: 'Label',
  anyLabel: 'Words for no choice',
  empty: 'Said when there is nothing',
  beforeSearch: 'Said before a search',
  columns: 'Columns',
  fields: 'Fields',
  field: 'Field',
  link: 'A row leads to',
  edit: 'Edit a row in its place',
  set: 'Fields that are set',
  submit: 'Words of the button',
  alt: 'Described in words',
  tick: 'Ticked rows',
  sort: 'Sort order',
  size: 'Rows on a page',
  sizes: 'Sizes to choose from',
  withVisit: 'Values of the visit',
  qr: 'QR code',
  short: 'Short address',
  value: 'Stands in it at first',
  lines: 'Lines of the box',
  most: 'Most bars',
  show: 'Kind',
};

/** The words for a key: `loginLabel` is “Login label”. */
export function labelOf(key: string): string {
  const words = key.replaceAll(/([A-Z])/g, ' $1').toLowerCase();
  return names[key] ?? words.slice(0, 1).toUpperCase() + words.slice(1);
}
