/** Live state for pages without a UI library: fields, forms, links and events, each bound in one line. */
export { bindField, type FieldOptions } from './bind-field.ts';
export { bindForm } from './bind-form.ts';
export { bindLink } from './bind-link.ts';
export type { Field } from './fields.ts';
export { sendEvents, type ValuesChanged } from './send-events.ts';
