import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkAppFile, composeEntryMail, evaluateCel, fileProblem, sayIn } from '../src/index.ts';
import { phrases } from '../src/languages/phrases.ts';
import { composeMail } from '../src/mails/compose.ts';
import { Evaluator } from '../src/expressions/evaluator.ts';
import { filePath, fileNameIn, readFileValue } from '../src/records/file-value.ts';
import { often } from '../../../test/support/often.ts';

const base = 'https://garden.example';
const types = { saved: { fields: { name: 'string', mail: 'string' } } } as const;
const template = {
  to: '{saved.mail}',
  subject: 'For {saved.name}',
  text: 'Dear {saved.name},\n\ncome and see:\n{link.card}\n\nYours',
  links: { card: { text: 'The card of {saved.name}', to: { page: 'card', values: { who: '{saved.name}' } } } },
};
const compose = (saved: { name?: string; mail?: string }, more: { draft?: boolean; href?: string } = {}) =>
  composeMail(template, {
    evaluator: new Evaluator({ saved }, types, evaluateCel),
    href: () => ('href' in more ? more.href : `/card?who=${encodeURIComponent((saved.name ?? '').toWellFormed())}`),
    base,
    draft: more.draft ?? false,
  });

describe('a mail', () => {
  it('has its links in the text whole, and in its HTML behind what they say', () => {
    const mail = compose({ name: 'Ada & <Bo>', mail: 'ada@garden.example' });
    expect(mail).toMatchObject({ recipient: 'ada@garden.example', subject: 'For Ada & <Bo>' });
    expect(mail?.text).toBe('Dear Ada & <Bo>,\n\ncome and see:\nhttps://garden.example/card?who=Ada%20%26%20%3CBo%3E\n\nYours\n');
    expect(mail?.html).toContain('<p>Dear Ada &amp; &lt;Bo&gt;,</p>');
    expect(mail?.html).toContain('<a href="https://garden.example/card?who=Ada%20%26%20%3CBo%3E">The card of Ada &amp; &lt;Bo&gt;</a>');
  });

  it('of a draft says so', () => {
    expect(compose({ name: 'Ada', mail: 'a@b.example' }, { draft: true })?.subject).toBe('[Draft] For Ada');
  });

  it('says why it cannot be sent: no recipient, several, or a link that leads nowhere', () => {
    const noRecipient = 'The recipient is not exactly one mail address.';
    expect(compose({ name: 'Ada' }).problem).toBe(noRecipient);
    for (const mail of [
      ' ',
      'a@b.example, c@d.example',
      'a@b.example\nBcc: c@d.example',
      'Ada <a@b.example>',
      'a@b',
      '@b.example',
      'a@@b.example',
    ])
      expect(compose({ name: 'Ada', mail }).problem, mail).toBe(noRecipient);
    expect(compose({ name: 'Ada', mail: ' ada@b.example ' })).toMatchObject({ recipient: 'ada@b.example' });
    expect(compose({ name: 'Ada', mail: 'a@b.example' }, { href: undefined as unknown as string }).problem).toContain(
      'The link “card” cannot be written',
    );
  });

  it('keeps links apart of which one is the beginning of another', () => {
    const links = { first: { href: '/garden', text: 'The garden' }, second: { href: '/garden/notes/N-1', text: 'The note' } };
    const mail = composeMail(
      {
        to: 'a@b.example',
        subject: 's',
        text: 'See {link.second} in {link.first}; not a link: https://garden.example/garden',
        links: Object.fromEntries(Object.entries(links).map(([name, { text }]) => [name, { text, to: { page: name } }])),
      },
      {
        evaluator: new Evaluator({}, {}, evaluateCel),
        href: ({ page }) => links[page as 'first'].href,
        base: 'https://garden.example',
        draft: false,
      },
    );
    expect(mail.text).toBe(
      'See https://garden.example/garden/notes/N-1 in https://garden.example/garden; not a link: https://garden.example/garden\n',
    );
    expect(mail.html).toContain(
      'See <a href="https://garden.example/garden/notes/N-1">The note</a> in <a href="https://garden.example/garden">The garden</a>; not a link: https://garden.example/garden<',
    );
  });

  it('never gets another header line, and no markup but its own, whatever a visitor types', () => {
    const typed = fc.oneof(
      fc.string({ unit: 'grapheme' }),
      fc.string({ unit: fc.constantFrom('\r', '\n', '<', '>', '"', "'", '&', '{', '}', 'B', 'c', ':', '\u2028', '\u0000') }),
      fc.constantFrom('x\r\nBcc: all@garden.example', '<script>', '{link.card}', '"><img src=x>'),
    );
    fc.assert(
      fc.property(typed, (name) => {
        const mail = compose({ name, mail: `${name}@garden.example` });
        for (const line of [mail.subject, mail.recipient]) expect(line).not.toMatch(/\p{Cc}/u);
        const markup = mail.html.match(/<[^>]*>/g) ?? [];
        for (const tag of markup) expect(tag).toMatch(/^<(?:!doctype html|\/?html|\/?body|\/?p|br|\/a|a href="[^"<>]*")>$/);
        for (const [, href = ''] of mail.html.matchAll(/<a href="([^"]*)"/g)) expect(href.startsWith(`${base}/card?who=`)).toBe(true);
      }),
      { numRuns: often(2000) },
    );
  });
});

describe('the mail with a sign-in link', () => {
  const source = (text: string) =>
    `
pallmist: 1
app: x
title: Garden
mount: /x
signIn: { page: in, byMail: { subject: "Into {app.title}", text: ${JSON.stringify(text)}, enter: "Come in, {person.name}" } }
pages:
  home: { title: Home, address: / }
  in: { title: In, address: /in, content: [{ show: sign-in }] }
`.replace('address: / }', 'address: /, content: [{ show: link, text: In, to: { page: in } }] }');
  const about = {
    person: { login: 'ada', name: 'Ada', roles: [] },
    recipient: 'ada@garden.example',
    href: `${base}/x/in?~enter=abc`,
    today: '2026-11-23',
    draft: false,
  };

  it('goes to the person’s own address, with the link', () => {
    const { definition, problems } = checkAppFile(source('Dear {person.name}, on {today}: {link.enter}'));
    expect(problems).toEqual([]);
    const mail = definition && composeEntryMail(definition, about, evaluateCel);
    expect(mail).toMatchObject({ recipient: 'ada@garden.example', subject: 'Into Garden' });
    expect(mail?.text).toBe(`Dear Ada, on 2026-11-23: ${about.href}\n`);
    expect(mail?.html).toContain(`<a href="${about.href}">Come in, Ada</a>`);
  });

  it('must hold the link, and name nothing that is not there', () => {
    const codes = (text: string) => checkAppFile(source(text)).problems.map(({ code }) => code);
    expect(codes('Dear {person.name}')).toEqual(['mail-without-link']);
    expect(codes('{param.q} {link.enter}')).toEqual(['unknown-in-expression']);
    const fixed = checkAppFile(source('Dear {person.name}')).problems[0]?.fix?.[0];
    expect(fixed).toMatchObject({ op: 'replace', value: 'Dear {person.name}\n\n{link.enter}\n' });
  });
});

describe('the value of a file field', () => {
  const code = 'abcdefghijklmnopqrstuv';

  it('leads to the file that it names, and says its name', () => {
    expect([filePath('palm.svg'), fileNameIn('palm.svg')]).toEqual(['palm.svg', 'palm.svg']);
    expect([filePath(`${code}/Blüte 1.png`), fileNameIn(`${code}/Blüte 1.png`)]).toEqual([`${code}/Bl%C3%BCte%201.png`, 'Blüte 1.png']);
  });

  it('is nothing else, whatever it holds: no path leads out', () => {
    for (const value of [
      '',
      '.',
      '..',
      '../x',
      '/x',
      'a/b/c',
      `${code}/`,
      `${code}/../x`,
      `${code}/.hidden`,
      `${code}/a\\b`,
      `${code}x/y`,
      'x\u0000.png',
    ])
      expect([filePath(value), typeof readFileValue(value)], value).toEqual(['', 'object']);
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom('/', '\\', '.', '%', 'a', '2', 'é', '\u202e', ' ') }), (rest) => {
        const path = filePath(`${code}/${rest}`);
        if (path !== '') expect(new URL(`https://a.example/x/~files/${path}`).pathname).toBe(`/x/~files/${path}`);
      }),
    );
  });

  it.each([
    ['a.png', 10, {}, undefined],
    ['a.PNG', 10, { accept: ['image/*'] }, undefined],
    ['a.pdf', 10, { accept: ['image/*', 'application/pdf'] }, undefined],
    ['a.svg', 10, { accept: ['image/png'] }, 'It cannot be a file of this kind. PNG.'],
    ['png', 10, { accept: ['image/png'] }, 'It cannot be a file of this kind. PNG.'],
    ['a.png.exe', 10, { accept: ['image/*'] }, 'It cannot be a file of this kind. A picture.'],
    ['a.png', 0, {}, 'The file is empty.'],
    ['a.png', 5_000_001, {}, 'The file is too large: at most 5 MB.'],
    ['a.png', 301_000, { maxKilobytes: 300 }, 'The file is too large: at most 300 KB.'],
    ['a.png', Infinity, {}, 'The file is too large: at most 5 MB.'],
  ])('%s of %d bytes, where %j is accepted: %s', (name, bytes, limits, problem) => {
    expect(fileProblem(limits, name, bytes)).toBe(problem);
  });

  it('names the problem of a file in the language of the page', () => {
    const say = sayIn('de', undefined, phrases);
    expect(fileProblem({ accept: ['image/*', 'text/plain'] }, 'a.exe', 1, say)).toBe(
      'Eine Datei dieser Art geht hier nicht. Ein Bild, Reiner Text.',
    );
    expect(fileProblem({ maxKilobytes: 300 }, 'a.png', Infinity, say)).toBe('Die Datei ist zu groß: höchstens 300 KB.');
  });
});
