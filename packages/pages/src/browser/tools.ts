import { parameterTypes } from '@pallmist/core/address';
import type { PageMaterial, ShowTools } from '@pallmist/core/view';

const plain: ShowTools = { cel: () => undefined, types: parameterTypes };

/** What showing a page needs. What few pages need is fetched by those only. */
export async function toolsFor({ cel, packed }: PageMaterial): Promise<ShowTools> {
  if (!cel && !packed) return plain;
  const [engine, types] = await Promise.all([
    cel ? import('@pallmist/core/cel') : undefined,
    packed ? import('@pallmist/core/packed') : undefined,
  ]);
  return {
    cel: engine?.evaluateCel ?? plain.cel,
    types: types ? { ...parameterTypes, packed: types.packed } : parameterTypes,
  };
}
