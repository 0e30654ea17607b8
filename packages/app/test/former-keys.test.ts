import { describe, expect, it } from 'vitest';
import { parse } from 'yaml';
import { checkAppFile, fixSource, patchSource } from '../src/index.ts';

/** An app file as it was written before its keys had today's names. */
const former = `pallmist: 1
app: shop
title: Shop
mount: /shop
choices:
  tab: { all: All, new: { label: New, formerly: [fresh] } } # the tabs
parameters:
  via: { type: text, reach: visit }
collections:
  plants: { key: code, title: name, fields: { code: { type: text }, name: { type: text } } }
sites: { shop: { at: "https://shop.example", carries: [via] } }
signIn:
  page: enter
  first: { page: home }
  newcomers: { first: { page: home, values: { tab: new } } }
  reasons: { needed: "Please sign in.", wrong: "Once more." }
pages:
  home:
    title: Home
    address: /{?q,tab,sort,picked,plant}
    formerly: [start]
    parameters:
      q: { type: text, history: replace, otherwise: refuse, formerly: [search] }
      tab: { type: choice, of: tab, default: all }
      sort: { type: sort, of: plants, default: name }
      picked: { type: list, items: { type: record, of: plants } }
      plant: { type: record, of: plants }
    reads:
      found: { from: plants, where: [{ field: name, contains: "{param.q}" }], sort: "{param.sort}" }
    content:
      - { show: search, bind: q, label: Search, hint: fern }
      - show: tabs
        bind: tab
        label: Tabs
        views:
          all:
            - { show: table, rows: found, label: Plants, sort: sort, choose: picked, unasked: Nothing yet, columns: [{ field: name }] }
          new:
            - { show: list, rows: found, label: Plants, text: "{row.name}", picture: "{row.code}.svg" }
      - { show: choices, bind: picked, label: Ticked }
      - { show: select, bind: plant, label: Plant, anything: All }
      - { show: details, record: plant, fields: [name] }
      - { show: form, name: change, label: Change, action: change, record: plant, fields: [name], button: Keep }
      - { show: image, file: a.svg, alternative: A fern }
      - { show: away, text: Shop, site: shop }
      - { show: button, text: Begin, to: { page: home, carry: true } }
      - { show: share, carry: [via] }
  enter:
    title: Enter
    address: /enter
    content: [{ show: sign-in, name: Login }, { show: link, text: Join, to: { page: join } }]
  join:
    title: Join
    address: /join
    content: [{ show: sign-up, name: Login, called: Name }]
`;

describe('an app file with former keys', () => {
  const { definition, problems } = checkAppFile(former);

  it('means the same, and each former key is noted where it stands', () => {
    expect(problems.filter(({ severity }) => severity !== 'note').map(({ code, message }) => `${code} ${message}`)).toEqual([]);
    expect(definition?.pages['home']).toMatchObject({
      formerNames: ['start'],
      parameters: { q: { step: false, ifWrong: 'refuse', formerNames: ['search'] } },
      rows: { found: { from: 'plants' } },
    });
    expect(definition?.signIn).toMatchObject({
      afterSignIn: { page: 'home' },
      newcomers: { afterSignUp: { page: 'home' } },
      reasons: { 'sign-in-needed': 'Please sign in.', 'wrong-password': 'Once more.' },
    });
    const lines = former.split('\n');
    for (const { line = 0, column = 0, message } of problems.filter(({ code }) => code === 'former-key')) {
      const quoted = /^“(\w+)” is called/.exec(message)?.[1];
      if (quoted !== undefined) expect(lines[line - 1]?.slice(column - 1), message).toMatch(new RegExp(`^${quoted}:`));
    }
    expect(problems.filter(({ code }) => code === 'former-key').length).toBeGreaterThan(30);
  });

  it('is rewritten by fixing it, with its comments, into a file without notes that means the same', () => {
    const { source, fixed } = fixSource(former);
    expect(fixed.length).toBe(problems.length);
    expect(source).toContain('# the tabs');
    expect(source).toMatch(/bind:\s*\{\s*sort: sort,\s*tick: picked\s*\}/);
    expect(checkAppFile(source)).toMatchObject({ problems: [], definition });
  });

  it('is rewritten by any change, since a patch speaks of today’s keys', () => {
    const changed = patchSource(former, [{ op: 'replace', path: '/pages/home/parameters/q/ifWrong', value: 'default' }]);
    expect(checkAppFile(changed).definition?.pages['home']?.parameters?.['q']?.ifWrong).toBe('default');
    expect(changed).not.toContain('otherwise');
  });

  it('has the place of any other problem in its own text', () => {
    const [wrong] = checkAppFile(former.replace('otherwise: refuse', 'otherwise: refuze')).problems.filter(
      ({ severity }) => severity === 'error',
    );
    expect([wrong?.pointer, wrong?.line]).toEqual([
      '/pages/home/parameters/q/ifWrong',
      1 + former.split('\n').findIndex((line) => line.includes('otherwise')),
    ]);
  });
});

describe('a change of words alone', () => {
  const source = `pallmist: 1  # one\napp: 'x'\ntitle: "X"\nmount: /x\nchoices: {a: {one: One,   two: 'Two'}}\n\n\npages:\n  home:   {title: Home, address: /, content: [{show: text,text: Hi}] }\n`;

  it.each([
    [{ op: 'replace', path: '/app', value: "it's" }, "app: 'x'", "app: 'it''s'"],
    [{ op: 'replace', path: '/title', value: 'Y "Z"' }, 'title: "X"', 'title: "Y \\"Z\\""'],
    [{ op: 'replace', path: '/mount', value: '/y: #' }, 'mount: /x', 'mount: "/y: #"'],
    [{ op: 'replace', path: '/choices/a/one', value: 'true' }, 'one: One', 'one: "true"'],
    [{ op: 'replace', path: '/pages/home/content/0/text', value: 'Hello there' }, 'text: Hi', 'text: Hello there'],
    [{ op: 'move', from: '/choices/a/one', path: '/choices/a/first' }, '{one: One', '{first: One'],
  ] as const)('%j leaves the rest of the file as it was', (operation, before, after) => {
    expect(patchSource(source, [operation])).toBe(source.replace(before, () => after));
  });

  it('and any other change keeps what it means', () => {
    const changed = patchSource(source, [{ op: 'add', path: '/choices/a/three', value: 'Three' }]);
    expect(parse(changed)).toEqual({ ...(parse(source) as object), choices: { a: { one: 'One', two: 'Two', three: 'Three' } } });
  });
});
