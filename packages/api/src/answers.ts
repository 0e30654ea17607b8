import type { AnswerOf } from './operations.ts';
import type { TypeOf } from './schema.ts';
import { schemaFor } from './schema-for.ts';
import * as schemas from './schemas.ts';

export const health = schemaFor(schemas.health);
/** What an import of records did. */
export const imported = schemaFor(schemas.imported);
/** Problem Details (RFC 9457), with the problems found as an extension. */
export const problemDetails = schemaFor(schemas.problemDetails);
export const readiness = schemaFor(schemas.readiness);

export type Imported = TypeOf<typeof imported>;
export type ProblemDetails = TypeOf<typeof problemDetails>;
export type Readiness = TypeOf<typeof readiness>;

export type ApiTokenSummary = AnswerOf<'listTokens'>['tokens'][number];
export type AppSummary = AnswerOf<'listApps'>['apps'][number];
export type BuilderAccount = AnswerOf<'listBuilders'>['builders'][number];
export type Draft = AnswerOf<'getDraft'>;
export type PushedDraft = AnswerOf<'pushDraft'>;
export type DraftChange = AnswerOf<'listChanges'>['changes'][number];
export type DraftChanged = AnswerOf<'changeDraft'>;
export type Edition = AnswerOf<'listEditions'>['editions'][number];
export type EditionComparison = AnswerOf<'compareEditions'>;
export type FoundRecords = AnswerOf<'findRecords'>;
export type LinkFinding = AnswerOf<'rehearse'>['findings'][number];
export type Links = AnswerOf<'getLinks'>;
export type RecordPage = AnswerOf<'listRecords'>;
export type Rehearsal = AnswerOf<'rehearse'>;
export type Traced = AnswerOf<'traceAddress'>;
export type WebhookSummary = AnswerOf<'listWebhooks'>['webhooks'][number];
export type WhoAmI = AnswerOf<'whoAmI'>;
