import type { AnswerOf } from '@pallmist/api';
import { quote } from '@pallmist/core';
import type { HostedApp } from '../host/hosted-app.ts';
import { shareable } from '../host/shareable.ts';
import type { ShortAddressRow } from '../store/entities/index.ts';
import type { ShortAddressStore } from '../store/short-addresses.ts';
import { Refused } from './problem-details.ts';

/** A short address as it is told: with the public base address before it. */
export function told(hosted: HostedApp, base: string, rows: readonly ShortAddressRow[]): AnswerOf<'listShort'> {
  const { mount } = hosted.compiled;
  return {
    shortAddresses: rows.map(({ code, address, madeAt, endsAt }) => ({
      code,
      short: `${base}${mount}/~s/${code}`,
      address: mount + address,
      madeAt,
      endsAt,
    })),
  };
}

/** Makes a short address. */
export async function makeShort(
  hosted: HostedApp,
  store: ShortAddressStore,
  { address, days }: { address: string; days?: number | undefined },
): Promise<ShortAddressRow> {
  const shared = shareable(hosted.compiled, address);
  if ('problems' in shared) throw new Refused(422, `No page of the app is at ${quote(address, 80)}.`, [...shared.problems]);
  return store.make(hosted.definition.app, shared.address, days);
}
