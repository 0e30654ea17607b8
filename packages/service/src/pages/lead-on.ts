import { leadsOnTo } from '@pallmist/app';
import type { Sealer } from '../seals/sealer.ts';
import { fillBook } from './load.ts';
import { message } from './messages.ts';
import { leads, says, tools, type Loaded, type PageOutcome } from './steps.ts';

/** Where a page leads on to by itself; undefined where it is shown. Drafts are shown, so that builders can see them. */
export async function leadOn({ hosted, book, service, reading }: Loaded, sealer: Sealer): Promise<{ elsewhere: PageOutcome } | undefined> {
  if (hosted.draft) return undefined;
  const seen = () => leadsOnTo(service.page, service.payload, { ...tools, seals: book });
  let to = seen();
  // What its address wants sealed is known now.
  if (to !== undefined && (await fillBook(hosted, book, sealer))) to = seen();
  if (to === undefined) return undefined;
  if (to.href !== undefined) return leads(303, to.href);
  const why = 'It redirects to another page, but a value for that page is missing.';
  return says(message(hosted, 404, 'This address does not work', [why], reading.values));
}
