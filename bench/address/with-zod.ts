// The same pages read with `URL` and a Zod object, as many write it.
import { z } from 'zod';

const path = /^\/garden\/houses\/([^/]+)\/specimens\/([^/]+)$/;
const health = z.enum(['thriving', 'steady', 'poorly', 'resting']);
const alive = z
  .enum(['true', 'false'])
  .transform((text) => text === 'true')
  .default(true);
const page = z.coerce.number().int().min(1).max(1000).default(1);

const easy = z.object({
  house: z.string().max(40),
  specimen: z.string().regex(/^QM-[0-9]{4}$/),
  q: z.string().max(80).optional(),
  health: health.default('steady'),
  alive,
  since: z.iso.date().optional(),
  height: z.coerce.number().min(0).optional(),
  page,
});

export function readEasy(address: string) {
  const url = new URL(address, 'http://garden.example');
  const found = path.exec(url.pathname);
  if (found === null) return undefined;
  return easy.safeParse({
    house: decodeURIComponent(found[1] ?? ''),
    specimen: decodeURIComponent(found[2] ?? ''),
    ...Object.fromEntries(url.searchParams),
  }).data;
}

const end = z.union([z.literal('').transform(() => undefined), z.coerce.number().int().min(0).max(500)]);
const filters = z.object({
  q: z.string().max(80).optional(),
  health: health.optional(),
  zones: z
    .string()
    .transform((text) => text.split(','))
    .pipe(z.array(z.enum(['arid', 'alpine', 'tropic', 'temperate', 'mist', 'dry'])).max(6))
    .optional(),
  height: z
    .string()
    .transform((text) => text.split('..'))
    .pipe(z.tuple([end, end]))
    .transform(([from, to]) => ({ from, to }))
    .refine(({ from, to }) => from === undefined || to === undefined || from <= to)
    .optional(),
  since: z.iso.date().optional(),
  alive,
  sort: z
    .string()
    .transform((text) => text.split(',').map((key) => ({ field: key.replace(/^-/, ''), descending: key.startsWith('-') })))
    .pipe(z.array(z.object({ field: z.enum(['name', 'height', 'planted', 'house']), descending: z.boolean() })))
    .optional(),
  page,
});

export function readFilters(address: string) {
  const url = new URL(address, 'http://garden.example');
  return url.pathname === '/garden/specimens' ? filters.safeParse(Object.fromEntries(url.searchParams)).data : undefined;
}
