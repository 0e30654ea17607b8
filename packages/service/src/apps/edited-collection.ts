import { own, quote, suggest, type AppDefinition, type CollectionDefinition } from '@pallmist/app';
import { Refused } from '../api/problem-details.ts';
import type { LiveApps } from './live-apps.ts';

/**
 * A collection as the draft declares it, since that is what its builder sees; as the published app does where the draft has
 * errors. Its tables are made.
 * @throws Refused where there is none
 */
export async function editedCollection(
  live: LiveApps,
  app: string,
  name: string,
): Promise<{ definition: AppDefinition; collection: CollectionDefinition }> {
  const draft = await live.draft(app);
  if (draft === undefined) throw new Refused(404, `There is no app ${quote(app)}.`);
  const hosted = 'problems' in draft ? live.byName(app) : draft;
  if (hosted === undefined) throw new Refused(422, 'The draft has errors, so its collections cannot be read. Fix them first.');
  const { definition } = hosted;
  const collection = own(definition.collections, name);
  if (collection === undefined)
    throw new Refused(404, `The app has no collection ${quote(name)}. ${suggest(name, Object.keys(definition.collections ?? {}))}`);
  return { definition, collection };
}
