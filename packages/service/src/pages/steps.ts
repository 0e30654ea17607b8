import { phrases } from '@pallmist/app/phrases';
import {
  allParameterTypes,
  evaluateCel,
  shows,
  type RequestContext,
  type CompiledApp,
  type CompiledPage,
  type PageData,
  type PageDefinition,
  type PagePayload,
  type Reading,
  type SealBook,
  type ShowTools,
} from '@pallmist/app';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { FormBody } from './form-body.ts';
import type { StatusMessage } from './messages.ts';

/** The media type by which a browser asks for a page’s data instead of its document. */
export const pageDataType = 'application/vnd.pallmist.page-data+json';

/** With what the service shows pages. */
export const tools: ShowTools = { cel: evaluateCel, types: allParameterTypes, shows, phrases };

/** How a page is asked for: as a document, by a browser for its data, or by sending one of its forms. */
export type AskedAs = 'document' | 'data' | 'form';

/** A request for a page of an app: what `receive` gives. */
export interface Received {
  hosted: HostedApp;
  request: Request;
  response: Response;
  as: AskedAs;
  /** What a form has sent. */
  form: FormBody | undefined;
}

/** An address that was read: what `read` gives. */
export interface ReadRequest extends Received {
  /** The app for calls of this request: with the sealed values of its address opened. */
  app: CompiledApp;
  book: SealBook;
  reading: Reading;
  name: string;
  page: PageDefinition;
  compiled: CompiledPage;
  /** The address with what acts once, where this is the page that it was redirected to. */
  arrivedBy: string | undefined;
}

/** A page whose gate is passed: what `admit` gives. */
export interface Admitted extends ReadRequest {
  requestContext: RequestContext;
  /** Which rules for arrivals held, by number. */
  held: number[];
  /** Whom the link of a mail would let in here. */
  entering: NonNullable<PagePayload['entering']> | undefined;
  /** Whether another request for the same address, in the same requestContext, gets the same. */
  repeats: boolean;
}

/** A page with everything that it shows: what `load` gives. */
export interface Loaded extends Admitted {
  /** The data that the service has read, beyond what is sent. */
  data: PageData;
  /** What a browser gets. */
  payload: PagePayload;
  /** What the service saves forms by: the page with what is never sent. */
  service: { page: PageDefinition; payload: PagePayload };
}

/** What a request gets instead of its page: a redirect, or a page with a message. */
export type PageOutcome = { redirect: { status: 301 | 303; to: string }; needsSignIn?: true } | { say: StatusMessage };

/** A step's result, or why the request goes no further. */
export type Step<Result> = Result | { elsewhere: PageOutcome };

export const leads = (status: 301 | 303, to: string): { elsewhere: PageOutcome } => ({ elsewhere: { redirect: { status, to } } });
export const says = (say: StatusMessage): { elsewhere: PageOutcome } => ({ elsewhere: { say } });

/** Whether an address can be led to another one without anything that is wrong being lost without a word. */
export const hasNothingWrong = ({ problems }: Reading): boolean => problems.every(({ severity }) => severity === 'note');
