// A form that a condition shows only while something is free: of many who send it at once exactly one has it, and nobody loses
// what was typed.
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';
import { Visitor } from '../../../test/support/visitor.ts';

/** What a condition can name of the records, and what has to be there for the form to be open. */
const conditions = [
  ['total.taken == 0', 'total'],
  ['size(rows.taken) == 0', 'rows'],
  ['figures.taken.places == 0', 'figures'],
  ['!has(record.room.guest)', 'record'],
] as const;

const pages = conditions
  .map(
    ([condition, name]) => `
  ${name}:
    title: Room
    address: /${name}/{room}
    parameters: { room: { type: record, of: rooms } }
    rows: { taken: { from: bookings, where: [{ field: room, equals: '{param.room}' }], figures: { places: { sum: places } } } }
    content:
      - { show: heading, text: '{record.room.code}' }
      - show: panel
        label: Book
        when: '${condition}'
        content:
          - ${
            name === 'record'
              ? '{ show: form, name: book, label: Book, action: change, bind: room, fields: [guest], submit: Book }'
              : "{ show: form, name: book, label: Book, action: create, collection: bookings, fields: [guest], set: { room: '{param.room}', places: 1 }, submit: Book }"
          }`,
  )
  .join('');

let service: TestService;
beforeAll(async () => {
  service = await startTestService({ formsPerMinute: 10_000 });
  const source = littleApp({
    collections: `
  rooms: { keyField: code, fields: { code: { type: text }, guest: { type: text } } }
  bookings:
    keyField: number
    fields: { number: { type: text, serial: 'B-00' }, room: { type: record, of: rooms }, guest: { type: text }, places: { type: integer } }`,
    pages: `
  home: { title: Home, address: /, content: [{ show: heading, text: Home }] }${pages}`,
  });
  await publishApp(service, 'little', source);
});
afterAll(() => service.stop());

let room = 0;
async function newRoom(): Promise<string> {
  const code = `r${String(++room)}`;
  const answer = await service.owner('POST', '/apps/little/collections/rooms/records', { record: { code } });
  expect(answer.status, await answer.text()).toBe(200);
  return code;
}

describe.each(conditions)('a form that is shown when %s', (_, name) => {
  it('is taken by exactly one of many, and the others read why and keep what they typed', async () => {
    for (let round = 0; round < 4; round++) {
      const path = `/little/${name}/${await newRoom()}`;
      const visitors = await Promise.all(
        Array.from({ length: 6 }, async (__, index) => {
          const visitor = new Visitor(service.base);
          const page = await visitor.text(path);
          const hidden = (field: string) => new RegExp(`name="${field}" value="([^"]*)"`).exec(page)?.[1] ?? '';
          return {
            visitor,
            texts: { '~form': 'book', '~seen': hidden('~seen'), '~once': hidden('~once'), guest: `Guest ${String(index)}` },
          };
        }),
      );
      // Writes have to wait until all of them have looked at the page, where the form is still open.
      let release: () => void = () => undefined;
      const held = service.store.transaction(() => new Promise<void>((resolve) => (release = resolve)));
      const sent = visitors.map(({ visitor, texts }) => visitor.send(path, texts));
      await pause(250);
      release();
      await held;
      const answers = await Promise.all(sent);
      expect(answers.filter(({ status }) => status === 303)).toHaveLength(1);
      for (const [index, answer] of answers.entries()) {
        if (answer.status === 303) continue;
        expect([409, 422]).toContain(answer.status);
        const said = await answer.text();
        expect(said).toContain(`Guest ${String(index)}`);
        expect(said).toMatch(/has changed meanwhile|changed by another person/);
      }
    }
  });
});
