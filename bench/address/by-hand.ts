// What a good engineer writes for the same pages without a library: URLSearchParams and plain checks.

const path = /^\/garden\/houses\/([^/]+)\/specimens\/([^/]+)$/;
const accession = /^QM-[0-9]{4}$/;
const healths = new Set(['thriving', 'steady', 'poorly', 'resting']);
const zoneNames = new Set(['arid', 'alpine', 'tropic', 'temperate', 'mist', 'dry']);
const fields = new Set(['name', 'height', 'planted', 'house']);
const day = /^\d{4}-\d{2}-\d{2}$/;

const isDay = (text: string) => day.test(text) && !Number.isNaN(Date.parse(text)) && new Date(text).toISOString().startsWith(text);
const whole = (text: string | null, least: number, most: number) => {
  if (text === null || !/^-?\d+$/.test(text)) return undefined;
  const value = Number(text);
  return value >= least && value <= most ? value : undefined;
};
const yes = (text: string | null) => (text === 'true' ? true : text === 'false' ? false : undefined);

/** Cuts an address into path and query without the cost of `URL`. */
function cut(address: string): [path: string, search: URLSearchParams] {
  const hash = address.indexOf('#');
  const bare = hash === -1 ? address : address.slice(0, hash);
  const mark = bare.indexOf('?');
  return mark === -1 ? [bare, new URLSearchParams()] : [bare.slice(0, mark), new URLSearchParams(bare.slice(mark + 1))];
}

export function readEasy(address: string) {
  const [pathname, search] = cut(address);
  const found = path.exec(pathname);
  if (found === null) return undefined;
  const house = decodeURIComponent(found[1] ?? '');
  const specimen = decodeURIComponent(found[2] ?? '');
  if (house.length > 40 || !accession.test(specimen)) return undefined;
  const q = search.get('q');
  const health = search.get('health');
  const since = search.get('since');
  const heightText = search.get('height');
  const height = heightText === null || heightText === '' ? NaN : Number(heightText);
  return {
    house,
    specimen,
    q: q !== null && q.length <= 80 ? q : undefined,
    health: health !== null && healths.has(health) ? health : 'steady',
    alive: yes(search.get('alive')) ?? true,
    since: since !== null && isDay(since) ? since : undefined,
    height: Number.isFinite(height) && height >= 0 ? height : undefined,
    page: whole(search.get('page'), 1, 1000) ?? 1,
  };
}

export function writeEasy(values: Record<string, unknown>) {
  const search = new URLSearchParams();
  const { q, health, alive, since, height, page } = values;
  if (q !== undefined) search.append('q', q as string);
  if (health !== 'steady') search.append('health', health as string);
  if (alive !== true) search.append('alive', String(alive));
  if (since !== undefined) search.append('since', since as string);
  if (height !== undefined) search.append('height', String(height));
  if (page !== 1) search.append('page', String(page));
  const base = `/garden/houses/${encodeURIComponent(values['house'] as string)}/specimens/${encodeURIComponent(values['specimen'] as string)}`;
  return search.size === 0 ? base : `${base}?${search.toString()}`;
}

interface Filters {
  q?: string | undefined;
  health?: string | undefined;
  zones?: readonly string[] | undefined;
  height?: { from?: number; to?: number } | undefined;
  since?: string | undefined;
  alive: boolean;
  sort?: readonly { field: string; descending: boolean }[] | undefined;
  page: number;
}

export function readFilters(address: string): Filters | undefined {
  const [pathname, search] = cut(address);
  if (pathname !== '/garden/specimens') return undefined;
  const q = search.get('q');
  const health = search.get('health');
  const since = search.get('since');
  const zonesText = search.get('zones');
  let zones: string[] | undefined;
  if (zonesText !== null) {
    zones = [...new Set(zonesText.split(','))];
    if (zones.length > 6 || !zones.every((zone) => zoneNames.has(zone))) zones = undefined;
  }
  const sortText = search.get('sort');
  let sort: { field: string; descending: boolean }[] | undefined;
  if (sortText !== null) {
    sort = sortText
      .split(',')
      .map((key) => (key.startsWith('-') ? { field: key.slice(1), descending: true } : { field: key, descending: false }));
    if (!sort.every(({ field }) => fields.has(field))) sort = undefined;
  }
  const heightText = search.get('height');
  let height: { from?: number; to?: number } | undefined;
  if (heightText !== null) {
    const [first = '', last = ''] = heightText.split('..');
    const from = whole(first, 0, 500);
    const to = whole(last, 0, 500);
    if (from !== undefined && to !== undefined) height = from <= to ? { from, to } : undefined;
    else if (from !== undefined && last === '') height = { from };
    else if (to !== undefined && first === '') height = { to };
  }
  return {
    q: q !== null && q.length <= 80 ? q : undefined,
    health: health !== null && healths.has(health) ? health : undefined,
    zones,
    height,
    since: since !== null && isDay(since) ? since : undefined,
    alive: yes(search.get('alive')) ?? true,
    sort,
    page: whole(search.get('page'), 1, 1000) ?? 1,
  };
}

export function writeFilters(values: Filters) {
  const search = new URLSearchParams();
  const { q, health, zones, height, since, alive, sort, page } = values;
  if (q !== undefined) search.append('q', q);
  if (health !== undefined) search.append('health', health);
  if (zones !== undefined) search.append('zones', zones.join(','));
  if (height !== undefined) search.append('height', `${String(height.from ?? '')}..${String(height.to ?? '')}`);
  if (since !== undefined) search.append('since', since);
  if (!alive) search.append('alive', 'false');
  if (sort !== undefined) search.append('sort', sort.map(({ field, descending }) => (descending ? '-' : '') + field).join(','));
  if (page !== 1) search.append('page', String(page));
  return search.size === 0 ? '/garden/specimens' : `/garden/specimens?${search.toString()}`;
}
