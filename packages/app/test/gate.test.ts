import { describe, expect, it } from 'vitest';
import {
  admissionOf,
  followBack,
  ownValue,
  passGate,
  readAddress,
  reasonIn,
  signInAddress,
  type Admission,
  type Passage,
  type Person,
} from '../src/index.ts';
import { reasons } from '../src/gate/pass.ts';
import { garden } from './garden.ts';

const person = { login: 'ansa', name: 'Ansa', roles: [] };

const holds = (condition: string) => condition === 'yes';

it.each<[string | Admission | undefined, Person | undefined, Passage]>([
  [undefined, undefined, 'admitted'],
  ['everyone', undefined, 'admitted'],
  ['signed-in', undefined, 'sign-in'],
  ['signed-in', person, 'admitted'],
  [{ roles: ['keeper'] }, undefined, 'sign-in'],
  [{ roles: ['keeper'] }, person, 'refused'],
  [{ roles: ['keeper', 'head'] }, { ...person, roles: ['head'] }, 'admitted'],
  [{ when: 'yes' }, undefined, 'admitted'],
  [{ when: 'no' }, undefined, 'sign-in'],
  [{ when: 'no' }, person, 'refused'],
  [{ roles: ['head'], when: 'yes' }, undefined, 'sign-in'],
  [{ roles: ['head'], when: 'no' }, { ...person, roles: ['head'] }, 'refused'],
  ['keepers', { ...person, roles: ['keeper'] }, 'admitted'],
  ['keepers', person, 'refused'],
  // A gate that there is not is a closed one.
  ['kepers', person, 'refused'],
])('%j, for %j: %s', (admit, who, passage) => {
  expect(passGate(admissionOf(admit, { keepers: { roles: ['keeper'] } }), who, holds)).toBe(passage);
});

describe('the way back', () => {
  it('survives the sign-in page’s address, query and all', () => {
    const wanted = '/garden/specimens?q=a%26b&page=2#row';
    const address = signInAddress(garden, 'home', wanted, 'sign-in-needed');
    const reading = readAddress(garden, address);
    expect(followBack(garden, 'home', ownValue(reading, '~wanted'))).toBe(wanted);
  });

  it.each([
    'https://evil.example/garden',
    '//evil.example/garden',
    '/\\evil.example',
    '\\\\evil.example',
    '/\t/evil.example',
    '/\n/evil.example',
    'javascript:alert(1)',
    'data:text/html,x',
    '/garden@evil.example',
    ' /garden',
    '/elsewhere',
    '/gardens',
    '',
    '/..//evil.example',
    '/garden/..//evil.example',
    '/.//evil.example',
    'garden',
    '?x',
    '#x',
    '/%2f%2fevil.example',
    'http:/garden',
    'http:garden',
    '/~/console',
    '///evil.example',
    '/garden\u0000',
    '/garden/', // the sign-in page of this test
  ])('is not followed for %j', (back) => {
    expect(followBack(garden, 'home', back)).toBeUndefined();
  });
});

it.each(['', 'specimens', 'garden/specimens', './garden/specimens', 'http://site.invalid/garden/specimens', '?q=fern', '#top'])(
  'after sign-in, %j is no address to go to, although it could be read as one',
  (back) => {
    expect(followBack(garden, 'home', back)).toBeUndefined();
  },
);

it.each([...reasons, '<b>Pay here</b>', 'ROLE', 'constructor', '', 'role '])('the reason %j at sign-in is one of ours, or none', (why) => {
  const given = readAddress(garden, `/garden/?~why=${encodeURIComponent(why)}`);
  expect(reasonIn(given)).toBe((reasons as readonly string[]).includes(why) ? why : undefined);
});
