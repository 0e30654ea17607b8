/** A mistake that people make in an app file: see `specification/mistakes.yaml`. */
export interface Mistake {
  mistake: string;
  /** Where the JSON Schema does not find it. */
  schema?: 'takes it';
  page?: string;
  content?: string;
  collection?: string;
  code: string;
  says: string;
}

const head = `pallmist: 1
app: shed
title: Shed
mount: /shed
choices: { tab: { one: One, two: Two } }
collections:
  plants: { keyField: code, fields: { code: { type: text }, name: { type: text }, day: { type: date } } }
pages:
  home: { title: Home, address: /, content: [{ show: link, text: List, to: { page: list } }] }
  list:
`;
const page = `title: List
address: /list{?tab,q,n}
parameters: { tab: { type: choice, of: tab }, q: { type: text }, n: { type: integer, default: 1 } }
content:
  `;
/** The app file in which it is made. */
export const sourceOf = ({ page: whole, content, collection }: Mistake) =>
  head.replace('pages:\n', collection === undefined ? 'pages:\n' : `  ${collection}\npages:\n`) +
  (whole ?? page + (content ?? '- { show: heading, text: A }'))
    .split('\n')
    .map((line) => `    ${line}\n`)
    .join('');
