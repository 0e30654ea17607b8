import type { AnswerOf, BodyOf } from '@pallmist/api';
import { readAddress, readTexts, SealBook, toPointer, writeAddress, type CompiledApp, type Problem, type Values } from '@pallmist/app';
import type { HostedApp } from '../apps/hosted-app.ts';
import { openedFor } from '../apps/sealed-values.ts';
import { fillBook } from '../pages/load.ts';
import type { Sealer } from '../seals/sealer.ts';
import { Refused } from './problem-details.ts';

/**
 * Reads an address of a published app.
 * @param asOwner sealed values are opened for the owner only: to anybody else a sealed text says nothing
 */
export async function readFor(hosted: HostedApp, sealer: Sealer, address: string, asOwner: boolean): Promise<AnswerOf<'readAddress'>> {
  const compiled = asOwner ? (await openedFor(hosted, sealer, address)).compiled : hosted.compiled;
  const reading = readAddress(compiled, address);
  const written =
    reading.page !== undefined && reading.status === 'found' ? writeAddress(compiled, reading.page, reading.values).address : undefined;
  return { ...reading, ...(written === undefined ? {} : { address: written }) };
}

/** Writes an address; what its page wants sealed is sealed for the owner only, or anybody could make such values. */
export async function writeFor(
  hosted: HostedApp,
  sealer: Sealer,
  body: BodyOf<'writeAddress'>,
  { asOwner, base }: { asOwner: boolean; base: string },
): Promise<AnswerOf<'writeAddress'>> {
  const { book, compiled } = asOwner ? await openedFor(hosted, sealer, '') : { book: new SealBook(), compiled: hosted.compiled };
  let written = write(compiled, body);
  if (asOwner && (await fillBook(hosted, book, sealer))) written = write(compiled, body);
  if (written.address === undefined) {
    const unknownPage = written.problems.some(({ code }) => code === 'unknown-page');
    throw new Refused(unknownPage ? 404 : 422, written.problems.map(({ message }) => message).join(' '), written.problems.map(atItsValue));
  }
  return { ...written, url: base + written.address };
}

function write(compiled: CompiledApp, body: BodyOf<'writeAddress'>): ReturnType<typeof writeAddress> {
  const fromTexts = readTexts(compiled, body.page, body.texts ?? {});
  if (fromTexts.problems.length > 0) return { problems: fromTexts.problems };
  const values = { ...fromTexts.values, ...(body.values as Values | undefined) };
  return writeAddress(compiled, body.page, values, { forSharing: body.sharing ?? false, newLink: true });
}

/** Says in the request's own terms where a value was refused. */
function atItsValue(problem: Problem): Problem {
  const pointer =
    problem.code === 'unknown-page' ? '/page' : problem.parameter === undefined ? '' : toPointer(['values', problem.parameter]);
  return { ...problem, pointer };
}
