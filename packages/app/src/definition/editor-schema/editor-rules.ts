import { own } from '../../own.ts';
import { operators } from '../operators.ts';
import { fieldRules } from './field-rules.ts';
import { parameterRules } from './parameter-rules.ts';
import { expressionPattern, templatePattern, textPattern } from './written-forms.ts';

const bracesClosed = { pattern: textPattern, ...message('CEL expressions stand in braces, each closed; “{{” is a brace itself.') };

/**
 * What the app file’s JSON Schema says beyond what Zod writes, by the names of its definitions. The check says the same in
 * sentences. Some editors show `patternErrorMessage` instead of a pattern that does not match.
 */
const rules: Record<string, object> = {
  condition: { pattern: expressionPattern, ...message('A CEL expression: “==” compares, “&&”, “||” and “!” join, texts stand in quotes.') },
  text: bracesClosed,
  value: bracesClosed,
  template: { pattern: templatePattern, ...message('An address template, such as /specimens/{specimen}{?tab,note}.') },
  pattern: { format: 'regex' },
  parameter: { allOf: parameterRules },
  field: { allOf: fieldRules },
  where: { oneOf: operators.map((operator) => ({ required: [operator] })) },
  figure: { minProperties: 1, maxProperties: 1 },
  gate: { anyOf: [{ required: ['roles'] }, { required: ['when'] }] },
};

function message(patternErrorMessage: string) {
  return { patternErrorMessage };
}

/** Adds them to the definitions of a JSON Schema. */
export const withEditorRules = (definitions: Readonly<Record<string, object>>): Record<string, object> =>
  Object.fromEntries(Object.entries(definitions).map(([name, schema]) => [name, { ...schema, ...own(rules, name) }]));
