/** What a named token can be allowed to do, with a sentence for each. Nothing here makes tokens, keys or builders: that takes a person. */
export const scopes = {
  'apps:read': 'Read drafts, editions, logs, visits and pictures.',
  'apps:write': 'Change drafts, pictures and short addresses.',
  'apps:publish': 'Publish drafts as editions.',
  'apps:remove': 'Remove apps with all that belongs to them.',
  'records:read': 'Read and export records.',
  'records:write': 'Add, change, remove and import records.',
  'people:read': 'List the people who can sign in to an app.',
  'people:write': 'Let people sign in to an app, or remove them.',
  'mails:read': 'Read the outbox.',
  'mails:send': 'Send mails again, and write previews.',
  'webhooks:read': 'List webhooks and what was sent to them.',
  'webhooks:write': 'Make, change and remove webhooks.',
} as const satisfies Record<string, string>;

/** A name of a scope, as it stands in a token’s list and in `WWW-Authenticate` (RFC 6750). */
export type Scope = keyof typeof scopes;

/** All names, in the order in which they are listed. */
export const scopeNames = Object.keys(scopes) as [Scope, ...Scope[]];
