// A grammar of hostile requests, as raw bytes. A seed gives the same requests again.
import type { Chance } from '../support/chance.ts';

const inherited = ['constructor', '__proto__', 'toString', 'hasOwnProperty', 'valueOf'];
const pieces = [
  ...inherited,
  '%', '%2', '%2F', '%00', '%ff', '%E2%82', '%0D%0A', '%0a', '+', '&', '=', '?', '#', '/', '//', '\\', '..', '%2e%2e', '.', ',', ';', '-', '~',
  '\u0000', '\t', ' ', '\u00a0', 'é', '\u{1f33f}', '\u202e', '[', ']', '{', '}', '<script>', "'", '"', '*', '|', ':', ':99999', '@', 'evil.example',
  '//evil.example', '/\\evil.example', 'http://evil.example/', 'javascript:', '9'.repeat(30), 'a'.repeat(300),
] as const; // prettier-ignore

/** Paths of every route that strangers reach: pages, files, codes, short addresses, forms, the HTTP interface, assets, guides. */
const paths = [
  '/', '/garden', '/garden/specimens', '/garden/specimens/QM-0412', '/garden/houses/palm', '/garden/membership', '/garden/sign-in',
  '/garden/care-rounds', '/garden/plants/QM-0412', '/garden/~to/specimens', '/garden/~to/specimen', '/garden/~files/a.png', '/garden/~files/a.',
  '/garden/~files/AAAAAAAAAAAAAAAAAAAAAA/', '/garden/~qr.svg', '/garden/~qr.png', '/garden/~s', '/garden/~s/abc', '/garden/~s/abc/about',
  '/garden/~sitemap.xml', '/garden/~look.css', '/garden/~sign-out', '/garden/~', '/robots.txt', '/pair/a/b', '/~to/pair', '/deep', '//', '/\\',
  '/~/health', '/~/ready', '/~/assets/', '/~/assets/manifest.json', '/~/docs', '/~/docs/search', '/~/console/', '/~/api', '/~/api/v1/openapi.json',
  '/~/api/v1/apps', '/~/api/v1/apps/quillmoor/read', '/~/api/v1/apps/quillmoor/write', '/~/api/v1/apps/quillmoor/draft',
  '/~/api/v1/apps/quillmoor/records/specimens', '/~/api/v1/apps/quillmoor/pictures/', '/~/api/v1/console/sign-in', '/~/api/v1/builders/',
  '/~/draft/quillmoor', '/~/draft/', '/~/published/quillmoor', '/~/draft/quillmoor/~changes', '/~/enter', '/~/enter?ticket=',
] as const; // prettier-ignore
const names = ['q', 'house', 'sort', 'page', 'of', 'tab', 'note', '~wanted', '~why', '~enter', 'a', 'b', 'pack', ...inherited] as const;

/** Some text, most of it short and all of it odd. */
export function oddText(chance: Chance, most = 5): string {
  let text = '';
  for (let count = chance.below(most); count >= 0; count--) text += chance.pick(pieces);
  return text;
}

/** The target of a request line. */
export function target(chance: Chance): string {
  let path: string = chance.pick(paths);
  if (chance.once(3)) path += `${chance.once(2) ? '/' : ''}${oddText(chance, 3)}`;
  if (chance.once(8)) path = oddText(chance) + path;
  let query = '';
  for (let count = chance.below(4); count > 0; count--)
    query += `${query === '' ? '?' : '&'}${chance.once(6) ? oddText(chance, 2) : chance.pick(names)}${chance.once(8) ? '' : `=${oddText(chance, 3)}`}`;
  return path + query + (chance.once(10) ? `#${oddText(chance, 2)}` : '');
}

const fieldNames = [
  'accept', 'accept-encoding', 'accept-language', 'authorization', 'cookie', 'range', 'if-none-match', 'if-match', 'if-modified-since', 'referer',
  'origin', 'host', 'content-encoding', 'content-length', 'transfer-encoding', 'expect', 'upgrade', 'connection', 'sec-fetch-site', 'x-forwarded-host',
  'x-forwarded-proto', 'forwarded', 'x-http-method-override', '__proto__', 'constructor',
] as const; // prettier-ignore
const fieldValues = [
  '', '*', 'gzip', 'gzip;q=0, br;q=9e9', 'chunked', 'chunked, chunked', '0', '-1', '1e9', '99999999999999999999', 'bytes=0-', 'bytes=-1,-2,0-0',
  'bytes=' + '0-1,'.repeat(200), 'W/"x"', '"*"', 'Bearer ', 'Bearer undefined', 'Basic Og==', 'pallmist_quillmoor_visit=e30', 'pallmist_quillmoor_once=W10',
  'pallmist_quillmoor_previous=Lw', 'pallmist_quillmoor_said=IA', 'a=b;'.repeat(300), 'pallmist_owner=x', 'de;q=0.5, *;q=0', 'x'.repeat(2000),
  'application/json', 'application/vnd.pallmist.page-data+json', '100-continue', 'h2c', 'close', 'http://evil.example/garden', 'null', '::1', 'é',
] as const; // prettier-ignore

/** A body and its type. */
interface Body {
  type: string;
  bytes: Buffer;
}

function urlEncoded(chance: Chance): Body {
  let text = chance.once(2) ? '~form=join' : '~name=ansa&~password=x';
  for (let count = chance.below(6); count > 0; count--)
    text += `&${chance.once(4) ? oddText(chance, 2) : chance.pick(names)}=${oddText(chance)}`;
  return { type: 'application/x-www-form-urlencoded', bytes: Buffer.from(text) };
}

function multipart(chance: Chance): Body {
  const boundary = chance.pick(['B', 'x'.repeat(70), "'()+_,-./:=?"]);
  let text = chance.once(5) ? oddText(chance) : '';
  for (let count = 1 + chance.below(4); count > 0; count--) {
    text += `--${boundary}${chance.once(8) ? '' : '\r\n'}`;
    for (let fields = 1 + chance.below(2); fields > 0; fields--)
      text += chance.pick([
        'content-disposition: form-data; name="~form"\r\n',
        `content-disposition: form-data; name="${chance.pick(names)}"; filename="${oddText(chance, 2)}"\r\n`,
        `content-disposition: form-data; filename*=utf-8''${oddText(chance, 2)}; name=a\r\n`,
        'content-disposition: attachment\r\n',
        'content-type: image/png\r\n',
        'content-transfer-encoding: base64\r\n',
        `X-A${chance.once(2) ? '' : ':'} ${oddText(chance, 2)}${chance.once(2) ? '\r\n' : ''}`,
        `X: ${'a'.repeat(chance.pick([10, 16_000, 17_000]))}\r\n`,
      ]);
    text += `${chance.once(6) ? '' : '\r\n'}${oddText(chance)}${chance.once(6) ? '' : '\r\n'}`;
  }
  text += chance.once(3) ? '' : `--${boundary}--${chance.once(3) ? '' : '\r\n'}`;
  return { type: `multipart/form-data; boundary=${chance.once(10) ? '' : boundary}`, bytes: Buffer.from(text) };
}

function json(chance: Chance): Body {
  const depth = chance.pick([0, 1, 90, 110, 20_000]);
  const value = `${'['.repeat(depth)}${JSON.stringify(oddText(chance))}${']'.repeat(chance.once(4) ? depth + 1 : depth)}`;
  const text = chance.pick([
    `{"address":${value}}`,
    `{"page":"specimens","values":{"q":${value},"${chance.pick(names)}":${value}}}`,
    `{"page":"${chance.pick(inherited)}","texts":{"${chance.pick(names)}":${value}}}`,
    `{"mail":${value},"password":"x"}`,
    `{"__proto__":{"address":"/"},"constructor":1}`,
    value,
  ]);
  return { type: 'application/json', bytes: Buffer.from(text) };
}

/** A request as bytes. Most have a head that is nearly right: what is wrong at its first byte is refused there, and tells little. */
export function request(chance: Chance): Buffer {
  const method = chance.pick([
    'GET',
    'GET',
    'GET',
    'HEAD',
    'POST',
    'POST',
    'POST',
    'PUT',
    'DELETE',
    'OPTIONS',
    'PATCH',
    'TRACE',
    'GETX',
    '',
  ]);
  const body =
    method === 'POST' || method === 'PUT' || method === 'PATCH' ? chance.pick([urlEncoded, multipart, multipart, json])(chance) : undefined;
  const line = `${method} ${target(chance)} HTTP/${chance.once(20) ? chance.pick(['1.0', '2.0', '9', '']) : '1.1'}`;
  const fields = ['host: x', `x-forwarded-for: 10.${String(chance.below(250))}.${String(chance.below(250))}.1`, 'connection: close'];
  for (let count = chance.below(4); count > 0; count--)
    fields.push(`${chance.pick(fieldNames)}: ${chance.once(4) ? oddText(chance, 2) : chance.pick(fieldValues)}`);
  if (body !== undefined) {
    const length = body.bytes.length + (chance.once(12) ? chance.pick([-1, 1, 1000]) : 0);
    fields.push(`content-type: ${body.type}`, `content-length: ${String(Math.max(0, length))}`);
  }
  return Buffer.concat([Buffer.from(`${line}\r\n${fields.join('\r\n')}\r\n\r\n`), body?.bytes ?? Buffer.alloc(0)]);
}

/** The largest requests that are let in, made of one piece again and again: where something takes more than linear time, it shows. */
export function greatRequests(): { name: string; bytes: Buffer }[] {
  const fill = (piece: string, length: number) => piece.repeat(Math.floor(length / Buffer.byteLength(piece)));
  const get = (path: string, fields = '') => Buffer.from(`GET ${path} HTTP/1.1\r\nhost: x\r\nconnection: close\r\n${fields}\r\n`);
  const post = (path: string, type: string, body: string) =>
    Buffer.from(
      `POST ${path} HTTP/1.1\r\nhost: x\r\nconnection: close\r\ncontent-type: ${type}\r\ncontent-length: ${String(Buffer.byteLength(body))}\r\n\r\n${body}`,
    );
  const found: { name: string; bytes: Buffer }[] = [];
  const add = (name: string, bytes: Buffer) => found.push({ name, bytes });
  for (const piece of [
    'a',
    'q=&',
    'q=a&',
    'a&',
    '&',
    '=',
    '%',
    '%41',
    '%0D%0A',
    '+',
    '/',
    '..',
    'sort=name,',
    ',',
    '%2C',
    '.',
    'a..',
    '~wanted=%2F',
    '%25',
  ])
    for (const path of [
      '/garden/specimens?',
      '/garden/~to/specimens?',
      '/garden/~to/specimen?',
      '/garden/~qr.svg?of=',
      '/garden/',
      '/?',
      '/deep?pack=',
    ])
      add(`${path}${piece}…`, get(path + fill(piece, 65_000 - path.length)));
  for (const name of fieldNames.filter(
    (one) => !['content-length', 'transfer-encoding', 'host', 'upgrade', 'expect', 'connection'].includes(one),
  ))
    for (const piece of ['a,', 'a=b;', '0-1,', 'a;q=0.1,', '"', 'W/"a",', ' ', '/', 'http://x/garden/'])
      add(`${name}: ${piece}…`, get('/garden/specimens?q=fern', `${name}: ${name === 'range' ? 'bytes=' : ''}${fill(piece, 16_000)}\r\n`));
  add('many fields', get('/garden', fill('a: b\r\n', 15_000)));
  for (const piece of ['a', 'é', '&a=', 'a=b&', '%41', '+', '%', '\n', '<', '%0D%0A', '\u{1f33f}'])
    add(
      `form ${JSON.stringify(piece)}…`,
      post('/garden/membership', 'application/x-www-form-urlencoded', `~form=join&name=${fill(piece, 99_000)}`),
    );
  add('form of many fields', post('/garden/membership', 'application/x-www-form-urlencoded', `~form=join${fill('&a=b', 1190)}`));
  const part = '--B\r\ncontent-disposition: form-data; name="a"\r\n\r\nb\r\n';
  for (const count of [10, 299, 2000])
    add(`${String(count)} parts`, post('/garden/specimens/QM-0412', 'multipart/form-data; boundary=B', `${part.repeat(count)}--B--\r\n`));
  for (const piece of ['\r\n--', '\r\n--B', '\r', 'a'])
    add(
      `part of ${JSON.stringify(piece)}`,
      post(
        '/garden/specimens/QM-0412',
        'multipart/form-data; boundary=B',
        `--B\r\ncontent-disposition: form-data; name="a"\r\n\r\n${fill(piece, 98_000)}`,
      ),
    );
  for (const piece of ['[', '{"a":', '"', '\\u0041', '1', '[],'])
    for (const operation of ['read', 'write'])
      add(
        `${operation} ${piece}…`,
        post(
          `/~/api/v1/apps/quillmoor/${operation}`,
          'application/json',
          `{"address":"x","page":"specimens","values":{"q":${fill(piece, 63_000)}}}`,
        ),
      );
  for (const piece of ['a', '%41', '/', '&q=', '..'])
    add(
      `read ${piece}…`,
      post('/~/api/v1/apps/quillmoor/read', 'application/json', JSON.stringify({ address: `/garden/specimens?q=${fill(piece, 60_000)}` })),
    );
  return found;
}
