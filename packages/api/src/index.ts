export {
  health,
  imported,
  readiness,
  type ApiTokenSummary,
  type AppSummary,
  type BuilderAccount,
  type Draft,
  type DraftChange,
  type DraftChanged,
  type PushedDraft,
  type Edition,
  type EditionComparison,
  type FoundRecords,
  type Imported,
  type LinkFinding,
  type Links,
  type ProblemDetails,
  type Readiness,
  type RecordPage,
  type Rehearsal,
  type Traced,
  type WebhookSummary,
  type WhoAmI,
} from './answers.ts';
export { ApiError, PallmistClient, SlowServiceError, UnreachableError, type ClientOptions, type RecordFile } from './client.ts';
export { describeApi } from './openapi.ts';
export { apiBase, defaultBodyBytes, operations, type AnswerOf, type BodyOf, type Operation, type OperationName } from './operations.ts';
export { scopeNames, scopes, type Scope } from './scopes.ts';
export { verifyWebhook, type SignedMessage } from './verify-webhook.ts';
export type { Issue, Schema } from './schema.ts';
