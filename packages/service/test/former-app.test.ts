import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { littleApp } from '../../../test/support/little-app.ts';
import { readSettings, startService, type Service } from '../src/index.ts';

// An app file as it was written before its keys had today's names.
const source = littleApp({
  more: 'choices: { kind: { fern: Fern, palm: { label: Palm, formerly: [palms] } } }',
  collections: `  plants:
    key: code
    title: name
    fields: { code: { type: text }, name: { type: text }, kind: { type: choice, of: kind } }`,
  pages: `  home:
    title: Plants
    address: /{?q,kind}
    formerly: [start]
    parameters:
      q: { type: text, history: replace, formerly: [search] }
      kind: { type: choice, of: kind, otherwise: default }
    reads: { found: { from: plants, where: [{ field: kind, equals: "{param.kind}" }] } }
    content:
      - { show: search, bind: q, label: Search, hint: fern }
      - { show: table, rows: found, label: Plants, columns: [{ field: name }] }
      - { show: form, name: add, label: Add, action: create, collection: plants, fields: [code, name, kind], button: Keep it }`,
});

const data = mkdtempSync(join(tmpdir(), 'pallmist-former-'));
let service: Service;
beforeAll(async () => {
  service = await startService({ ...readSettings({}), port: 0, data, log: 'silent' });
});
afterAll(async () => {
  await service.stop();
  rmSync(data, { recursive: true });
});

it('an app file with former keys is taken, published and served, and its forms save', async () => {
  await service.apps.push('little', { source });
  await service.apps.publish('little', undefined);
  const page = async (path: string) => (await fetch(service.base + path)).text();
  const form = await page('/little');
  expect(form).toContain('Keep it');
  const once = /name="~once" value="([^"]+)"/.exec(form)?.[1] ?? '';
  const sent = await fetch(`${service.base}/little`, {
    method: 'POST',
    redirect: 'manual',
    headers: { origin: service.base },
    body: new URLSearchParams({ '~form': 'add', '~once': once, code: 'a', name: 'Anchor palm', kind: 'palm' }),
  });
  expect([sent.status, sent.headers.get('location')]).toEqual([303, '/little']);
  expect(await page('/little?kind=palm')).toContain('Anchor palm');
  expect(await page('/little?kind=fern')).not.toContain('Anchor palm');
  // Names and values of the past lead to those of today.
  const old = await fetch(`${service.base}/little?search=x&kind=palms`, { redirect: 'manual' });
  expect([old.status, old.headers.get('location')]).toEqual([301, '/little?q=x&kind=palm']);
});
