import { pino } from 'pino';
import { mkdtempSync, rmSync } from 'node:fs';
import { IncomingMessage, ServerResponse } from 'node:http';
import { Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import express, { type Request, type Response } from 'express';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { hostApp, type HostedApp } from '../src/apps/hosted-app.ts';
import { browserFiles } from '../src/http/browser-files.ts';
import { AppCookies } from '../src/http/cookies.ts';
import { Origins } from '../src/http/origins.ts';
import { admit } from '../src/pages/admit.ts';
import { kindOfForm } from '../src/pages/form-kind.ts';
import { load } from '../src/pages/load.ts';
import { PreviousPages } from '../src/pages/previous-pages.ts';
import { Ledger } from '../src/ledger/ledger.ts';
import { LinkPromises } from '../src/apps/link-promises.ts';
import { read, type ReadParts } from '../src/pages/read.ts';
import { show } from '../src/pages/show.ts';
import type { AskedAs, Received, Step } from '../src/pages/steps.ts';
import { VisitMemory } from '../src/pages/visit.ts';
import { KeyRing } from '../src/seals/key-ring.ts';
import { Sealer } from '../src/seals/sealer.ts';
import { openStore } from '../src/store/open-store.ts';
import type { Store } from '../src/store/store.ts';
import { littleApp } from '../../../test/support/little-app.ts';

const source = littleApp({
  more: 'signIn: { page: sign-in, byMail: { subject: In, text: "{link.enter}" } }',
  collections:
    '  things: { keyField: code, titleField: name, fields: { code: { type: text }, name: { type: text }, secret: { type: text } } }',
  pages: `
  home:
    title: Home
    address: /{?q,old}
    formerAddresses: [/start]
    parameters: { q: { type: text, maxLength: 5 }, old: { type: boolean, once: true } }
    content:
      - { show: heading, text: "Found {param.q}" }
      - { show: share, short: true }
  thing:
    title: "{record.thing.name}"
    address: /things/{thing}
    parameters: { thing: { type: record, of: things } }
    content:
      - { show: heading, text: "{record.thing.name}" }
      - { show: text, when: has(person.name), text: "{record.thing.secret}" }
  mine: { title: Mine, address: /mine, admit: signed-in, content: [] }
  sign-in: { title: Sign in, address: /sign-in, content: [{ show: sign-in }] }`,
});

const data = mkdtempSync(join(tmpdir(), 'pallmist-steps-'));
const clock = () => Date.UTC(2026, 10, 25, 12);
const { assets } = browserFiles();
const express_ = express();
let store: Store;
let hosted: HostedApp;
let parts: Parameters<typeof admit>[1] & Parameters<typeof load>[1] & ReadParts;

beforeAll(async () => {
  store = await openStore(data, { clock });
  const app = hostApp({ source, edition: 1 }, clock);
  if ('problems' in app) throw new Error(JSON.stringify(app.problems));
  hosted = app;
  const { collections = {} } = hosted.definition;
  await store.records.prepare('little', collections);
  const staged = await store.records.stage('little', collections, 'things');
  await staged.add([{ code: 'a', name: 'Anchor', secret: 'buried' }]);
  await store.records.take(staged, false);
  const origins = new Origins({ publicUrl: undefined, draftUrl: undefined, host: '127.0.0.1' });
  const cookies = new AppCookies(origins);
  const sealer = new Sealer(new KeyRing(join(data, 'keys.json'), clock), clock);
  parts = {
    store,
    cookies,
    sealer,
    visit: new VisitMemory(cookies, store.visits),
    previous: new PreviousPages(origins, cookies),
    promises: new LinkPromises(store, sealer, clock),
    ledger: new Ledger(store.ledger, { ledger: false }, pino({ level: 'silent' }), clock),
  };
});
afterAll(async () => {
  await store.close();
  rmSync(data, { recursive: true });
});

function received(address: string, as: AskedAs = 'document'): Received {
  const plain = new IncomingMessage(new Socket());
  const request = Object.assign(Object.setPrototypeOf(plain, express_.request) as Request, { originalUrl: address, method: 'GET' });
  const response = Object.setPrototypeOf(new ServerResponse(plain), express_.response) as Response;
  return { hosted, request, response, as, form: undefined };
}

/** The result of a step that goes on. */
function on<Result>(step: Step<Result>): Result {
  if (typeof step === 'object' && step !== null && 'elsewhere' in step) throw new Error(JSON.stringify(step.elsewhere));
  return step as Result;
}
const admitted = async (address: string, as?: AskedAs) => on(await admit(on(await read(received(address, as), parts)), parts));
const loaded = async (address: string) => on(await load(await admitted(address), parts));

describe('read', () => {
  it('gives the page and its values, whatever is wrong with them', async () => {
    expect(on(await read(received('/little?q=fern'), parts))).toMatchObject({ name: 'home', reading: { values: { q: 'fern' } } });
    expect(on(await read(received('/little?q=orchids'), parts)).reading.problems).toMatchObject([{ code: 'too-long' }]);
  });

  it('says that there is no such page', async () => {
    expect(await read(received('/little/nowhere'), parts)).toMatchObject({ elsewhere: { say: { status: 404 } } });
  });
});

describe('admit', () => {
  it('gives what the page depends on beside its address', async () => {
    expect(await admitted('/little?q=fern')).toMatchObject({ requestContext: { today: '2026-11-25', visit: {} }, held: [], repeats: true });
  });

  it('leads to sign in, to today’s address, and to where what acts once has acted', async () => {
    const led = async (address: string) => admit(on(await read(received(address), parts)), parts);
    expect(await led('/little/mine')).toMatchObject({ elsewhere: { needsSignIn: true, redirect: { status: 303 } } });
    expect(await led('/little/start?q=fern')).toMatchObject({ elsewhere: { redirect: { status: 301, to: '/little?q=fern' } } });
    expect(await led('/little?old=true')).toMatchObject({ elsewhere: { redirect: { status: 303, to: '/little' } } });
  });
});

describe('load', () => {
  it('gives the records, and the page without what is hidden', async () => {
    const { data: found, payload } = await loaded('/little/things/a');
    expect(found.records).toMatchObject({ thing: { name: 'Anchor' } });
    expect(payload.page.content).toHaveLength(1);
    expect(JSON.stringify(payload)).not.toContain('buried');
  });

  it('says that there is no such record', async () => {
    expect(await load(await admitted('/little/things/z'), parts)).toMatchObject({ elsewhere: { say: { status: 404 } } });
  });
});

describe('show', () => {
  it('gives a document, or the data of one', async () => {
    const page = await loaded('/little/things/a');
    expect(show(page, 'document', { assets, base: () => '' })).toContain('>Anchor<');
    expect(JSON.parse(show(page, 'data', { assets, base: () => '' }))).toMatchObject({
      name: 'thing',
      reading: { values: { thing: 'a' } },
    });
  });
});

it.each([
  ['/little/~sign-out', {}, 'sign-out'],
  ['/little/~s', { of: '/little' }, 'short-address'],
  ['/little/~s/abc', { '~withdraw': 'yes' }, 'short-address'],
  ['/little/~s/abc/about', {}, undefined],
  ['/little', { '~form': 'add' }, 'page-form'],
  ['/little/sign-in', { '~form': 'add' }, 'page-form'],
  ['/little/sign-in?q=1', { '~name': 'a', '~password': 'b' }, 'sign-in'],
  ['/little/sign-in', { '~mail': 'a@b.example' }, 'mail-wanted'],
  ['/little/sign-in', { '~enter': 'token' }, 'mailed-link'],
  ['/little', { name: 'a' }, undefined],
  ['/elsewhere', {}, undefined],
])('a form sent to %s with %j is of the kind %s', (address, texts, kind) => {
  expect(kindOfForm(hosted, address, { texts: texts as Record<string, string>, files: {} })?.kind).toBe(kind);
});
