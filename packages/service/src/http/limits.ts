import { longestAddress } from '@pallmist/app';

// The limits of every request. All code that reads a request takes its limits from here. The service refuses a head beyond
// its limits before it chooses a route (door.ts). docs/limits.md has the same list.

const second = 1000;
const minute = 60 * second;
const kilobyte = 1000;
const megabyte = 1000 * kilobyte;

/** The head of a request: its first line and its fields. */
export const headLimits = {
  /** Characters of the address. */
  address: longestAddress,
  /** Pairs in its query: twice as many as the longest list has items. */
  pairs: 1000,
  /** Characters of all fields, names included. */
  fields: 16 * 1024,
  /** How many fields. */
  count: 100,
  /** Bytes of the whole head, with room for the sentence that the address is too long. */
  bytes: longestAddress + 2 * 16 * 1024,
  /** Milliseconds within which the head has to be here. */
  time: 15 * second,
} as const;

/** The body of a form of a page. */
export const formLimits = {
  /** Bytes of all its texts. */
  texts: 100 * kilobyte,
  /** Texts; the pairs of application/x-www-form-urlencoded, or the parts that are no files. */
  fields: 300,
  files: 10,
  /** Bytes of a form with files, all of it. */
  bytes: 50 * megabyte,
  /** Milliseconds within which a form has to be here: without files, and with files. */
  time: 30 * second,
  timeWithFiles: 10 * minute,
} as const;

/** The body of an operation of the HTTP interface. */
export const apiLimits = {
  /** Milliseconds within which it has to be here. */
  time: minute,
  /** How deep lists and objects of a JSON text may stand in each other. */
  depth: 100,
  /** Bytes of an import or a push, which are read piece by piece, and milliseconds. */
  imported: 2000 * megabyte,
  importTime: 60 * minute,
  /** Bytes of the text of an app file in a push. */
  source: 20 * megabyte,
  /** Bytes of a picture. */
  picture: 3 * megabyte,
  /** Files of a push, and its texts. */
  files: 500,
  fields: 10,
} as const;

/** Any body. */
export const bodyLimits = {
  /** Milliseconds for which a body may come to a stop. */
  pause: 10 * second,
  /** Bodies that are read at a time: from one network, and in all. */
  ofNetwork: 24,
  atOnce: 2000,
  /** Bytes of bodies that are held in memory at a time: from one network, and in all. */
  heldOfNetwork: 100 * megabyte,
  held: 400 * megabyte,
  /** Bytes that are still read of a body that is refused, so that its sender gets the answer. */
  afterRefusal: megabyte,
} as const;

/** Connections. */
export const connectionLimits = {
  /** Milliseconds for which a connection is kept without a request. */
  idle: 10 * second,
  /** Milliseconds for which an answer may wait for its reader without a byte being taken. */
  unread: 20 * second,
  /** Answers of one network that wait for their reader at a time; the one that waits longest ends first. */
  unreadOfNetwork: 32,
} as const;
