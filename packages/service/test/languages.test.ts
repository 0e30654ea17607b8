import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checkAppFile, sayIn } from '@pallmist/app';
import { messagePhrases } from '@pallmist/app/message-phrases';
import { phrases, translated } from '@pallmist/app/phrases';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';
import { Visitor } from '../../../test/support/visitor.ts';

const source = littleApp({
  more: `choices:
  tongue: { en: English, de: Deutsch, fr: Français, es: Español, ar: العربية }
  kind: { fern: '{word.fern}', palm: '{word.palm}' }
language: tongue
languageFromBrowser: true
parameters: { tongue: { type: choice, of: tongue, default: en, label: Language } }
words:
  title: { en: Plants, de: Pflanzen, fr: Plantes, es: Plantas, ar: نباتات }
  fern: { en: Fern, de: Farn, fr: Fougère, es: Helecho, ar: سرخس }
  palm: { en: Palm, de: Palme, fr: Palmier, es: Palmera, ar: نخلة }
  secret: { en: Only keepers, de: Nur Gärtner, fr: Jardiniers, es: Jardineros, ar: سر }
  height: { en: Height, de: Höhe, fr: Hauteur, es: Altura, ar: ارتفاع }
phrases: { ar: { Apply: تطبيق } }
gates: { keepers: { roles: [keeper], reason: '{word.title}!' } }
signIn: { page: sign-in }
navigation: [{ text: '{word.title}', to: { page: home } }]`,
  collections: `  plants:
    keyField: code
    titleField: name
    fields: { code: { type: text }, name: { type: text, label: '{word.title}' }, kind: { type: choice, of: kind }, height: { type: integer, label: '{word.height}', help: '{word.height}?' } }`,
  pages: `  home:
    title: '{word.title}'
    address: /{?q,kind,high,tick,edit,page,size,tall}
    parameters:
      q: { type: text, label: '{word.title}' }
      kind: { type: choice, of: kind, label: '{word.fern}' }
      high: { type: range, of: integer, label: '{word.height}' }
      tall: { type: integer, min: 1, max: 9, label: '{word.height}' }
      tick: { type: list, items: { type: record, of: plants } }
      edit: { type: record, of: plants }
      page: { type: integer, default: 1, min: 1 }
      size: { type: integer, default: 1 }
    rows: { all: { from: plants, page: '{param.page}', size: '{param.size}' } }
    content:
      - { show: heading, level: 1, text: '{word.title} {label.kind}' }
      - { show: language }
      - { show: search, bind: q, label: '{word.title}' }
      - { show: select, bind: kind, label: '{word.fern}' }
      - { show: input, bind: high, label: '{word.height}' }
      - { show: table, rows: all, label: '{word.title}', columns: [{ field: name }, { field: kind }, { field: height }], bind: { tick: tick }, edit: { bind: edit, name: change, fields: [height] } }
      - { show: pager, rows: all, bind: page, size: size }
      - { show: filters, label: '{word.fern}', boxes: [kind, high] }
      - { show: form, name: add, label: '{word.palm}', action: create, collection: plants, fields: [code, name, kind, height] }
      - { show: share, qr: true, short: true }
      - { show: bar-chart, rows: all, field: kind, label: '{word.palm}' }
      - { show: link, text: '{word.palm}', to: { page: away }, look: button }
      - { show: link, text: '{word.fern}', to: { page: away, values: { seen: true }, window: new } }
  away:
    title: '{word.palm}'
    address: /away{?seen}
    parameters: { seen: { type: boolean, default: false, label: '{word.palm}' } }
    content: [{ show: heading, level: 1, text: '{word.palm}' }, { show: dialog, bind: seen, label: '{word.fern}', content: [{ show: text, text: '{word.fern}' }] }]
  closed: { title: '{word.title}', address: /closed, admit: keepers, content: [{ show: text, text: '{word.secret}' }] }
  sign-in: { title: '{word.title}', address: /sign-in, content: [{ show: heading, level: 1, text: '{word.title}' }, { show: sign-in }] }
`,
}).replace('title: Little', "title: '{word.title}'");

let service: TestService;
beforeAll(async () => {
  service = await startTestService();
  await publishApp(service, 'little', source);
  for (const [code, name] of [
    ['a', 'Asplenium'],
    ['b', 'Butia'],
  ])
    await service.owner('POST', '/apps/little/records/plants', { code, name, kind: 'fern', height: 3 });
});
afterAll(() => service.stop());

/** What a visitor reads on a page: its texts, titles and labels. */
async function words(path: string): Promise<string> {
  const text = await (await fetch(service.base + path)).text();
  const body = text.slice(text.indexOf('<body')).replace(/<script[^]*?<\/script>/g, '');
  const labels = [...body.matchAll(/(?:aria-label|placeholder|title|alt)="([^"]*)"/g)].map(([, label]) => label);
  return [text.match(/<title>([^<]*)/)?.[1], ...labels, body.replace(/<[^>]*>/g, '\n')].join('\n').replaceAll('&amp;', '&');
}

describe.each(translated)('in the language %s', (tag) => {
  it.each([
    `/little?tongue=${tag}`,
    `/little?tongue=${tag}&edit=a&tick=b&tall=99&page=2`,
    `/little?tongue=${tag}&q=nothing&page=9`,
    `/little/away?tongue=${tag}&seen=true`,
    `/little/sign-in?tongue=${tag}&~why=wrong-password`,
    `/little/nowhere?tongue=${tag}`,
  ])('no English word of Pallmist’s own is left on %s', async (path) => {
    const read = (await words(path)).split('\n').map((line) => line.trim());
    const say = sayIn(tag, undefined, phrases);
    const english = Object.keys(phrases).filter((phrase) => say(phrase as keyof typeof phrases) !== phrase);
    expect(english.filter((phrase) => read.includes(phrase))).toEqual([]);
  });
});

it('labels, navigation, title and problems are in the language, and the brand link keeps it', async () => {
  const page = await (await fetch(`${service.base}/little?tongue=de&kind=palm&tall=99`)).text();
  expect(page).toContain('<html lang="de" dir="ltr">');
  expect(page).toContain('<option value="fern">Farn</option>');
  expect(page).toMatch(/class="home[^"]*" href="\/little\?tongue=de"/);
  expect(page).toContain('„Höhe“ kann nicht „99“ sein: Erwartet wird eine ganze Zahl von 1 bis 9.');
  expect(page).toContain(`<link rel="alternate" hreflang="fr" href="${service.base}/little?kind=palm&amp;tongue=fr">`);
});

it.each([
  [
    'de',
    'Es ist noch nicht gespeichert. Bitte sehen Sie sich an, was markiert ist.',
    'Ein anderer Eintrag hat diesen Wert schon.',
    'Es ist keine ganze Zahl.',
  ],
  [
    'fr',
    'Ce n’est pas encore enregistré. Veuillez vérifier ce qui est marqué.',
    'Un autre élément a déjà cette valeur.',
    'Ce n’est pas un nombre entier.',
  ],
  ['es', 'Todavía no se ha guardado. Revise lo que está marcado.', 'Otro elemento ya tiene este valor.', 'No es un número entero.'],
])('shows form errors in the language %s', async (tag, whole, taken, number) => {
  const visitor = new Visitor(service.base);
  const send = (fields: Record<string, string>) =>
    visitor.send(`/little?tongue=${tag}`, { '~form': 'add', name: 'N', kind: 'fern', ...fields });
  const text = async (fields: Record<string, string>) => (await (await send(fields)).text()).replaceAll('&#39;', '’');
  expect(await text({ code: 'a', height: '1' })).toContain(taken);
  const refused = await text({ code: 'new', height: 'high' });
  expect(refused).toContain(whole);
  expect(refused).toContain(number);
});

it('a language that is written from right to left says so, and has the words that the app gives', async () => {
  const page = await (await fetch(`${service.base}/little?tongue=ar`)).text();
  expect(page).toContain('<html lang="ar" dir="rtl">');
  expect(page).toContain('تطبيق');
  const { problems } = checkAppFile(source);
  expect(problems.map(({ code }) => code)).toContain('phrases-missing');
});

it('leads a new visitor once to the language that the browser prefers', async () => {
  const headers = { 'accept-language': 'fr-CA, fr;q=0.8, en;q=0.2' };
  const first = await fetch(`${service.base}/little?kind=fern`, { headers, redirect: 'manual' });
  expect([first.status, first.headers.get('location')]).toEqual([303, '/little?kind=fern&tongue=fr']);
  const cookie = first.headers
    .getSetCookie()
    .map((one) => one.split(';')[0])
    .join('; ');
  expect((await fetch(`${service.base}/little?kind=fern`, { headers: { ...headers, cookie }, redirect: 'manual' })).status).toBe(200);
  expect((await fetch(`${service.base}/little?tongue=en`, { headers, redirect: 'manual' })).headers.get('location')).not.toContain('fr');
});

it('the title leads to the first page in the language also from pages without a link there, and brings no words of other pages', async () => {
  const away = await (await fetch(`${service.base}/little/away?tongue=de`)).text();
  expect(away).toMatch(/class="home[^"]*" href="\/little\?tongue=de"/);
  expect(away).toContain('Palme');
  expect(away).not.toContain('Nur Gärtner');
});

it('a reason of a gate is in the language', async () => {
  expect(await words('/little/closed?tongue=es')).toContain('Plantas!');
});

describe.each(translated)('a message in the language %s', (tag) => {
  // Every way to a message that needs no second machine: an address, a form, a file, a code, a short address.
  const asked: [string, string, Record<string, string>?][] = [
    ['no page', `/little/nowhere?tongue=${tag}`],
    ['an address that is too long', `/little?tongue=${tag}&q=${'a'.repeat(9000)}`],
    ['a record that is not there', `/little?tongue=${tag}&edit=zz`],
    ['a wrong value', `/little?tongue=${tag}&tall=99&kind=elm`],
    ['a form that is not there', `/little?tongue=${tag}`, { '~form': 'other' }],
    ['a code of a foreign address', `/little/~qr.svg?of=${encodeURIComponent(`/elsewhere?tongue=${tag}`)}`],
    ['a form for a short address', '/little/~s', { of: `/little/nowhere?tongue=${tag}` }],
  ];
  const english = [...Object.keys(phrases), ...Object.keys(messagePhrases)].filter((phrase) => phrase.length > 12);

  it.each(asked)('%s: all of it, in its own quotation marks', async (_, path, form) => {
    const visitor = new Visitor(service.base);
    const answer = form === undefined ? await visitor.get(path) : await visitor.send(path, form);
    const html = await answer.text();
    const read = html
      .slice(html.indexOf('<body'))
      .replace(/<script[^]*?<\/script>/g, '')
      .replace(/<[^>]*>/g, '\n')
      .replaceAll('&#39;', '’');
    if (answer.status >= 400) expect(read.length).toBeGreaterThan(50);
    // “ closes a quotation in German and opens one in English.
    expect(read).not.toMatch(/“[^“”„]*”/);
    expect(english.filter((phrase) => !phrase.includes('{') && read.includes(phrase))).toEqual([]);
  });
});
