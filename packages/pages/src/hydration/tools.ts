import { parameterTypes } from '@pallmist/app/address';
import { commonShows, type PagePayload, type ShowTools } from '@pallmist/app/view';
import { partsFor } from '../parts.ts';

/** What showing a page needs. What few pages need is fetched by those only, before they are drawn. */
export async function toolsFor(payload: PagePayload): Promise<ShowTools> {
  const parts = partsFor(payload);
  const [engine, types, forms, lazy, language] = await Promise.all([
    parts.has('cel') ? import('@pallmist/app/cel') : undefined,
    parts.has('packed') ? import('@pallmist/app/packed') : undefined,
    parts.has('forms') ? import('../components/form-components.ts') : undefined,
    parts.has('lazy') ? import('../components/lazy-components.ts') : undefined,
    parts.has('phrases') ? import('@pallmist/app/phrases') : undefined,
  ]);
  return {
    cel: engine?.evaluateCel ?? (() => undefined),
    shows: { ...commonShows, ...forms?.formShows, ...lazy?.lazyShows },
    phrases: language?.phrases,
    types: types ? { ...parameterTypes, packed: types.packedType } : parameterTypes,
  };
}
