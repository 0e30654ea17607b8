import { checkAppFile, type CompiledApp } from '../src/index.ts';

/** A small garden that shows every type of parameter. */
export const gardenSource = `
pallmist: 1
app: little
title: Little garden
mount: /garden
choices:
  tab: { overview: Overview, care: Care log, notes: Field notes }
collections:
  houses:
    keyField: code
    fields: { code: { type: text, pattern: "[a-z]+" }, name: { type: text } }
  specimens:
    keyField: accession
    titleField: name
    fields:
      accession: { type: text, pattern: "QM-[0-9]{4}" }
      name: { type: text }
      house: { type: record, of: houses }
      planted: { type: date }
navigation:
  - { text: All, to: { page: list } }
  - { text: Labels, to: { page: labels } }
pages:
  home: { title: Home, address: /, content: [{ show: link, text: One, to: { page: specimen, values: { specimen: QM-0001 } } }] }
  list:
    title: "All{has(param.q) ? ': ' + param.q : ''}"
    address: /specimens{?q,house,alive,since,sort,page}
    parameters:
      q: { type: text, maxLength: 40, step: false, resets: [page] }
      house: { type: record, of: houses, resets: [page] }
      alive: { type: boolean, default: true }
      since: { type: date, min: 1990-01-01 }
      sort: { type: sort, of: specimens, default: name, step: false }
      page: { type: integer, min: 1, max: 1000, default: 1 }
    rows:
      found:
        from: specimens
        where: [{ field: name, contains: "{param.q}" }, { field: house, equals: "{param.house}" }, { field: planted, equals: "{param.since}" }]
        sort: "{param.sort}"
        page: "{param.page}"
        size: 10
    content:
      - { show: search, bind: q, label: Name }
      - { show: select, bind: house, label: House }
      - { show: text, when: param.alive, text: Living ones only }
      - show: table
        rows: found
        label: Specimens
        bind: { sort: sort }
        link: { page: specimen, values: { specimen: "{row.accession}" } }
        columns: [{ field: name }, { field: house }, { field: planted }]
      - { show: pager, rows: found, bind: page }
  specimen:
    title: "{record.specimen.name}"
    address: /specimens/{specimen}{?tab}
    parameters:
      specimen: { type: record, of: specimens, sample: QM-0001 }
      tab: { type: choice, of: tab, default: overview, step: false }
    content:
      - show: tabs
        bind: tab
        label: Parts
        panes:
          overview: [{ show: details, bind: specimen, fields: [accession, house] }]
          care: [{ show: text, text: "Care of {record.specimen.name}" }]
          notes: []
  labels:
    title: Labels
    address: /labels{/language}
    parameters:
      language: { type: choice, of: tab, default: overview }
    content: [{ show: text, text: "{param.language}" }, { show: link, text: Labels, to: { page: labels } }]
`;

const checked = checkAppFile(gardenSource);
if (!checked.definition || !checked.compiled) throw new Error(JSON.stringify(checked.problems));

export const definition = checked.definition;
export const garden: CompiledApp = checked.compiled;
export const problems = checked.problems;
