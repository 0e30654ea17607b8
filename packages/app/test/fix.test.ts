import { describe, expect, it } from 'vitest';
import { checkAppFile, describeFix, fixSource } from '../src/index.ts';

describe('fixing an app file takes nothing out of it', () => {
  const kept = '"what I typed"';
  /** Keys that are not known where they stand, and the key that is meant, if one is. */
  const slips: readonly (readonly [where: string, written: string, meant: string | undefined])[] = [
    ['page', 'addres', undefined],
    ['page', 'kept', undefined],
    ['page', 'myNotes', undefined],
    ['page', 'titel', undefined],
    ['page', 'descripton', 'description'],
    ['parameter', 'lable', 'label'],
    ['parameter', 'foo', undefined],
    ['parameter', 'maxLenght', 'maxLength'],
    ['parameter', 'keyField', undefined],
    ['parameter', 'constructor', undefined],
    ['app', 'owner', undefined],
    ['app', 'timezone', 'timeZone'],
    ['component', 'colour', undefined],
    ['component', 'txet', undefined],
    ['component', 'über', undefined],
  ];
  it.each(slips)('of a %s with “%s”', (where, written, meant) => {
    const at = (place: string) => (place === where ? `${written}: ${kept}` : '');
    const text = [
      `pallmist: 1\napp: tiny\ntitle: One\nmount: /tiny\n${at('app')}`,
      `pages:\n  home:\n    title: Home\n    address: /{?q}\n    ${at('page')}`,
      `    parameters:\n      q:\n        type: text\n        ${at('parameter')}`,
      `    content:\n      - show: text\n        text: "{param.q}"\n        ${at('component')}\n`,
    ].join('\n');
    const { source, fixed } = fixSource(text);
    expect(source).toContain(kept);
    if (meant === undefined) expect(source).toBe(text);
    else {
      expect(source).toContain(`${meant}: ${kept}`);
      expect(fixed.map(({ fix = [] }) => describeFix(fix))).toContain(`“${written}” is now “${meant}”.`);
    }
    for (const { hint = '' } of checkAppFile(text).problems) expect(hint).not.toContain(`Did you mean “${written}”`);
  });

  it('where something has no effect, which stays until a person takes it out', () => {
    const text = `pallmist: 1
app: tiny
title: One
mount: /tiny
blocks:
  note: { content: [{ show: heading, text: A block that nobody uses }] }
pages:
  home: { title: Home, address: /, content: [] }
`;
    expect(checkAppFile(text).problems.map(({ code }) => code)).toContain('unused-block');
    expect(fixSource(text)).toEqual({ source: text, fixed: [] });
  });
});
