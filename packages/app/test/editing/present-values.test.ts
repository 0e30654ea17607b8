import { collectionShownBy, presentValue, rawValue, type AppDefinition } from '@pallmist/app/editing';
import { expect, it } from 'vitest';

const values = { param: { q: 'fern', page: 2 }, record: { plant: { name: 'Harts-tongue' } }, row: { plants: { code: 'QM-1' } } };

it('follows a path in braces, and leaves the rest to the page', () => {
  expect(rawValue('fern', values, undefined)).toBe('fern');
  expect(rawValue(3, values, undefined)).toBe(3);
  expect(rawValue('{param.page}', values, undefined)).toBe(2);
  expect(rawValue('{record.plant.name}', values, undefined)).toBe('Harts-tongue');
  expect(rawValue('{row.code}', values, 'plants')).toBe('QM-1');
  expect(rawValue('{param.nothing.at.all}', values, undefined)).toBeUndefined();
  expect(rawValue('{param.page + 1}', values, undefined)).toBeUndefined();
});

it('shows a value in few characters, and nothing for what is absent', () => {
  expect(presentValue(values, 'param.q', undefined)).toBe('fern');
  expect(presentValue(values, 'record.plant', undefined)).toBe('{"name":"Harts-tongue"}');
  expect(presentValue(values, 'person.login', undefined)).toBe('');
  expect(presentValue({ param: { q: 'x'.repeat(200) } }, 'param.q', undefined)).toMatch(/^x{59}…$/);
});

it('finds the collection that a component shows, saves or is bound to', () => {
  const app = {
    title: 'Garden',
    mount: '/garden',
    parameters: { from: { type: 'record', of: 'houses' } },
    pages: {
      home: {
        title: 'Home',
        address: '/',
        parameters: { plant: { type: 'record', of: 'plants' } },
        rows: { notes: { from: 'notes' } },
        content: [],
      },
    },
  } as unknown as AppDefinition;
  const shown = (component: object) => collectionShownBy(app, 'home', component as never);
  expect(shown({ show: 'form', collection: 'orders' })).toBe('orders');
  expect(shown({ show: 'table', rows: 'notes' })).toBe('notes');
  expect(shown({ show: 'select', bind: 'plant' })).toBe('plants');
  expect(shown({ show: 'select', bind: 'from' })).toBe('houses');
  expect(shown({ show: 'text', text: 'Hello' })).toBeUndefined();
});
