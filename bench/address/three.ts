import { choice, integer, page, text } from '@pallmist/address';

/** A page with three parameters: what a small site needs, by which the library's size is judged. */
export const three = page('/specimens{?q,health,page}', {
  q: text({ maxLength: 80, resets: ['page'] }),
  health: choice(['thriving', 'steady', 'poorly', 'resting']),
  page: integer({ min: 1, default: 1 }),
});
