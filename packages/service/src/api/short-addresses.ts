import type { AnswerOf } from '@pallmist/api';
import { quote } from '@pallmist/app';
import type { HostedApp } from '../apps/hosted-app.ts';
import { openedFor } from '../apps/sealed-values.ts';
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
): Promise<AnswerOf<'listShort'>> {
  const shortAddresses: AnswerOf<'listShort'>['shortAddresses'] = [];
  for (const short of shorts) {
    const { code, madeAt, endsAt } = short;
    const address = (await targetAddress(hosted, sealer, short)) ?? '';
    shortAddresses.push({ code, short: `${base}${hosted.compiled.mount}/~s/${code}`, address, madeAt, endsAt });
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
