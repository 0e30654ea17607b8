import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { launchChromium, untilHydrated } from '../support/chromium.ts';
import { gardenFile, startGarden, type TestService } from '../support/garden-service.ts';

const main = fileURLToPath(new URL('../../packages/cli/dist/main.js', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'pallmist-dev-'));
const file = join(folder, 'app.yaml');
let service: TestService;
let browser: Browser;
let child: ChildProcess;
const said: { pushed: boolean; milliseconds?: number; problems?: { code: string }[] }[] = [];

beforeAll(async () => {
  [service, browser] = await Promise.all([startGarden(), launchChromium()]);
  writeFileSync(file, gardenFile);
  child = spawn(process.execPath, [main, 'dev', file, '--json', '--service', service.base, '--token', service.token], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let line = '';
  child.stdout?.on('data', (chunk: Buffer) => {
    const lines = (line + chunk.toString()).split('\n');
    line = lines.pop() ?? '';
    for (const one of lines) said.push(JSON.parse(one) as (typeof said)[number]);
  });
});
afterAll(async () => {
  // It may have ended by itself, which is wrong too, and must not be waited for.
  const ended = child.exitCode === null ? new Promise((resolve) => child.once('exit', resolve)) : child.exitCode;
  child.kill('SIGINT');
  expect(await ended).toBe(0);
  await browser.close();
  await service.stop();
  rmSync(folder, { recursive: true });
});

it('a save is checked and becomes the draft, and a page of the draft that is open shows it', async () => {
  await expect.poll(() => said.length).toBe(1);
  expect(said[0]?.pushed).toBe(true);
  const page = await browser.newPage();
  await page.goto(service.consoleLink);
  await page.waitForURL(/console(?!.*key)/);
  await page.goto(`${service.base}/~/draft/quillmoor/houses`);
  await untilHydrated(page);
  await page.evaluate(() => Object.assign(window, { stayed: true }));
  writeFileSync(
    file,
    gardenFile.replace('text: The glasshouses', 'text: All our glasshouses').replace(/title: Glasshouses/, 'title: All our glasshouses'),
  );
  await page.waitForFunction(() => document.title.startsWith('All our glasshouses'));
  expect(await page.evaluate(() => 'stayed' in window)).toBe(true);

  writeFileSync(file, gardenFile.replace('bind: q,', 'bind: query,'));
  await expect.poll(() => said.at(-1)?.problems?.map(({ code }) => code)).toContain('unknown-binding');
  expect(said.at(-1)?.pushed).toBe(false);
  expect(await page.title()).toContain('All our glasshouses');
});
