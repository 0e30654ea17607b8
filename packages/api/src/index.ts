export { ApiError, PallmistClient, UnreachableError, type ClientOptions } from './client.ts';
export { describeApi } from './openapi.ts';
export { apiBase, operations, type AnswerOf, type BodyOf, type Operation, type OperationName } from './operations.ts';
export { health, type AppSummary, type Draft, type ProblemDetails } from './schemas.ts';
