import { boolean, choice, date, integer, number, page, record, text } from '@pallmist/address';

/** Eight simple parameters, two of them in the path. */
export const easy = page('/garden/houses/{house}/specimens/{specimen}{?q,health,alive,since,height,page}', {
  house: text({ maxLength: 40 }),
  specimen: record({ pattern: 'QM-[0-9]{4}' }),
  q: text({ maxLength: 80 }),
  health: choice(['thriving', 'steady', 'poorly', 'resting'], { default: 'steady' }),
  alive: boolean({ default: true }),
  since: date(),
  height: number({ min: 0 }),
  page: integer({ min: 1, max: 1000, default: 1 }),
});
