import type { AnswerOf } from '@pallmist/api';
import { quote, readAddress, writeAddress } from '@pallmist/core';
import type { HostedApp } from '../host/hosted-app.ts';
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

/** Makes a short address. It is kept below the app's mount, so that it goes on when the app moves. */
export async function makeShort(
  hosted: HostedApp,
  store: ShortAddressStore,
  { address, days }: { address: string; days?: number | undefined },
): Promise<ShortAddressRow> {
  const reading = readAddress(hosted.compiled, address);
  const written =
    reading.page !== undefined && reading.status === 'page'
      ? writeAddress(hosted.compiled, reading.page, reading.values, { forSharing: true })
      : undefined;
  if (written?.address === undefined) {
    const problems = written?.problems ?? reading.problems;
    throw new Refused(422, `No page of the app is at ${quote(address, 80)}.`, [...problems]);
  }
  const hash = reading.fragment === undefined ? '' : `#${reading.fragment}`;
  return store.make(hosted.definition.app, written.address.slice(hosted.compiled.mount.length) + hash, days);
}
