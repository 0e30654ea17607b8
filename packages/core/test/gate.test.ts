import { describe, expect, it } from 'vitest';
import { followBack, ownValue, passGate, readAddress, signInAddress } from '../src/index.ts';
import { garden } from './garden.ts';

const person = { login: 'ansa', name: 'Ansa', roles: [] };

it('lets everyone in where nothing is said, and asks for sign-in where it is', () => {
  expect(passGate({}, undefined)).toEqual({ admitted: true });
  expect(passGate({ admit: 'signed-in' }, undefined)).toEqual({ admitted: false, why: 'needed' });
  expect(passGate({ admit: 'signed-in' }, person)).toEqual({ admitted: true });
});

describe('the way back', () => {
  it('survives the sign-in page’s address, query and all', () => {
    const wanted = '/garden/specimens?q=a%26b&page=2#row';
    const address = signInAddress(garden, 'home', wanted, 'needed');
    const reading = readAddress(garden, address);
    expect(followBack(garden, 'home', ownValue(reading, '~back'))).toBe(wanted);
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
    '/-/console',
    '///evil.example',
    '/garden\u0000',
    '/garden/', // the sign-in page of this test
  ])('is not followed for %j', (back) => {
    expect(followBack(garden, 'home', back)).toBeUndefined();
  });
});
