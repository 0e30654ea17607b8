// Hosted pages against bare Express, and what a person at a browser waits for.
import { createReadStream, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import autocannon from 'autocannon';
import compression from 'compression';
import express from 'express';
import { readSettings, startService } from '../packages/service/dist/index.js';
import { chromium } from 'playwright-core';
import { median } from './measure.mjs';

const demo = new URL('../demo/quillmoor/', import.meta.url);
const address = '/garden/specimens?q=fern&house=palm';
const rounds = 7;

/** The demo garden on a port of its own. */
async function garden() {
  const data = mkdtempSync(join(tmpdir(), 'pallmist-bench-'));
  const service = await startService({ ...readSettings({}), port: 0, data, log: 'silent' });
  const names = ['zones', 'houses', 'keepers', 'specimens', 'care', 'notes'];
  const records = names.map((collection) => ({
    collection,
    format: 'csv',
    content: createReadStream(new URL(`data/${collection}.csv`, demo)),
  }));
  await service.apps.push('quillmoor', { source: readFileSync(new URL('app.yaml', demo), 'utf8'), records });
  await service.apps.publish('quillmoor', undefined);
  return {
    base: service.base,
    async stop() {
      await service.stop();
      rmSync(data, { recursive: true });
    },
  };
}

/** Requests a second with 8 connections, for two seconds. */
async function load(url, more = {}) {
  const { requests, non2xx } = await autocannon({ url, connections: 8, duration: 2, ...more });
  if (non2xx > 0) throw new Error(`${url} was not answered with a page ${non2xx} times.`);
  return requests.average;
}

/** The same with another address each time, so that every page is loaded and drawn again. */
let fresh = 0;
const loadFresh = (base) =>
  load(base, {
    requests: [
      {
        method: 'GET',
        setupRequest: (request) => ({ ...request, path: `${address}&unknown=${++fresh}` }),
      },
    ],
  });

/** An Express that sends one page, whatever it is asked for. */
async function bareExpress(page, ...before) {
  const bare = express();
  for (const middleware of before) bare.use(middleware);
  bare.get('/{*any}', (_, response) => {
    response.type('html').send(page);
  });
  const server = await new Promise((resolve) => {
    const listening = bare.listen(0, '127.0.0.1', () => resolve(listening));
  });
  return { url: `http://127.0.0.1:${server.address().port}/`, close: () => server.close() };
}

/** As a browser asks for a page. */
const compressed = { headers: { 'accept-encoding': 'gzip, deflate, br' } };

/** Requests a second, ours and theirs in turns: a kept page, one that is drawn again, and a kept one as browsers ask for it. */
async function throughput(base) {
  const page = await (await fetch(base + address)).text();
  const [bare, compressing] = [await bareExpress(page), await bareExpress(page, compression())];
  const pairs = {
    kept: [() => load(base + address), () => load(bare.url)],
    again: [() => loadFresh(base), () => load(bare.url)],
    compressed: [() => load(base + address, compressed), () => load(compressing.url, compressed)],
  };
  const result = { bytes: page.length };
  for (const [name, [ours, theirs]] of Object.entries(pairs)) {
    await ours();
    await theirs();
    const timed = [];
    for (let round = 0; round < rounds; round++) timed.push([await ours(), await theirs()]);
    result[name] = {
      ours: median(timed.map(([mine]) => mine)),
      theirs: median(timed.map(([, other]) => other)),
      ratio: median(timed.map(([mine, other]) => mine / other)),
    };
  }
  bare.close();
  compressing.close();
  return result;
}

/** Milliseconds from a click until what it changes is laid out, in the page. */
async function inBrowser(base) {
  const options = JSON.parse(readFileSync(new URL('../scripts/chromium.json', import.meta.url), 'utf8'));
  const browser = await chromium.launch(options);
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  const hydrated = () => page.waitForFunction(() => document.documentElement.dataset.hydrated === 'true');

  await page.goto(`${base}/garden/specimens/QM-0412`);
  await hydrated();
  const views = await page.evaluate(async () => {
    const times = [];
    for (let click = 0; click < 110; click++) {
      const tabs = document.querySelectorAll('main nav a');
      const begun = performance.now();
      tabs[click % tabs.length].click();
      await new Promise((resolve) => queueMicrotask(() => queueMicrotask(resolve)));
      document.body.getBoundingClientRect();
      times.push(performance.now() - begun);
      await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 20)));
    }
    return times.slice(10).sort((a, b) => a - b);
  });

  await page.goto(`${base}/garden/specimens?q=e`);
  await hydrated();
  const data = await page.evaluate(async () => {
    const times = [];
    const first = () => document.querySelector('tbody tr')?.textContent;
    for (let click = 0; click < 45; click++) {
      const before = first();
      const begun = performance.now();
      document.querySelectorAll('main thead a')[click % 2 === 0 ? 3 : 0].click();
      await new Promise((resolve) => {
        const watch = new MutationObserver(() => {
          if (first() === before) return;
          watch.disconnect();
          resolve();
        });
        watch.observe(document.querySelector('main'), { subtree: true, childList: true, characterData: true });
      });
      document.body.getBoundingClientRect();
      times.push(performance.now() - begun);
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    return times.slice(5);
  });
  const loads = [];
  for (let round = 0; round < 25; round++) {
    await page.goto(`${base}/garden/specimens?q=e&sort=${round % 2 === 0 ? '-height' : 'height'}`);
    await hydrated();
    loads.push(await page.evaluate(() => performance.now()));
  }
  await browser.close();
  return { views, data: median(data), load: median(loads) };
}

/** Kilobytes of JavaScript, minified and gzipped, that pages of four kinds load. */
function sizes() {
  const folder = new URL('../packages/pages/dist/browser/', import.meta.url);
  const manifest = JSON.parse(readFileSync(new URL('manifest.json', folder), 'utf8'));
  const weigh = (entry) => {
    const files = new Set();
    const walk = (key) => {
      const found = manifest[key];
      if (!found || files.has(found.file)) return;
      files.add(found.file);
      for (const other of found.imports ?? []) walk(other);
    };
    walk(entry);
    return [...files];
  };
  const kilobytes = (files) =>
    [...new Set(files)].reduce((sum, file) => sum + gzipSync(readFileSync(new URL(file, folder))).length, 0) / 1024;
  const [start] = Object.entries(manifest).find(([, value]) => value.isEntry) ?? [];
  const dynamic = (name) => Object.keys(manifest).find((key) => manifest[key].isDynamicEntry && key.includes(name));
  const plain = weigh(start);
  return {
    plain: kilobytes(plain),
    forms: kilobytes([...plain, ...weigh(dynamic('form-components')), ...weigh(dynamic('lazy-components'))]),
    cel: kilobytes([...plain, ...weigh(dynamic('cel'))]),
    packed: kilobytes([...plain, ...weigh(dynamic('packed'))]),
  };
}

export async function benchPages() {
  const { base, stop } = await garden();
  try {
    return { throughput: await throughput(base), browser: await inBrowser(base), sizes: sizes() };
  } finally {
    await stop();
  }
}
