import type { FieldDefinition } from '../definition/app-definition.ts';
import type { Values } from '@pallmist/address/declare';

/** A link to an address; without one where a value is missing or wrong, so that nobody is led astray. */
export interface Anchor {
  text: string;
  href?: string;
  /** It opens in a new window: what screen readers say of that. */
  newWindow?: string;
}

/** A link that changes values of the present page. */
export interface ChangeAnchor {
  text: string;
  href: string;
  change: Values;
}

/** A form that is sent by GET without JavaScript: where to, and the values it keeps. */
export interface KeepingForm {
  action: string;
  keeps: { name: string; value: string }[];
  /** The path that boxes fill, with their names in braces; then `action` leads to the service, which fills it. */
  path?: string;
}

/** What a parameter is typed into, or chosen from: one box, several to tick, or one for each end of a range. */
export type ParameterBox =
  | (Box & { of: 'one' })
  | { of: 'several'; name: string; label: string; help?: string; options: { value: string; text: string; chosen: boolean }[] }
  | { of: 'ends'; name: string; label: string; help?: string; limits: BoxLimits; from: string; to: string };

/** What HTML needs to know of a box. */
export interface BoxLimits {
  kind: 'text' | 'date' | 'number' | 'datetime-local' | 'color';
  min?: string;
  max?: string;
  step?: string;
  maxLength?: number;
}

/** A box of a form, with what stands in it and what is wrong with that. */
export interface Box {
  name: string;
  label: string;
  kind: BoxLimits['kind'] | 'email' | 'tel' | 'url' | 'lines' | 'select' | 'check' | 'password' | 'file';
  /** What browsers fill in by themselves (HTML autofill). */
  autocomplete?: 'username' | 'new-password' | NonNullable<FieldDefinition['autocomplete']>;
  value: string;
  required: boolean;
  options?: { value: string; text: string }[];
  lines?: number;
  min?: string;
  max?: string;
  step?: string;
  maxLength?: number;
  /** Media types of the files that it takes, as HTML lists them. */
  accept?: string;
  /** The file that is kept already. */
  present?: Anchor;
  help?: string;
  problem?: string;
}
