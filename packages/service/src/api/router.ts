import { describeApi, operations, type AnswerOf, type BodyOf, type Operation, type OperationName } from '@pallmist/api';
import { quote, suggest, toPointer, type Problem } from '@pallmist/core';
import express, { Router, type NextFunction, type Request, type Response } from 'express';
import type { HostedApp } from '../host/hosted-app.ts';
import type { LiveApps } from '../host/live-apps.ts';
import type { Store } from '../store/open-store.ts';
import type { KeyRing } from '../seals/key-ring.ts';
import type { Sealer } from '../seals/sealer.ts';
import { version } from '../version.ts';
import { readFor, writeFor } from './addresses.ts';
import type { AppService } from './app-service.ts';
import type { Owner } from './owner.ts';
import { makeShort, told } from './short-addresses.ts';
import { problemDetails, Refused } from './problem-details.ts';

interface Call<Name extends OperationName> {
  parameters: Record<string, string>;
  body: Exclude<BodyOf<Name>, undefined>;
  request: Request;
  response: Response;
}
type Handlers = { [Name in OperationName]: (call: Call<Name>) => Promise<AnswerOf<Name>> | AnswerOf<Name> };

export interface ApiParts {
  store: Store;
  live: LiveApps;
  apps: AppService;
  owner: Owner;
  keys: KeyRing;
  /** Where the public reaches the service, without a “/” at the end. */
  base: () => string;
  sealer: Sealer;
}

/** The HTTP interface: every operation checked by its schema, every error a Problem Details. */
export function apiRouter(parts: ApiParts): Router {
  const router = Router();
  const handlers = makeHandlers(parts);
  const description = describeApi(version);
  router.get('/openapi.json', (_, response) => {
    response.json(description);
  });
  router.use(express.json({ limit: '60mb', strict: true }));
  for (const name of Object.keys(operations) as OperationName[]) {
    const operation: Operation = operations[name];
    router[operation.method](operation.path.replace(/\{(\w+)\}/g, ':$1'), async (request, response) => {
      if (operation.access === 'owner' && !(await parts.owner.asks(request))) {
        throw new Refused(
          401,
          'Only the owner of the service may do this. Open the console by its link, or send the token from the file api-token.',
        );
      }
      const handler = handlers[name] as (call: Call<OperationName>) => unknown;
      const body = checkedBody(operation, request) as Call<OperationName>['body'];
      response.json(await handler({ parameters: request.params as Record<string, string>, body, request, response }));
    });
  }
  router.use((request) => {
    throw new Refused(404, `There is no ${request.method} ${quote(request.path, 80)} here; see openapi.json.`);
  });
  router.use((error: unknown, request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const details = error instanceof Refused ? error.details : fromExpress(error);
    if (details.status >= 500) request.log.error({ err: error }, 'request failed');
    response.status(details.status).type('application/problem+json').send(JSON.stringify(details));
  });
  return router;
}

function makeHandlers({ store, live, apps, owner, keys, sealer, base }: ApiParts): Handlers {
  const published = (app: string | undefined): HostedApp => {
    const hosted = live.byName(app ?? '');
    if (!hosted)
      throw new Refused(
        404,
        `There is no published app ${quote(app ?? '')}. ${suggest(
          app ?? '',
          live.all().map(({ definition }) => definition.app),
        )}`,
      );
    return hosted;
  };
  return {
    listApps: async () => ({ apps: await apps.list() }),
    readAddress: async ({ parameters, body, request }) =>
      readFor(published(parameters['app']), sealer, body.address, await owner.asks(request)),
    writeAddress: async ({ parameters, body, request }) => writeFor(published(parameters['app']), sealer, body, await owner.asks(request)),
    getDraft: ({ parameters }) => apps.draft(parameters['app'] ?? ''),
    pushDraft: ({ parameters, body }) => apps.push(parameters['app'] ?? '', body.source, body.revision, body.data, body.files),
    patchDraft: ({ parameters, body }) => apps.patch(parameters['app'] ?? '', body.revision, body.patch),
    publish: ({ parameters, body }) => apps.publish(parameters['app'] ?? '', body.revision),
    async putPerson({ parameters, body }) {
      const { app = '', login = '' } = parameters;
      await apps.draft(app);
      if (!/^[\p{L}\p{N}._@+-]{1,100}$/u.test(login)) throw new Refused(422, 'A name for sign-in has letters, digits and . _ @ + - only.');
      await store.people.put(app, login, { ...body, roles: body.roles ?? [] });
      return { done: true };
    },
    async listArrivals({ parameters: { app = '' } }) {
      await apps.draft(app);
      return { arrivals: await store.arrivals.list(app) };
    },
    async listShort({ parameters }) {
      const hosted = published(parameters['app']);
      return told(hosted, base(), await store.shortAddresses.list(hosted.definition.app));
    },
    async makeShort({ parameters, body }) {
      const hosted = published(parameters['app']);
      return told(hosted, base(), [await makeShort(hosted, store.shortAddresses, body)]);
    },
    async withdrawShort({ parameters }) {
      const { app = '', code = '' } = parameters;
      if (!(await store.shortAddresses.withdraw(published(app).definition.app, code)))
        throw new Refused(404, `The app has no short address ${quote(code)}.`);
      return { done: true };
    },
    listMails: async () => ({ mails: await store.mails.list(undefined, undefined, 50) }),
    listKeys: () => ({ keys: keys.list() }),
    rotateKeys: () => ({ keys: [keys.rotate()] }),
    forgetKey({ parameters }) {
      const { id = '' } = parameters;
      if (!keys.forget(id))
        throw new Refused(404, `There is no key ${quote(id)} to forget. The current key is not forgotten; make a new one first.`);
      return { done: true };
    },
    async enterConsole({ body, response }) {
      if (!(await owner.enter(body.key, response))) {
        throw new Refused(
          401,
          'This link has been used, or a newer one was made. Start the service again for a new link; it stands in console-link.txt too.',
        );
      }
      return { done: true };
    },
    async leaveConsole({ request, response }) {
      await owner.leave(request, response);
      return { done: true };
    },
  };
}

function checkedBody(operation: Operation, request: Request): unknown {
  if (operation.body === undefined) return undefined;
  if (!request.is('json')) throw new Refused(415, 'The body has to be JSON, with the content type application/json.');
  const parsed = operation.body.safeParse(request.body);
  if (parsed.success) return parsed.data;
  const problems = parsed.error.issues.map((issue): Problem => {
    const pointer = toPointer(issue.path.map((key) => (typeof key === 'symbol' ? String(key) : key)));
    return { code: 'bad-body', severity: 'error', message: `${pointer === '' ? 'The body' : pointer}: ${issue.message}.`, pointer };
  });
  throw new Refused(400, problems.map(({ message }) => message).join(' '), problems);
}

/** Errors of Express and its body parser, which carry a status. */
function fromExpress(error: unknown) {
  const status = typeof error === 'object' && error !== null && 'status' in error && typeof error.status === 'number' ? error.status : 500;
  if (status === 413) return problemDetails(413, 'The body is too large.');
  if (status >= 400 && status < 500)
    return problemDetails(
      status,
      status === 400 ? 'The request is not well-formed: its JSON or its percent-encoding is broken.' : 'The request was refused.',
    );
  return problemDetails(500, 'Something went wrong on our side; it has been noted.');
}
