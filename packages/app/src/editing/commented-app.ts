import { stringify } from 'yaml';

/**
 * The text of an app file to begin with: a list that can be searched and paged through, and a page for each record. Its
 * comments say what each part does.
 */
export function commentedApp({ title, app, mount }: { title: string; app: string; mount: string }): string {
  const quoted = (text: string) => stringify(text, { lineWidth: 0 }).trimEnd();
  return `# An app file. “pallmist check” finds what is wrong in it; docs/app-file.md describes every key.
pallmist: 1
app: ${quoted(app)}
title: ${quoted(title)}
# Where its pages stand in the service.
mount: ${quoted(mount)}

# Data. A collection has records; the key field names a record in an address.
collections:
  things:
    keyField: code
    titleField: name
    fields:
      code: { type: text, unique: true, required: true, maxLength: 20, label: Code }
      name: { type: text, required: true, maxLength: 80, label: Name }
      remark: { type: text, maxLength: 500, label: Remark }

navigation:
  - { text: ${quoted(title)}, to: { page: list } }

pages:
  # The address template says which parameters a page has: {name} in the path, {?a,b} in the query.
  list:
    title: ${quoted(title)}
    address: '/{?q,page}'
    parameters:
      # A new search returns to page 1; its letters are no steps of the browser's history.
      q: { type: text, blank: absent, maxLength: 80, step: false, resets: [page], label: Search }
      page: { type: integer, min: 1, max: 1000, default: 1, label: Page }
    rows:
      found:
        from: things
        where:
          - { field: name, contains: '{param.q}' }
        sort: name
        page: '{param.page}'
        size: 25
    content:
      - { show: heading, level: 1, text: ${quoted(title)} }
      - { show: search, bind: q, label: Search }
      - show: table
        rows: found
        label: ${quoted(title)}
        link: { page: thing, values: { thing: '{row.code}' } }
        empty: There is nothing like that.
        columns:
          - { field: name }
          - { field: remark }
      - { show: pager, rows: found, bind: page }

  # A record parameter names one record of a collection; “record.thing” is that record.
  thing:
    title: '{record.thing.name}'
    address: '/things/{thing}'
    parameters:
      thing: { type: record, of: things, label: Thing }
    content:
      - { show: heading, level: 1, text: '{record.thing.name}' }
      - { show: text, text: '{record.thing.?remark.orValue("No remark.")}' }
      - { show: link, text: All of them, to: { page: list } }
`;
}
