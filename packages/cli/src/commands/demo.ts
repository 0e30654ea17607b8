import { existsSync, readFileSync } from 'node:fs';
import { buffer } from 'node:stream/consumers';
import { fileURLToPath } from 'node:url';
import { checkAppFile } from '@pallmist/app';
import type { Service } from '@pallmist/service';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { columns } from '../output.ts';
import { imagesBeside, recordsBeside } from './push.ts';
import { say, startHere, stopSignal, withServeOptions, type ServeOptions } from './serve.ts';

const appFile = fileURLToPath(new URL('../../../../demo/quillmoor/app.yaml', import.meta.url));
const app = 'quillmoor';
/** Everybody who reads this may sign in to the demo, which holds nothing but inventions. */
const keepers = [
  { login: 'ansa', name: 'Ansa Wetherel', password: 'moss-and-quill', mail: 'ansa@quillmoor.example', roles: ['keeper', 'head'] },
  { login: 'bruno', name: 'Bruno Tallis', password: 'peat-and-quill', mail: 'bruno@quillmoor.example', roles: ['keeper'] },
];

export function addDemo(program: Command): void {
  withServeOptions(program.command('demo'))
    .option('--fresh', 'Reset the demo')
    .addHelpText('after', '\nExamples:\n  pallmist demo\n  pallmist demo --fresh --data /tmp/quillmoor')
    .action(async (options: ServeOptions & { fresh?: boolean }) => {
      if (!existsSync(appFile)) throw new CommandError(exit.usage, 'The demo’s app file is not here; the demo runs from the repository.');
      const stopped = stopSignal();
      const service = await startHere(options);
      await plant(service, options.fresh ?? false);
      welcome(service);
      await stopped;
      await service.stop();
    });
}

/** Puts the demo in place where it is not yet. */
async function plant(service: Service, fresh: boolean): Promise<void> {
  const source = readFileSync(appFile, 'utf8');
  const draft = await service.store.apps.draft(app);
  if (draft !== undefined && !fresh) {
    if (draft.source !== source) say('The garden here is not the demo’s own any more; --fresh puts it back as it was.');
    return;
  }
  say('Planting the glasshouses: 640 specimens, 3,203 care entries, 441 notes …');
  const { collections = {} } = checkAppFile(source).definition ?? {};
  const records = recordsBeside(appFile, collections).map(({ field, content }) => ({
    collection: field.slice('records.'.length),
    format: 'csv' as const,
    content,
  }));
  const files: Record<string, Buffer> = {};
  for (const { name, content } of imagesBeside(appFile)) files[name] = await buffer(content);
  await service.apps.push(app, { source, records, files, replace: true });
  for (const { login, ...keeper } of keepers) await service.store.people.put(app, login, keeper);
  await service.apps.publish(app, undefined);
}

function welcome({ base, consoleLink }: Service): void {
  const worth = [
    ['The garden', `${base}/garden`],
    ['A search', `${base}/garden/specimens?q=fern&house=palm&sort=-height`],
    ['A care log', `${base}/garden/specimens/QM-0412?tab=care`],
    ['Asks for sign-in', `${base}/garden/care-rounds?task=water`],
    ['The console (once)', consoleLink],
  ];
  say(
    [
      '',
      ...columns(worth.map((row) => row.map((cell) => `  ${cell}`))),
      '',
      ...keepers.map(({ login, password, roles }) => `  Sign in as ${login} with the password ${password} (${roles.join(', ')})`),
      '',
    ].join('\n'),
  );
  say(`Pallmist is ready at ${base}`);
}
