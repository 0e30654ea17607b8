import { z } from 'zod';
import { scopeNames } from './scopes.ts';

const appName = z.string().min(1).max(40).describe('Name of the app, such as quillmoor');

const beforeKey = z.string().optional().describe('Ours: the key in front of which a key of a map is put; last when left out');
const patchOperation = z
  .discriminatedUnion('op', [
    z.strictObject({ op: z.literal('add'), path: z.string(), value: z.unknown(), before: beforeKey }),
    z.strictObject({ op: z.enum(['replace', 'test']), path: z.string(), value: z.unknown() }),
    z.strictObject({ op: z.literal('remove'), path: z.string() }),
    z.strictObject({ op: z.enum(['move', 'copy']), from: z.string(), path: z.string(), before: beforeKey }),
  ])
  .describe('One operation of a JSON Patch (RFC 6902)');

export const problem = z.object({
  code: z.string(),
  severity: z.enum(['error', 'warning', 'note']),
  message: z.string(),
  hint: z.string().optional(),
  pointer: z.string().optional().describe('JSON Pointer (RFC 6901)'),
  line: z.number().int().optional(),
  column: z.number().int().optional(),
  parameter: z.string().optional(),
  fix: z.array(patchOperation).optional(),
});

/** Problem Details (RFC 9457), with the problems found as an extension. */
export const problemDetails = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string(),
  problems: z.array(problem).optional(),
});

const parameterValue = z
  .unknown()
  .describe('A text, number or truth value; a list of them; sort keys; a range; any JSON for a packed parameter');

export const reading = z.object({
  status: z.enum(['found', 'refused', 'gone', 'unknown-page', 'malformed']),
  page: z.string().optional(),
  gone: z.number().int().optional().describe('Which of the app’s addresses that are gone it is'),
  values: z.record(z.string(), parameterValue),
  parameters: z.array(
    z.object({
      name: z.string(),
      place: z.enum(['path', 'query']),
      text: z.string().optional().describe('As it stands in the address, undecoded'),
      value: parameterValue.optional(),
      origin: z.enum(['given', 'default', 'blank', 'absent']),
      corrected: z.boolean(),
      problem: problem.optional(),
    }),
  ),
  problems: z.array(problem),
  undeclared: z.array(z.object({ name: z.string(), text: z.string() })),
  former: z.boolean().describe('Right in the past: to be replaced by today’s address for good'),
  fragment: z.string().optional(),
  address: z.string().optional().describe('The one written form of the address, where it can be shown'),
});

export const readBody = z.strictObject({ address: z.string().max(1_000_000) });
export const writeBody = z.strictObject({
  page: z.string().max(60),
  values: z.record(z.string(), z.unknown()).optional().describe('Values by parameter name; null means absent'),
  texts: z.record(z.string(), z.string()).optional().describe('Values as texts, read as they would be in an address'),
  sharing: z.boolean().optional().describe('Leave out parameters that are not for sharing'),
});
export const written = z.object({
  address: z.string(),
  url: z.string().describe('The whole URL, with the public base address'),
  problems: z.array(problem),
});

const edition = z.object({
  number: z.number().int(),
  publishedAt: z.string(),
  by: z.string().optional().describe('Who published it; empty where that is not known'),
  note: z.string().optional(),
});
export const editions = z.object({ editions: z.array(edition).describe('The newest first') });
export const wholeEdition = edition.extend({
  source: z.string().describe('Text of the app file'),
  data: z.unknown().describe('What the text says, in today’s form'),
});

export const appSummary = z.object({
  app: appName,
  title: z.string(),
  mount: z.string(),
  edition: edition.optional().describe('The published edition'),
  draft: z.object({ revision: z.number().int(), changedAt: z.string(), changed: z.boolean().describe('Differs from the edition') }),
  problems: z.object({ errors: z.number().int(), warnings: z.number().int() }),
  stuck: z.string().optional().describe('Why its newest edition cannot be served'),
});
export const appList = z.object({ apps: z.array(appSummary) });

export const draft = z.object({
  app: appName,
  revision: z.number().int().describe('Rises by one with each change; send it back to change exactly this draft'),
  source: z.string().describe('Text of the app file'),
  data: z.unknown().optional().describe('What the text says, in today’s form; left out where it is not well-formed'),
  problems: z.array(problem),
});

export const pushBody = z.strictObject({
  source: z.string().max(20_000_000),
  revision: z
    .number()
    .int()
    .nonnegative()
    .optional()
    .describe(
      'The revision it was made from, 0 for a new app; if others have changed the draft since, the push is refused and lists their changes',
    ),
  files: z
    .record(z.string().regex(/^(?!\.)[A-Za-z0-9_.-]{1,100}\.(?:svg|png|jpe?g|webp|gif|avif)$/), z.base64().max(3_000_000))
    .optional()
    .describe('Pictures by name, in base64; those that are not named stay as they are'),
  data: z
    .record(z.string(), z.string().max(100_000_000))
    .optional()
    .describe('CSV texts by collection; each takes the place of the records of that collection'),
  replace: z
    .boolean()
    .optional()
    .describe(
      'Overwrite what others have changed in the draft since the revision; remove and overwrite records although people have written them, after an export',
    ),
  what: z.string().max(300).optional().describe('What is done, in words, for the log'),
});
export const patchBody = z.strictObject({
  revision: z.number().int(),
  patch: z.array(patchOperation).min(1).max(500),
});
export const changeBody = z.strictObject({
  revision: z.number().int().describe('The newest revision that the builder has seen'),
  patch: z.array(patchOperation).min(1).max(5000),
  what: z.string().min(1).max(300).describe('What it does, in words, for the log'),
});
const draftChange = z.object({
  revision: z.number().int(),
  at: z.string().describe('RFC 3339'),
  by: z.string(),
  what: z.string(),
  patch: z.array(patchOperation).nullable().describe('Null where the whole text was replaced'),
});
export const draftChanged = z.object({
  outcome: z.enum(['changed', 'asked']).describe('“asked”: nothing was changed, since others have changed the same places'),
  revision: z.number().int().describe('The newest revision'),
  others: z.array(draftChange).describe('What others have changed since the revision that was given'),
});
export const pushedDraft = draft.extend({
  discarded: z.array(draftChange).optional().describe('Changes of others since the revision, which “replace” has overwritten'),
});
export const draftChanges = z.object({ changes: z.array(draftChange).describe('The newest first') });
export const publishBody = z.strictObject({
  revision: z.number().int().optional(),
  note: z.string().max(2000).optional().describe('A note for the log'),
  consents: z
    .array(
      z.strictObject({
        finding: z.string().max(40).describe('Id of a finding of the rehearsal'),
        why: z.string().max(2000).optional().describe('Why it is meant; kept with the edition'),
      }),
    )
    .max(1000)
    .optional()
    .describe('Findings of the rehearsal that you agree to'),
});

const finding = z.object({
  id: z.string().describe('Stays the same while neither the earlier declaration nor the effect changes'),
  fate: z
    .enum(['silent', 'gone', 'refused', 'noted'])
    .describe('What becomes of the address: it opens and means something else, opens nothing, is refused, or opens with a note'),
  kind: z.string(),
  page: z.string().describe('The page by its earlier name'),
  parameter: z.string().optional(),
  words: z.string(),
  editions: z.array(z.number().int()).describe('Editions in which the address was valid'),
  witness: z.string().describe('An address that shows it'),
  needsConsent: z.boolean().describe('Whether publishing needs a repair or a consent'),
  visits: z.number().int().describe('Visits of the last 30 days that it concerns, as far as the ledger counts them'),
  printed: z
    .array(z.object({ address: z.string(), note: z.string() }))
    .describe('Printed addresses that it concerns; such a finding can only be repaired'),
  short: z.array(z.string()).describe('Codes of short addresses that it concerns'),
  repairs: z.array(
    z.object({
      kind: z.enum(['repair', 'put-back']).describe('Keeps what was changed, or takes the change back'),
      words: z.string(),
      patch: z.array(patchOperation).describe('JSON Patch (RFC 6902) of the draft'),
      certain: z.boolean().describe('There is only one thing that it can mean'),
    }),
  ),
});
const secondClass = z
  .array(z.object({ group: z.enum(['who-may-see', 'how-it-looks']), words: z.string() }))
  .describe('What differs for visitors of addresses that mean the same');
/** A finding as it is told where nothing is to be done about it. */
const toldFinding = finding.pick({
  id: true,
  fate: true,
  kind: true,
  page: true,
  parameter: true,
  words: true,
  witness: true,
  needsConsent: true,
});
export const draftFindings = z.object({
  revision: z.number().int().describe('Of the draft that was compared'),
  findings: z.array(toldFinding),
});
export const comparison = z.object({ findings: z.array(toldFinding), others: secondClass });
export const rehearsal = z.object({
  revision: z.number().int().describe('Of the draft that was compared'),
  findings: z.array(finding),
  others: secondClass,
  consents: z
    .array(z.object({ edition: z.number().int(), words: z.string(), by: z.string(), at: z.string(), why: z.string() }))
    .describe('What was agreed to with earlier editions, the newest first'),
});
export const printedBody = z.strictObject({
  address: z.string().min(1).max(20_000).describe('An address of the published app'),
  note: z.string().min(1).max(500).describe('What it is printed on'),
});
export const links = z.object({
  pages: z
    .array(z.object({ page: z.string(), address: z.string(), editions: z.array(z.number().int()) }))
    .describe('Each version of a page that was published, with the editions that had it'),
  printed: z.array(z.object({ id: z.string(), address: z.string(), note: z.string(), by: z.string(), at: z.string() })),
  consents: z.array(z.object({ edition: z.number().int(), words: z.string(), by: z.string(), at: z.string(), why: z.string() })),
  seen: z
    .array(
      z.object({
        day: z.string(),
        page: z.string().describe('Empty for addresses that no page has'),
        parameter: z
          .string()
          .describe('Empty for the page itself; for addresses that no page has, their path with “*” for what is not the app’s'),
        state: z.string(),
        bucket: z.string(),
        referrer: z.string(),
        count: z.number().int(),
      }),
    )
    .describe('What the ledger holds of the last 90 days'),
  tried: z
    .array(
      z.object({
        path: z.string(),
        tries: z.number().int(),
        days: z.number().int().describe('On how many days'),
        day: z.string().describe('The last of them'),
        meant: z
          .object({
            page: z.string(),
            address: z.string().describe('Today’s address of what was probably meant'),
            template: z.string().describe('The former address of the page that would take it'),
          })
          .optional(),
      }),
    )
    .describe('Addresses that no page has and that visitors keep trying: at least five times, on at least two days'),
});
export const traceBody = z.strictObject({ address: z.string().min(1).max(20_000) });
export const traced = z.object({
  today: z.object({
    status: z.enum(['found', 'refused', 'gone', 'unknown-page', 'malformed']),
    page: z.string().optional(),
    leadsTo: z.string().optional().describe('Where the address leads, if it redirects'),
    problems: z.array(problem),
  }),
  earlier: z
    .array(
      z.object({
        editions: z.array(z.number().int()),
        page: z.string(),
        values: z.array(z.object({ name: z.string(), text: z.string(), origin: z.enum(['given', 'default', 'blank', 'absent']) })),
      }),
    )
    .describe('How each earlier version of a page reads it, the newest first'),
});
export const published = z.object({ app: appName, edition: z.number().int(), mount: z.string() });

export const personBody = z.strictObject({
  name: z.string().min(1).max(200),
  password: z.string().min(1).max(200),
  roles: z.array(z.string().max(60)).max(20).optional(),
  mail: z.email().max(200).optional().describe('Where links go that let them in without the password; none when left out'),
});

export const enterBody = z.strictObject({ key: z.string().max(200) });
export const done = z.object({ done: z.literal(true) });

const builderRole = z.enum(['owner', 'builder', 'viewer']);
const builder = z.object({
  id: z.string(),
  name: z.string(),
  mail: z.string(),
  role: builderRole,
  invited: z.boolean().describe('Has not accepted the invitation yet'),
});
export const builders = z.object({ builders: z.array(builder) });
export const signedIn = z.object({ id: z.string(), name: z.string(), role: builderRole });
export const whoAmI = signedIn.extend({
  drafts: z.string().nullable().describe('The origin at which drafts are shown; null where PALLMIST_DRAFT_URL is not set behind a proxy'),
});
export const inviteBody = z.strictObject({
  mail: z.email().max(200),
  role: builderRole,
  send: z.boolean().optional().describe('Write a mail with the link too'),
});
export const invitation = z.object({ link: z.string().describe('Opens the console for the one who was invited, once, within seven days') });
export const roleBody = z.strictObject({ role: builderRole });
export const signInBody = z.strictObject({ mail: z.string().max(200), password: z.string().max(200) });
export const acceptBody = z.strictObject({
  key: z.string().max(200),
  name: z.string().trim().min(1).max(100),
  password: z.string().min(1).max(200),
});
export const tryAsBody = z.strictObject({
  login: z.string().max(200).nullable().describe('Who looks at the draft; null for signed out'),
  to: z.string().max(20_000).optional().describe('Address in the draft to show; its first page when left out'),
});
export const triedAs = z.object({ address: z.string().describe('Opens the draft as this person, once, within a minute') });

const recordTexts = z.record(z.string(), z.string().max(200_000));
export const findBody = z.strictObject({
  search: z.string().max(200).optional().describe('A text that one of the text fields contains'),
  where: z
    .array(z.strictObject({ field: z.string(), equals: z.string() }))
    .max(20)
    .optional(),
  sort: z.strictObject({ field: z.string(), descending: z.boolean() }).optional(),
  page: z.number().int().min(1).max(1_000_000).optional(),
  size: z.number().int().min(1).max(500).optional(),
});
export const foundRecords = z.object({
  total: z.number().int(),
  records: z.array(z.record(z.string(), z.string())).describe('Texts by field; empty fields are left out'),
  titles: z.record(z.string(), z.record(z.string(), z.string())).describe('By reference field: titles of the records referred to, by key'),
});
export const recordChangesBody = z.strictObject({
  changes: z
    .array(
      z.union([
        z.strictObject({ create: recordTexts }),
        z.strictObject({ key: z.string(), change: recordTexts }),
        z.strictObject({ key: z.string(), remove: z.literal(true) }),
      ]),
    )
    .min(1)
    .max(500),
});
export const recordChanges = z.object({
  results: z.array(
    z.object({
      key: z.string().optional(),
      problem: z.string().optional(),
      problems: z.record(z.string(), z.string()).optional().describe('By field'),
    }),
  ),
});
export const mailPreviewBody = z.strictObject({
  page: z.string(),
  component: z.string().max(60).describe('Name of the form that sends it'),
  address: z.string().max(20_000).describe('An address of that page in the draft, which gives the values'),
  send: z.boolean().optional().describe('Put it into the outbox, to nobody: a test'),
});
export const mailPreview = z.object({
  recipient: z.string(),
  subject: z.string(),
  text: z.string(),
  html: z.string(),
  problem: z.string().optional(),
});

const person = z.object({
  login: z.string(),
  name: z.string(),
  roles: z.array(z.string()),
  mail: z.string().optional(),
});
export const people = z.object({ people: z.array(person) });

export const resendBody = z.strictObject({
  numbers: z.array(z.number().int()).max(1000).optional().describe('Numbers of mails; all that failed when left out'),
});
export const resent = z.object({ resent: z.number().int() });
export const ended = z.object({ ended: z.number().int() });
export const token = z.object({ token: z.string() });

export const health = z.object({ status: z.literal('ok'), version: z.string(), apps: z.number().int() });

/** Whether the service can do its work, and what is in the way. */
export const readiness = z.object({
  status: z.enum(['ready', 'not-ready']),
  version: z.string(),
  database: z.object({ ok: z.boolean(), problem: z.string().optional() }),
  apps: z.object({
    served: z.number().int(),
    stuck: z.array(z.object({ app: z.string(), edition: z.number().int(), problem: z.string() })),
  }),
  mails: z.object({ waiting: z.number().int(), sending: z.boolean().describe('Whether a mail server is configured') }),
  loopDelayMs: z.number().describe('How late the event loop was of late'),
});

/** What an import of records came to. */
export const imported = z.object({
  collection: z.string(),
  rows: z.number().int(),
  exports: z.array(z.string()).describe('Files on the service’s machine into which what was replaced was written before'),
});

export const keys = z.object({
  keys: z.array(
    z.object({ id: z.string(), madeAt: z.string().describe('RFC 3339'), current: z.boolean().describe('New values are sealed with it') }),
  ),
});

export const mail = z.object({
  number: z.number().int(),
  app: z.string(),
  writtenAt: z.string().describe('RFC 3339'),
  recipient: z.string(),
  subject: z.string(),
  text: z.string(),
  html: z.string(),
  state: z.enum(['kept', 'waiting', 'sent', 'failed']),
  tries: z.number().int(),
  problem: z.string(),
  form: z.string().describe('The form that sent it, as PAGE/FORM; empty for a sign-in link'),
});

export const mails = z.object({
  mails: z.array(mail).describe('The newest first, at most 50; one-time links are left out'),
});

export const shortBody = z.object({
  address: z.string().min(1).max(20_000).describe('An address of the published app'),
  days: z.number().min(0.01).max(3650).optional().describe('How long it leads anywhere; for ever when left out'),
});

const shortAddress = z.object({
  code: z.string(),
  short: z.string().describe('The whole short address, with the public base address'),
  address: z.string().describe('Where it leads'),
  madeAt: z.string().describe('RFC 3339'),
  endsAt: z.string().nullable().describe('RFC 3339; null for ever'),
  printedOn: z.string().nullable().describe('What it is printed on, where that is noted: then it cannot be withdrawn'),
});
export const shortAddresses = z.object({ shortAddresses: z.array(shortAddress) });

export const visits = z.object({
  visits: z
    .array(
      z.object({
        parameter: z.string(),
        value: z.string(),
        day: z.string().describe('YYYY-MM-DD, UTC'),
        came: z.number().int().describe('Visits that began so'),
        formsSent: z.number().int().describe('Forms that were sent in visits that began so'),
      }),
    )
    .describe('The newest days first'),
});

const apiToken = z.object({
  id: z.string(),
  name: z.string(),
  scopes: z.array(z.enum(scopeNames)),
  app: z.string().nullable().describe('The only app that it is for; null for all'),
  madeAt: z.string().describe('RFC 3339'),
  endsAt: z.string().nullable().describe('RFC 3339; null while it does not end by itself'),
  usedOn: z.string().nullable().describe('The day on which it was used last, YYYY-MM-DD; null for never'),
});
export const apiTokens = z.object({ tokens: z.array(apiToken).describe('The newest first') });
export const newTokenBody = z.strictObject({
  name: z.string().trim().min(1).max(100).describe('What it is for; shown in logs'),
  scopes: z.array(z.enum(scopeNames)).min(1).max(scopeNames.length),
  app: z.string().max(40).optional().describe('The only app that it is for; all apps when left out'),
  days: z.number().min(0.01).max(3650).optional().describe('Days until it ends; never when left out'),
});
export const newToken = z.object({
  made: apiToken,
  token: z.string().describe('Shown this once; send it as “Authorization: Bearer TOKEN”'),
});

const webhookEvent = z.enum(['record.created', 'record.changed', 'record.removed']);
const webhook = z.object({
  id: z.string(),
  url: z.string(),
  events: z.array(webhookEvent),
  collections: z.array(z.string()).describe('Only records of these collections; of all when empty'),
  madeAt: z.string().describe('RFC 3339'),
});
export const webhooks = z.object({ webhooks: z.array(webhook) });
const webhookUrl = z
  .url({ protocol: /^https?$/ })
  .max(2000)
  .describe('An https address; http only on this machine');
export const newWebhookBody = z.strictObject({
  url: webhookUrl,
  events: z.array(webhookEvent).min(1).max(3).optional().describe('Events that are sent; all when left out'),
  collections: z.array(z.string().max(60)).max(100).optional().describe('Only records of these collections; of all when left out'),
});
export const newWebhook = z.object({ webhook, secret: z.string().describe('With which messages are signed; shown this once') });
export const webhookBody = z.strictObject({
  url: webhookUrl.optional(),
  events: z.array(webhookEvent).min(1).max(3).optional(),
  collections: z.array(z.string().max(60)).max(100).optional(),
});
export const oneWebhook = z.object({ webhook });
export const deliveries = z.object({
  deliveries: z
    .array(
      z.object({
        number: z.number().int(),
        eventId: z.string().describe('The same for each try'),
        type: webhookEvent,
        writtenAt: z.string().describe('RFC 3339'),
        state: z.enum(['waiting', 'sent', 'failed']),
        tries: z.number().int(),
        problem: z.string(),
        body: z.string().describe('What is sent: a CloudEvent as JSON'),
      }),
    )
    .describe('The newest first, at most 50'),
});

const recordValues = z
  .record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()]))
  .describe('Values by field; a reference is the key of its record');
export const recordPage = z.object({
  records: z.array(recordValues),
  total: z.number().int().describe('Of all pages'),
  next: z.string().nullable().describe('Send it as “after” for the next page; null on the last one'),
});
export const oneRecord = z.object({ key: z.string(), record: recordValues });
export const recordBody = z.strictObject({ record: recordValues });
export const recordPatchBody = z.strictObject({ record: recordValues.describe('Only what changes (RFC 7396); null empties a field') });

const picture = z.object({ name: z.string(), bytes: z.number().int(), type: z.string(), address: z.string() });
export const pictures = z.object({ pictures: z.array(picture).describe('By name') });
