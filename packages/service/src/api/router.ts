import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  defaultBodyBytes,
  describeApi,
  imported,
  operations,
  type AnswerOf,
  type BodyOf,
  type Operation,
  type OperationName,
} from '@pallmist/api';
import { quote, suggest, toPointer, type Problem } from '@pallmist/app';
import { Router, type NextFunction, type Request, type Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import { exportRecords } from '../apps/record-export.ts';
import type { RecordSource } from '../apps/record-import.ts';
import { bodyChunks, BodyGate, readBody } from '../http/bodies.ts';
import { isLoginName, loginNameRule } from '../people/login-names.ts';
import { passwordProblem } from '../people/password-rule.ts';
import type { ServiceParts } from '../service-parts.ts';
import { version } from '../version.ts';
import { readFor, writeFor } from './addresses.ts';
import { problemDetails, Refused } from './problem-details.ts';
import { readPush } from './push-body.ts';
import { makeShort, shortAnswer } from './short-addresses.ts';

interface Call<Name extends OperationName> {
  parameters: Record<string, string>;
  body: Exclude<BodyOf<Name>, undefined>;
  request: Request;
  response: Response;
}
type Handlers = { [Name in OperationName]: (call: Call<Name>) => Promise<AnswerOf<Name>> | AnswerOf<Name> };

/** Milliseconds within which a body has to be here. */
const bodyTime = 60_000;
/** Bytes of an import, and milliseconds within which it has to be here. */
const mostImported = 2_000_000_000;
const importTime = 60 * 60_000;

const notOwner = 'Only the owner of the service may do this. Open the console by its link, or send the token from the file api-token.';

/** The HTTP interface: who asks is settled first, then the body is read and checked by its schema; every error is a Problem Details. */
export function apiRouter(parts: ServiceParts): Router {
  const router = Router();
  const handlers = makeHandlers(parts);
  const bodies = new BodyGate();
  const description = describeApi(version);
  router.get('/openapi.json', (_, response) => {
    response.json(description);
  });
  const mustBeOwner = async (request: Request) => {
    if (!(await parts.owner.asks(request))) throw new Refused(401, notOwner);
  };
  addRecordRoutes(router, parts, bodies, mustBeOwner);
  for (const name of Object.keys(operations) as OperationName[]) {
    const operation: Operation = operations[name];
    router[operation.method](operation.path.replace(/\{(\w+)\}/g, ':$1'), async (request, response, next) => {
      if (operation.access === 'owner') await mustBeOwner(request);
      if (name === 'pushDraft' && isMultipart(request)) {
        next();
        return;
      }
      const handler = handlers[name] as (call: Call<OperationName>) => unknown;
      const body = (await checkedBody(operation, request, bodies)) as Call<OperationName>['body'];
      response.json(await handler({ parameters: request.params as Record<string, string>, body, request, response }));
    });
  }
  router.put('/apps/:app/draft', async (request, response) => {
    const { app } = request.params;
    response.json(operations.pushDraft.answer.parse(await readPush(request, (push) => parts.apps.push(app, push))));
  });
  router.use((request) => {
    throw new Refused(404, `There is no ${request.method} ${quote(request.path, 80)} here; see openapi.json.`);
  });
  router.use((error: unknown, request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const details = error instanceof Refused ? error.details : fromError(error);
    if (details.status >= 500) request.log.error({ err: error }, 'request failed');
    if (details.status === 401) response.setHeader('www-authenticate', 'Bearer');
    response.status(details.status).type('application/problem+json').send(JSON.stringify(details));
  });
  return router;
}

const isMultipart = (request: Request) => request.headers['content-type']?.startsWith('multipart/form-data') === true;

/** Records as they are sent, and as they are fetched: read and written bit by bit, however many there are. */
function addRecordRoutes(
  router: Router,
  { apps, store }: ServiceParts,
  bodies: BodyGate,
  mustBeOwner: (request: Request) => Promise<void>,
): void {
  const path = '/apps/:app/records/:collection';
  const queryOf = (request: Request) => new URLSearchParams(request.originalUrl.split('?')[1] ?? '');
  router.get(path, async (request, response) => {
    await mustBeOwner(request);
    const { app, collection } = request.params;
    const definition = await apps.collectionsOf(app);
    if (definition.collections?.[collection] === undefined)
      throw new Refused(
        404,
        `The app has no collection ${quote(collection)}. ${suggest(collection, Object.keys(definition.collections ?? {}))}`,
      );
    const format = queryOf(request).get('format') === 'json' ? 'json' : 'csv';
    response.type(format === 'csv' ? 'text/csv; charset=utf-8' : 'application/json');
    response.attachment(`${app}-${collection}.${format}`);
    await pipeline(Readable.from(exportRecords(store, definition, app, collection, format)), response);
  });
  router.post(path, async (request, response) => {
    await mustBeOwner(request);
    const { app, collection } = request.params;
    const type = request.headers['content-type']?.split(';')[0]?.trim();
    if (type !== 'text/csv' && type !== 'application/json' && type !== 'application/x-ndjson')
      throw new Refused(415, 'Records are sent as text/csv, or as application/json with a record a line.');
    const content = bodyChunks(request, { bytes: mostImported, total: importTime });
    const source: RecordSource = { collection, format: type === 'text/csv' ? 'csv' : 'json', content };
    const query = queryOf(request);
    const mode = query.get('mode') === 'replace' ? 'replace' : 'update';
    const result = await bodies.during(request, () => apps.importRecords(app, source, mode, query.get('replace') === 'true'));
    response.json(imported.parse(result));
  });
}

function makeHandlers({ store, live, apps, owner, keys, sealer, base, post }: ServiceParts): Handlers {
  const published = (app: string | undefined): HostedApp => {
    const hosted = live.byName(app ?? '');
    if (!hosted) {
      const names = live.all().map(({ definition }) => definition.app);
      throw new Refused(404, `There is no published app ${quote(app ?? '')}. ${suggest(app ?? '', names)}`);
    }
    return hosted;
  };
  const scopesOf = (app: string) => [`live:${app}`, `draft:${app}`];
  return {
    listApps: async () => ({ apps: await apps.list() }),
    readAddress: async ({ parameters, body, request }) =>
      readFor(published(parameters['app']), sealer, body.address, await owner.asks(request)),
    writeAddress: async ({ parameters, body, request }) => writeFor(published(parameters['app']), sealer, body, await owner.asks(request)),
    getDraft: ({ parameters }) => apps.draft(parameters['app'] ?? ''),
    pushDraft: ({ parameters, body }) =>
      apps.push(parameters['app'] ?? '', {
        source: body.source,
        revision: body.revision,
        replace: body.replace,
        files: Object.fromEntries(Object.entries(body.files ?? {}).map(([name, base64]) => [name, Buffer.from(base64, 'base64')])),
        ...(body.data === undefined ? {} : { records: Object.entries(body.data).map(([collection, text]) => csvSource(collection, text)) }),
      }),
    patchDraft: ({ parameters, body }) => apps.patch(parameters['app'] ?? '', body.revision, body.patch),
    publish: ({ parameters, body }) => apps.publish(parameters['app'] ?? '', body.revision),
    async putPerson({ parameters, body }) {
      const { app = '', login = '' } = parameters;
      await apps.draft(app);
      if (!isLoginName(login)) throw new Refused(422, loginNameRule);
      const weak = passwordProblem(body.password, [login, body.name]);
      if (weak !== undefined)
        throw new Refused(422, `The password is refused. ${weak}`, [
          { code: 'weak-password', severity: 'error', message: weak, pointer: '/password' },
        ]);
      await store.people.put(app, login, { ...body, roles: body.roles ?? [] });
      const person = await store.people.find(app, login);
      // Sessions that began with the old password end.
      await store.sessions.endAll(scopesOf(app), person?.login ?? login);
      return { done: true };
    },
    async listPeople({ parameters: { app = '' } }) {
      await apps.draft(app);
      return { people: await store.people.list(app) };
    },
    async removePerson({ parameters }) {
      const { app = '', login = '' } = parameters;
      await apps.draft(app);
      const person = await store.people.find(app, login);
      if (person === undefined || !(await store.people.remove(app, login))) throw new Refused(404, `Nobody signs in as ${quote(login)}.`);
      await store.sessions.endAll(scopesOf(app), person.login);
      return { done: true };
    },
    async listVisits({ parameters: { app = '' } }) {
      await apps.draft(app);
      return { visits: await store.visits.list(app) };
    },
    async listShort({ parameters }) {
      const hosted = published(parameters['app']);
      return shortAnswer(hosted, sealer, base(), await store.shortAddresses.list(hosted.definition.app));
    },
    async makeShort({ parameters, body }) {
      const hosted = published(parameters['app']);
      return shortAnswer(hosted, sealer, base(), [await makeShort(hosted, sealer, store.shortAddresses, body)]);
    },
    async withdrawShort({ parameters }) {
      const { app = '', code = '' } = parameters;
      if (!(await store.shortAddresses.withdraw(published(app).definition.app, code)))
        throw new Refused(404, `The app has no short address ${quote(code)}.`);
      return { done: true };
    },
    listMails: async () => ({ mails: await store.mails.list(undefined, undefined, 50) }),
    async resendMails({ body }) {
      const resent = await store.mails.resend(body.numbers ?? 'failed');
      post.wake();
      return { resent };
    },
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
    endConsoleSessions: async () => ({ ended: await owner.endSessions() }),
    renewToken: () => ({ token: owner.renewToken() }),
  };
}

/** A CSV text as a source of records. */
export const csvSource = (collection: string, text: string): RecordSource => ({
  collection,
  format: 'csv',
  content: Readable.from([text]),
});

async function checkedBody(operation: Operation, request: Request, bodies: BodyGate): Promise<unknown> {
  if (operation.body === undefined) return undefined;
  if (!request.is('json')) throw new Refused(415, 'The body has to be JSON, with the content type application/json.');
  const bytes = await bodies.during(request, () => readBody(request, { bytes: operation.mostBytes ?? defaultBodyBytes, total: bodyTime }));
  let given: unknown;
  try {
    given = JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new Refused(400, 'The request is not well-formed: its JSON is broken.');
  }
  const parsed = operation.body.safeParse(given);
  if (parsed.success) return parsed.data;
  const problems = parsed.error.issues.map((issue): Problem => {
    const pointer = toPointer(issue.path.map((key) => (typeof key === 'symbol' ? String(key) : key)));
    return { code: 'bad-body', severity: 'error', message: `${pointer === '' ? 'The body' : pointer}: ${issue.message}.`, pointer };
  });
  throw new Refused(400, problems.map(({ message }) => message).join(' '), problems);
}

/** Errors that carry a status, of bodies that are not taken and of Express. */
function fromError(error: unknown) {
  const status = typeof error === 'object' && error !== null && 'status' in error && typeof error.status === 'number' ? error.status : 500;
  if (status >= 500) return problemDetails(500, 'Something went wrong on our side; it is in the service’s log.');
  if (status === 400) return problemDetails(400, 'The request is not well-formed: its JSON or its percent-encoding is broken.');
  return problemDetails(status, error instanceof Error ? error.message : 'The request was refused.');
}
