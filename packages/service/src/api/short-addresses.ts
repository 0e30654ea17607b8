import type { AnswerOf } from '@pallmist/api';
import { quote } from '@pallmist/app';
import type { HostedApp } from '../apps/hosted-app.ts';
import { openedFor } from '../apps/sealed-values.ts';
import type { LinkPromises } from '../apps/link-promises.ts';
import { shareable } from '../pages/shareable.ts';
import { targetAddress } from '../pages/short-addresses.ts';
import type { Sealer } from '../seals/sealer.ts';
import type { ShortAddress, ShortAddressStore } from '../store/short-addresses.ts';
import { Refused } from './problem-details.ts';

/** Short addresses as they are answered: with the public base address before them, and where each leads today. */
export async function shortAnswer(
  hosted: HostedApp,
  sealer: Sealer,
  base: string,
  shorts: readonly ShortAddress[],
  printed: ReadonlyMap<string, string>,
): Promise<AnswerOf<'listShort'>> {
  const shortAddresses: AnswerOf<'listShort'>['shortAddresses'] = [];
  for (const short of shorts) {
    const { code, madeAt, endsAt } = short;
    const address = (await targetAddress(hosted, sealer, short)) ?? '';
    const printedOn = printed.get(code) ?? null;
    shortAddresses.push({ code, short: `${base}${hosted.compiled.mount}/~s/${code}`, address, madeAt, endsAt, printedOn });
  }
  return { shortAddresses };
}

/** Makes a short address. */
export async function makeShort(
  hosted: HostedApp,
  sealer: Sealer,
  store: ShortAddressStore,
  { address, days }: { address: string; days?: number | undefined },
): Promise<ShortAddress> {
  const { compiled } = await openedFor(hosted, sealer, address);
  const shared = shareable(compiled, address);
  if ('problems' in shared) throw new Refused(422, `No page of the app is at ${quote(address, 80)}.`, [...shared.problems]);
  return store.make(hosted.definition.app, hosted.edition, shared, days);
}

/** Withdraws a short address. @throws Refused where there is none, or where people may still read it on paper */
export async function withdrawShort(
  { definition: { app } }: HostedApp,
  promises: LinkPromises,
  store: ShortAddressStore,
  code: string,
): Promise<void> {
  const printedOn = (await promises.printedCodes(app)).get(code.toLowerCase());
  if (printedOn !== undefined) {
    throw new Refused(
      409,
      `The short address ${quote(code)} is printed on “${printedOn}”. If it is on paper no longer, remove it from the printed addresses first.`,
    );
  }
  if (!(await store.withdraw(app, code))) throw new Refused(404, `The app has no short address ${quote(code)}.`);
}
