export { ApiError, PallmistClient, SlowServiceError, UnreachableError, type ClientOptions, type RecordFile } from './client.ts';
export { describeApi } from './openapi.ts';
export { apiBase, defaultBodyBytes, operations, type AnswerOf, type BodyOf, type Operation, type OperationName } from './operations.ts';
export { health, imported, readiness, type AppSummary, type Draft, type ProblemDetails, type Readiness } from './schemas.ts';
