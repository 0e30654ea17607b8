import type { ParameterValue, Values } from '../declare/declaration.ts';
import type { Problem } from '../declare/problem.ts';
import type { Origin } from '../settle.ts';

/** How one declared parameter stands in an address. */
export interface ParameterReading {
  name: string;
  place: 'path' | 'query';
  /** The text as it stands in the address, undecoded; missing when the address does not have it. */
  text?: string;
  /** Missing when there is none. */
  value?: ParameterValue;
  origin: Origin;
  /** The value was understood although it, or its name, is written otherwise than Pallmist would. */
  corrected: boolean;
  problem?: Problem;
}

/**
 * What an address says.
 * - `found`: it names a page, and the page can be shown with `values`.
 * - `refused`: it names a page, but a value is missing or wrong that the page cannot do without.
 * - `gone`: it named a page once, and the app says that it is no more;
 * - `unknown-page`: no page of the app has such an address.
 * - `malformed`: it is no address at all.
 */
export interface Reading {
  status: 'found' | 'refused' | 'gone' | 'unknown-page' | 'malformed';
  /** Name of the page; missing where none was found. */
  page?: string;
  /** For an address that is gone: which one of the app's. */
  gone?: number;
  /** Of the parameters that have one. */
  values: Values;
  /** In the order in which an address has them. */
  parameters: ParameterReading[];
  problems: Problem[];
  /** Query parameters that the page does not declare, undecoded, at most 100. */
  undeclared: { name: string; text: string }[];
  /** The address was right in the past: it is to be replaced for good by today's. */
  former: boolean;
  /** What follows `#`, undecoded; missing when there is no `#`. */
  fragment?: string;
}
