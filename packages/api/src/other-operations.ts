/** One operation whose body or answer is no JSON of a fixed schema: streams, pictures, and what is beside the interface. */
export interface OtherOperation {
  method: 'get' | 'post' | 'put';
  path: string;
  name: string;
  summary: string;
  access: 'open' | 'viewer' | 'builder';
  scope?: string;
  query?: Readonly<Record<string, string>>;
  /** Media types of the body. */
  sends?: readonly string[];
  /** Media types of the answer, or the name of its schema. */
  answers: readonly string[] | { schema: string };
  /** Not below the base of the interface. */
  atRoot?: boolean;
}

const csvAndJson = ['text/csv', 'application/json'] as const;
const images = ['image/*'] as const;

/** What the OpenAPI document describes beside the operations that are made from schemas. */
export const otherOperations: readonly OtherOperation[] = [
  {
    method: 'get',
    path: '/apps/{app}/records/{collection}',
    name: 'exportRecords',
    summary: 'All records of a collection, as they come.',
    access: 'viewer',
    scope: 'records:read',
    query: { format: '“csv” or “json”: a record a line; “csv” when left out' },
    answers: csvAndJson,
  },
  {
    method: 'post',
    path: '/apps/{app}/records/{collection}',
    name: 'importRecords',
    summary: 'Adds records from a CSV file, or from JSON with a record a line, and changes those of the same key. Takes any number.',
    access: 'builder',
    scope: 'records:write',
    query: {
      mode: '“replace” removes what the file does not have; “update” when left out',
      replace: '“true” also removes and overwrites records that people have written, after an export',
    },
    sends: csvAndJson,
    answers: { schema: 'Imported' },
  },
  {
    method: 'get',
    path: '/apps/{app}/pictures/{name}',
    name: 'getPicture',
    summary: 'A picture, as it is.',
    access: 'viewer',
    scope: 'apps:read',
    answers: images,
  },
  {
    method: 'put',
    path: '/apps/{app}/pictures/{name}',
    name: 'putPicture',
    summary: 'Puts a picture in place, as it is, of at most 3 MB.',
    access: 'builder',
    scope: 'apps:write',
    sends: images,
    answers: { schema: 'Done' },
  },
  {
    method: 'get',
    path: '/apps/{app}/draft/events',
    name: 'followDraft',
    summary: 'What happens to a draft, as it happens: server-sent events.',
    access: 'viewer',
    scope: 'apps:read',
    answers: ['text/event-stream'],
  },
  {
    method: 'get',
    path: '/~/health',
    name: 'health',
    summary: 'Whether the service is there.',
    access: 'open',
    answers: { schema: 'Health' },
    atRoot: true,
  },
  {
    method: 'get',
    path: '/~/ready',
    name: 'ready',
    summary: 'Whether the service can do its work: 200, or 503 with what is in the way.',
    access: 'open',
    answers: { schema: 'Readiness' },
    atRoot: true,
  },
];
