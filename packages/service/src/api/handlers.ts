import type { AnswerOf, BodyOf, OperationName } from '@pallmist/api';
import type { Request, Response } from 'express';
import type { Builder } from '../builders/builders.ts';

/** A call of an operation, its body checked by the schema. */
export interface Call<Name extends OperationName> {
  parameters: Record<string, string>;
  body: Exclude<BodyOf<Name>, undefined>;
  request: Request;
  response: Response;
  /** Who calls; a stranger only where the operation is open. */
  builder: Builder;
}

/** What answers each operation. */
export type Handlers = { [Name in OperationName]: (call: Call<Name>) => Promise<AnswerOf<Name>> | AnswerOf<Name> };
