// Takes the pictures in docs/screenshots from the demo data: npm run screenshots. Needs Debian's chromium; the pictures
// of the command also need xvfb, xterm and imagemagick, and are left as they are without them.
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from 'playwright-core';

const root = fileURLToPath(new URL('../', import.meta.url));
const shots = join(root, 'docs/screenshots');
const command = join(root, 'packages/cli/dist/main.js');
const data = mkdtempSync(join(tmpdir(), 'pallmist-shots-'));
const environment = { ...process.env, PALLMIST_PORT: '0', PALLMIST_DATA: data, PALLMIST_LOG: 'silent' };

const demo = spawn(process.execPath, [command, 'demo'], { env: environment });
const { base, consoleLink } = await new Promise((resolve) => {
  let said = '';
  demo.stdout.on('data', (chunk) => {
    said += chunk;
    const ready = /ready at (http:\S+)/.exec(said)?.[1];
    if (ready) resolve({ base: ready, consoleLink: /http\S+#key=\S+/.exec(said)?.[0] });
  });
});

const options = JSON.parse(readFileSync(new URL('chromium.json', import.meta.url), 'utf8'));
const browser = await chromium.launch({ ...options, executablePath: process.env.PALLMIST_CHROMIUM ?? options.executablePath });

async function shoot(name, address, act, options = {}) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, ...options });
  await page.goto(address.startsWith('http') ? address : base + address);
  await page.waitForTimeout(500);
  await act?.(page);
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(shots, `${name}.png`) });
  await page.context().close();
  console.log(`${name}.png`);
}

/** A day before today, as the demo's data are. */
const dayBefore = (days) => new Date(Date.now() - days * 24 * 60 * 60 * 1000).toISOString().slice(0, 10);

async function signInAndEdit(page) {
  await page.fill('[name="~name"]', 'ansa');
  await page.fill('[name="~password"]', 'moss-and-quill');
  await page.click('main form button');
  await page.waitForURL(/care-rounds/);
  await page.goto(`${base}/garden/care-rounds?day=${dayBefore(8)}&entry=C-03202`);
}

await shoot('garden-home', '/garden');
await shoot('garden-specimens', '/garden/specimens?q=fern&house=palm&sort=-height');
await shoot('garden-specimens-narrow-dark', '/garden/specimens?health=poorly', undefined, {
  viewport: { width: 390, height: 800 },
  colorScheme: 'dark',
});
await shoot('garden-care-log', '/garden/specimens/QM-0412?tab=care');
await shoot('garden-sign-in', `/garden/care-rounds?day=${dayBefore(1)}&task=water`);
await shoot('garden-wrong-value', '/garden/specimens?health=thriv&page=0');
await shoot('garden-note', '/garden/specimens/QM-0412?tab=notes&note=N-0441');
await shoot('garden-label', '/garden/labels/QM-0412?lang=de');
await shoot('garden-numbers', '/garden/numbers?house=palm');
await shoot('garden-edit', '/garden/sign-in', signInAndEdit);
// The console, as the owner: one context, since the link opens it once.
const owner = await browser.newContext({ viewport: { width: 1280, height: 800 } });
const builder = await owner.newPage();
const picture = async (name) => {
  await builder.waitForTimeout(900);
  await builder.screenshot({ path: join(shots, `${name}.png`) });
  console.log(`${name}.png`);
};
const open = (place) => builder.goto(`${base}/~/console/${place}`);
await builder.goto(consoleLink);
await builder.waitForSelector('h2');
await open(
  `quillmoor?page=specimen&part=${encodeURIComponent('content/4')}&at=${encodeURIComponent('/garden/specimens/QM-0412?tab=cara&x=1')}`,
);
await builder.frameLocator('iframe').getByText('cannot be').waitFor();
await builder.getByRole('button', { name: 'Read as' }).click();
await picture('console');
await open('quillmoor/map');
await picture('console-map');
// A default that changes: the story of docs/links-that-last.md.
await builder.evaluate(async () => {
  const { revision } = await (await fetch('/~/api/v1/apps/quillmoor/draft')).json();
  const patch = [
    { op: 'replace', path: '/pages/specimen/parameters/tab/default', value: 'care' },
    { op: 'replace', path: '/pages/houses/address', value: '/glasshouses{?letters}' },
  ];
  await fetch('/~/api/v1/apps/quillmoor/draft/changes', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ revision, patch, what: 'The care log comes first' }),
  });
});
await open('quillmoor/publish');
await builder.getByText('now means').waitFor();
await picture('console-publish');

// The story of docs/first-app.md.
const csv = /```csv\n([^`]*)```/.exec(readFileSync(join(root, 'docs/first-app.md'), 'utf8'))[1];
await open('new?from=file');
await builder.setInputFiles('input[type=file]', { name: 'garden-tools.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
await picture('first-app-file');
await builder.getByRole('region', { name: 'Rows that do not fit' }).getByRole('textbox').fill('2.2');
await builder.keyboard.press('Tab');
await builder.getByRole('button', { name: 'Make the app' }).click();
await builder.frameLocator('iframe').getByText('8 found').waitFor();
await picture('first-app-list');
await open('garden-tools?page=garden-tool');
await builder.getByRole('button', { name: 'Add a component', exact: true }).click();
await builder.getByRole('button', { name: /^Tabs/ }).click();
await builder.getByRole('button', { name: 'Declare one' }).click();
await builder.getByRole('button', { name: /^Add inside Tabs, first/ }).click();
await builder.getByRole('button', { name: /^Text text/ }).click();
await builder.getByLabel('Text', { exact: true }).fill('It weighs {record.gardenTool.weightKg} kg.');
await builder.frameLocator('iframe').getByText('It weighs').waitFor();
await picture('first-app-tabs');
await open('garden-tools/publish');
await builder.getByText('is the address of').first().waitFor();
await picture('first-app-publish');
await browser.close();

// The command, in a real terminal.
const tools = ['Xvfb', 'xterm', 'import'];
if (tools.every((tool) => spawnSync('which', [tool]).status === 0)) {
  const display = ':97';
  const screen = spawn('Xvfb', [display, '-screen', '0', '1280x800x24'], { stdio: 'ignore' });
  await new Promise((resolve) => setTimeout(resolve, 1500));
  const broken = join(data, 'app.yaml');
  spawnSync('sh', [
    '-c',
    `sed -e 's/bind: tab$/bind: tba/' -e 's/{ page: houses }/{ page: huoses }/' '${join(root, 'demo/quillmoor/app.yaml')}' > '${broken}'`,
  ]);
  const scenes = {
    'command-read': 'pallmist read "/garden/specimens?q=caf%C3%A9+rose&page=007&health=thriv&pgae=2" --file app.yaml',
    'command-check': 'pallmist check app.yaml',
  };
  for (const [name, line] of Object.entries(scenes)) {
    const file = name === 'command-read' ? join(root, 'demo/quillmoor/app.yaml') : broken;
    const run = line.replace('pallmist', `'${process.execPath}' '${command}'`).replace('app.yaml', `'${file}'`);
    const shown = `printf '$ %s\\n\\n' '${line}'; ${run} 2>&1 | sed "s#${data}/##"; sleep 5`;
    const terminal = spawn(
      'xterm',
      ['-geometry', '125x38', '-fa', 'DejaVu Sans Mono', '-fs', '12', '-bg', '#141a1b', '-fg', '#e7ece6', '-e', 'sh', '-c', shown],
      {
        env: { ...process.env, DISPLAY: display, FORCE_COLOR: '1' },
        stdio: 'ignore',
      },
    );
    await new Promise((resolve) => setTimeout(resolve, 3500));
    execFileSync('import', ['-display', display, '-window', 'root', join(shots, `${name}.png`)]);
    terminal.kill();
    console.log(`${name}.png`);
  }
  screen.kill();
} else {
  console.log(`The pictures of the command need ${tools.join(', ')}; they stay as they are.`);
}

demo.kill('SIGTERM');
await new Promise((resolve) => demo.once('exit', resolve));
rmSync(data, { recursive: true, force: true });
