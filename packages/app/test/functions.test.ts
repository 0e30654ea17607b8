import { describe, expect, it } from 'vitest';
import { celFunctions, evaluateCel } from '../src/index.ts';
import { ExpressionChecker } from '../src/expressions/check-expression.ts';

const all = Object.values(celFunctions).flat();
const english = { app: { language: 'en', timeZone: 'UTC' } };

describe('functions of expressions', () => {
  it.each(all.map(({ name, example }) => [name, ...example] as const))('%s does what its example says', (_, expression, gives) => {
    expect(evaluateCel(expression, english, {})).toEqual(gives);
    expect(new ExpressionChecker({}).check(expression)).toHaveProperty('type');
  });

  it('write numbers, money, dates and moments as the language and the time zone of the app do', () => {
    const german = { app: { language: 'de', timeZone: 'Europe/Berlin' } };
    expect(evaluateCel("formatNumber(1234.5, 2) + ' | ' + formatDate('2026-03-21', 'long')", german, {})).toBe('1.234,50 | 21. März 2026');
    expect(evaluateCel("formatMoney(3, 'EUR')", german, {})).toMatch(/^3,00\s€$/);
    expect(evaluateCel("formatTime('2026-07-01T22:30:00Z')", german, {})).toMatch(/^02\.07\.2026, 00:30$/);
  });

  it.each([
    "addDays('2026-02-30', 1)",
    "addDays('9999-12-31', 1)",
    "formatDate('soon')",
    "formatDate('2026-03-21', 'loud')",
    "formatMoney(1, 'money')",
    "'a'.charAt(5)",
    "'%s'.format([])",
    "[1, 'a'].sort()",
    'lists.range(1000000)',
    "'aaaaaaaaaaaaaaaaaaaa'.replace('', 'x')".replace("''", "'a'").replace("'x'", `'${'x'.repeat(6000)}'`),
  ])('give nothing where they cannot: %s', (expression) => {
    expect(evaluateCel(expression, english, {})).toBeUndefined();
  });
});
