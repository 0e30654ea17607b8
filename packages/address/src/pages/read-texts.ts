import type { Values } from '../declare/declaration.ts';
import { quote, type Problem } from '../declare/problem.ts';
import { Refusal, valueFrom } from './value-text.ts';
import { enterCall } from './call-context.ts';
import type { CompiledApp } from './compiled-app.ts';

/**
 * Reads values for a page from texts that are not in an address: what a visitor typed for each parameter.
 * Names that the page does not have are passed on as they are, so that writing an address points them out.
 */
export function readTexts(app: CompiledApp, pageName: string, texts: Record<string, string>): { values: Values; problems: Problem[] } {
  enterCall(app);
  const page = app.pages.get(pageName);
  const values: Values = {};
  const problems: Problem[] = [];
  for (const [name, text] of Object.entries(texts)) {
    const plain = page?.byName.get(name)?.plain;
    if (plain === undefined) {
      values[name] = text;
      continue;
    }
    if (text === '' && !plain.blank) continue;
    const value = valueFrom(text, plain);
    if (value instanceof Refusal) {
      problems.push({
        code: value.code,
        severity: 'error',
        message: `“${name}” cannot be ${quote(text)}: ${value.message}`,
        parameter: name,
      });
    } else {
      values[name] = value;
    }
  }
  return { values, problems };
}
