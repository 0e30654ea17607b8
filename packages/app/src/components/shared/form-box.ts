import type { FieldDefinition } from '../../definition/app-definition.ts';
import type { Box } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import { limitsOf } from './box-limits.ts';
import { optionsOf } from './options.ts';

export type Boxed = Pick<FieldDefinition, 'type' | 'of' | 'min' | 'max' | 'maxLength' | 'required' | 'accept' | 'autocomplete'>;

/** The kind of box that a field or a parameter is typed into. */
export function boxFor(
  declared: Boxed | undefined,
  lines: number | undefined,
  context: ViewContext,
): Omit<Box, 'name' | 'label' | 'value'> {
  const required = declared?.required === true;
  if (declared?.type === 'file') return { kind: 'file', required, ...(declared.accept ? { accept: declared.accept.join(',') } : {}) };
  if (declared?.type === 'boolean') return { kind: 'check', required: false };
  if (declared?.type === 'choice' || declared?.type === 'record') {
    const options = optionsOf(declared, context);
    // A collection too large to choose from: then its key is typed.
    if (options.length === 0) return { kind: 'text', required };
    return { kind: 'select', required, options: [{ value: '', text: required ? context.say('Choose…') : '—' }, ...options] };
  }
  if (lines !== undefined && lines > 1) return { ...limitsOf(declared ?? {}, 'text'), kind: 'lines', lines, required };
  const { autocomplete } = declared ?? {};
  const box = { ...limitsOf(declared ?? {}, declared?.type), required, ...(autocomplete === undefined ? {} : { autocomplete }) };
  return autocomplete === 'email' || autocomplete === 'tel' || autocomplete === 'url' ? { ...box, kind: autocomplete } : box;
}
