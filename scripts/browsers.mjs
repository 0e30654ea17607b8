// Drives Debian's Firefox (WebDriver BiDi) and WebKit (WebDriver): npm run browsers. Installs them where they are missing.
import { execFileSync, spawnSync } from 'node:child_process';

const needed = { 'firefox-esr': 'firefox-esr', WebKitWebDriver: 'webkit2gtk-driver', Xvfb: 'xvfb' };
const missing = Object.entries(needed)
  .filter(([command]) => spawnSync('which', [command]).status !== 0)
  .map(([, name]) => name);
if (missing.length > 0) {
  console.log(`Installing Debian's ${missing.join(', ')} …`);
  const apt = (...words) => {
    const line = ['apt-get', ...words];
    const whole = process.getuid() === 0 ? line : ['sudo', ...line];
    execFileSync(whole[0], whole.slice(1), {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  };
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', ...missing);
}
const words = ['vitest', 'run', '--config', 'vitest.browsers.config.ts', ...process.argv.slice(2)];
process.exit(spawnSync('npx', ['--no-install', ...words], { stdio: 'inherit' }).status ?? 1);
