import { Refusal } from '../parameters/codec.ts';
import type { Values } from '../parameters/declaration.ts';
import { quote, type Problem } from '../problem.ts';
import { valueFrom } from './value-text.ts';
import type { CompiledApp } from './compiled-app.ts';

/**
 * Reads values for a page from texts that are not in an address: what somebody typed for each parameter.
 * Names that the page does not have are passed on as they are, so that writing an address points them out.
 */
export function readTexts(app: CompiledApp, pageName: string, texts: Record<string, string>): { values: Values; problems: Problem[] } {
  const page = app.pages.get(pageName);
  const values: Values = {};
  const problems: Problem[] = [];
  for (const [name, text] of Object.entries(texts)) {
    const codec = page?.byName.get(name)?.plain;
    if (codec === undefined) {
      values[name] = text;
      continue;
    }
    if (text === '' && codec.readsBlank !== true) continue;
    const value = valueFrom(text, codec);
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
