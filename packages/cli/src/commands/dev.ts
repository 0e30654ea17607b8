import { watch } from 'node:fs';
import { basename, dirname } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import type { Command } from 'commander';
import { neededAppFile } from '../app-file.ts';
import { describeProblems } from '../problems.ts';
import { SeenDrafts } from '../seen-drafts.ts';
import { clientFor, readFile, withService, type ServiceOptions } from '../target.ts';
import { stopSignal } from './serve.ts';

/** Milliseconds without a further change until a save is taken: editors write a file in several steps. */
const quiet = 40;

/** Milliseconds until a service that was busy or not there is asked again. */
const untilAskedAgain = 1_000;

export function addDev(program: Command): void {
  withService(program.command('dev').argument('[file]', 'An app file; app.yaml of this folder when left out'))
    .addHelpText(
      'after',
      '\nExample:\n  pallmist dev app.yaml\nEach save is checked; without errors it becomes the draft, and the pages of the draft that are open in a browser show it.\nWith errors, or where others have changed the draft, it stays as it was. Ctrl+C ends it.',
    )
    .action(async (given: string | undefined, options: ServiceOptions) => {
      const file = neededAppFile(given);
      const stopped = stopSignal();
      const say = (data: object, lines: readonly string[]) => {
        process.stdout.write(options.json === true ? JSON.stringify(data) + '\n' : lines.join('\n') + '\n');
      };
      let last = '';
      const take = async () => {
        const started = performance.now();
        const source = readFile(file);
        if (source === last) return;
        last = source;
        const { checkAppFile, countProblems, mayPublish } = await import('@pallmist/app');
        const { definition, problems } = checkAppFile(source);
        const told = describeProblems(problems, { name: file, text: source });
        if (definition === undefined || !mayPublish(problems)) {
          say({ pushed: false, problems }, [...told, `${file}: ${countProblems(problems)}. The draft stays as it was.`]);
          return;
        }
        const client = await clientFor(options);
        const { app } = definition;
        const seen = new SeenDrafts(file, options.service, app);
        const { revision } = await client.call('pushDraft', { app }, { source, revision: seen.get()?.revision ?? 0 });
        const notKept = seen.keep(revision, source);
        const milliseconds = Math.round(performance.now() - started);
        const address = `${options.service.replace(/\/$/, '')}/~/draft/${app}/`;
        say({ pushed: true, app, revision, milliseconds, address, problems }, [
          ...told,
          `${file}: draft ${String(revision)} after ${String(milliseconds)} ms, ${countProblems(problems)}. ${address}`,
          ...(notKept === undefined ? [] : [notKept]),
        ]);
      };
      let ended = false;
      void stopped.then(() => (ended = true));
      let asked = 0;
      const sayError = async (error: unknown) => {
        const sentence = error instanceof Error ? error.message : String(error);
        const { ApiError } = await import('@pallmist/api');
        const problems = error instanceof ApiError ? (error.details.problems ?? []) : [];
        say({ pushed: false, error: sentence, problems }, [sentence, ...describeProblems(problems)]);
      };
      /** Takes the file as it is; a service that is busy or starting is asked again until the file is saved again. */
      const takeInTheEnd = async () => {
        const mine = asked;
        let told = '';
        while (!ended && mine === asked) {
          try {
            await take();
            return;
          } catch (error) {
            last = '';
            const { ApiError, SlowServiceError, UnreachableError } = await import('@pallmist/api');
            const passes =
              error instanceof UnreachableError ||
              error instanceof SlowServiceError ||
              (error instanceof ApiError && (error.status === 503 || error.status === 429));
            if (!passes) throw error;
            if (told !== error.message) await sayError(error);
            told = error.message;
            await Promise.race([wait(untilAskedAgain), stopped]);
          }
        }
      };
      let pending: Promise<void> = Promise.resolve();
      // The folder is watched, since many editors put another file in the place of the one that is saved; and from before
      // the file is read first, so that no save comes between.
      const watcher = watch(dirname(file), (_, name) => {
        if (name !== null && name !== basename(file)) return;
        const mine = ++asked;
        pending = pending.then(async () => {
          await wait(quiet);
          if (mine !== asked) return;
          // The file may be gone for a moment, or refused: the next save is taken again.
          await takeInTheEnd().catch(sayError);
        });
      });
      try {
        const first = takeInTheEnd();
        // What the first take cannot do ends the command; a later save may still be taken.
        pending = first.catch(() => undefined);
        await first;
        await stopped;
      } finally {
        ended = true;
        watcher.close();
        await pending;
      }
    });
}
