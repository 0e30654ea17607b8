import { boolean, choice, date, integer, list, page, range, sort, text } from '@pallmist/address';

/** A list with every kind of filter. */
export const filterList = page('/garden/specimens{?q,health,zones,height,since,alive,sort,page}', {
  q: text({ maxLength: 80 }),
  health: choice(['thriving', 'steady', 'poorly', 'resting']),
  zones: list(choice(['arid', 'alpine', 'tropic', 'temperate', 'mist', 'dry']), { maxItems: 6, unique: true }),
  height: range(integer({ min: 0, max: 500 })),
  since: date(),
  alive: boolean({ default: true }),
  sort: sort(['name', 'height', 'planted', 'house']),
  page: integer({ min: 1, max: 1000, default: 1 }),
});
