import type { Values } from '@pallmist/address/declare';
import type { SealedValue } from '@pallmist/address/pages';

/** An address that is printed somewhere, and cannot be called back. */
export interface PrintedAddress {
  address: string;
  /** What it is printed on. */
  note: string;
}

/** A short address: what it stands for, by the page and the parameters of the edition in which it was made. */
export interface ShortInUse {
  code: string;
  edition: number;
  page: string;
  values: Values;
  /** Where it is printed. */
  printed?: PrintedAddress | undefined;
}

/** Addresses of which it is known that they are in use. */
export interface AddressesInUse {
  printed?: readonly PrintedAddress[] | undefined;
  short?: readonly ShortInUse[] | undefined;
  /** The sealed values of printed addresses, opened. */
  sealed?: readonly SealedValue[] | undefined;
}
