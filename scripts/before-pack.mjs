// Run by npm before it packs a package: puts the licence beside it, and refuses to pack what is not built.
import { copyFileSync, existsSync } from 'node:fs';

if (!existsSync('dist')) {
  console.error('There is no dist folder to pack. Run npm run build in the repository first.');
  process.exit(1);
}
copyFileSync(new URL('../LICENSE', import.meta.url), 'LICENSE');
