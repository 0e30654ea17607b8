import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { defaultBodyBytes, describeApi, imported, operations, type Operation, type OperationName } from '@pallmist/api';
import { own, quote, suggest } from '@pallmist/app';
import { Router, type NextFunction, type Request, type Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import { previewMail } from '../apps/mail-preview.ts';
import type { Builder } from '../builders/builders.ts';
import { admitTo, isOwner, OutOfScope, type Access } from './access.ts';
import { apiTokenHandlers } from './api-tokens.ts';
import { builderHandlers } from './builder-accounts.ts';
import type { Call, Handlers } from './handlers.ts';
import { exportRecords } from '../apps/record-export.ts';
import type { RecordSource } from '../apps/record-import.ts';
import { bodyChunks, BodyGate, readBody } from '../http/bodies.ts';
import { depthOf } from '../http/json-depth.ts';
import { apiLimits } from '../http/limits.ts';
import { staysHere } from '../http/location.ts';
import { noDraftOrigin } from '../http/origins.ts';
import { isLoginName, loginNameRule } from '../people/login-names.ts';
import { passwordProblem } from '../people/password-rule.ts';
import type { ServiceParts } from '../service-parts.ts';
import { version } from '../version.ts';
import { readFor, writeFor } from './addresses.ts';
import { bodyProblems } from './body-problems.ts';
import { allowOrigins } from './cross-origin.ts';
import { problemDetails, Refused } from './problem-details.ts';
import { heedIfMatch, revisionSeen, tagDraft } from './draft-version.ts';
import { addPrinted, linksOf, trace } from './links.ts';
import { addPictureRoutes, pictureHandlers } from './pictures.ts';
import { readPush } from './push-body.ts';
import { queryOf } from './query.ts';
import { recordHandlers } from './records.ts';
import { makeShort, shortAnswer, withdrawShort } from './short-addresses.ts';
import { webhookHandlers } from './webhooks.ts';

/** The HTTP interface: who asks is settled first, then the body is read and checked by its schema; every error is a Problem Details. */
export function apiRouter(parts: ServiceParts): Router {
  const router = Router();
  router.use(allowOrigins(parts.settings.apiOrigins));
  const handlers = makeHandlers(parts);
  const bodies = new BodyGate();
  const description = describeApi(version);
  router.get('/openapi.json', (_, response) => {
    response.json(description);
  });
  const mustBe: MustBe = (access, request, app) => admitTo(parts.builders, access, request, app);
  addRecordRoutes(router, parts, bodies, mustBe);
  addPictureRoutes(router, parts, bodies, mustBe);
  addEventRoute(router, parts, mustBe);
  for (const name of Object.keys(operations) as OperationName[]) {
    const operation: Operation = operations[name];
    router[operation.method](operation.path.replace(/\{(\w+)\}/g, ':$1'), async (request, response, next) => {
      const { access, scope } = operation;
      const builder =
        access === 'open' ? nobody : await mustBe({ role: access, scope }, request, request.params['app'] as string | undefined);
      if (name === 'pushDraft' && isMultipart(request)) {
        next();
        return;
      }
      const handler = handlers[name] as (call: Call<OperationName>) => unknown;
      const body = (await checkedBody(operation, request, bodies)) as Call<OperationName>['body'];
      await heedIfMatch(name, request, parts.store.apps, body);
      const answer = await handler({ parameters: request.params as Record<string, string>, body, request, response, builder });
      tagDraft(response, answer);
      response.json(answer);
    });
  }
  router.put('/apps/:app/draft', async (request, response) => {
    const { app } = request.params;
    const builder = await mustBe({ role: 'builder', scope: 'apps:write' }, request, app);
    await heedIfMatch('pushDraft', request, parts.store.apps);
    response.json(operations.pushDraft.answer.parse(await readPush(request, (push) => parts.apps.push(app, push, builder))));
  });
  router.use((request, response) => {
    const allowed = methodsAt(request.path);
    if (allowed.length > 0) {
      response.setHeader('allow', allowed.join(', '));
      throw new Refused(405, `${request.method} is not for ${quote(request.path, 80)}; possible: ${allowed.join(', ')}.`);
    }
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
    if (error instanceof OutOfScope) response.setHeader('www-authenticate', error.challenge);
    response.status(details.status).type('application/problem+json').send(JSON.stringify(details));
  });
  return router;
}

const templates = [
  ...Object.values(operations as Record<string, Operation>).map(({ method, path }) => ({ method, path })),
  { method: 'get', path: '/openapi.json' },
  { method: 'get', path: '/apps/{app}/draft/events' },
  ...['get', 'post'].map((method) => ({ method, path: '/apps/{app}/records/{collection}' })),
  ...['get', 'put'].map((method) => ({ method, path: '/apps/{app}/pictures/{name}' })),
].map(({ method, path }) => ({ method: method.toUpperCase(), path: new RegExp(`^${path.replaceAll(/\{\w+\}/g, '[^/]+')}/?$`) }));

/** The methods that there are at a path. */
function methodsAt(path: string): string[] {
  const methods = templates.filter((template) => template.path.test(path)).map(({ method }) => method);
  return [...new Set(methods.includes('GET') ? [...methods, 'HEAD'] : methods)].sort();
}

/** Who asks. @throws Refused where they may not */
type MustBe = (access: Access, request: Request, app: string | undefined) => Promise<Builder>;

/** Who calls an operation that is open to everybody. */
const nobody: Builder = { id: '', name: '', role: 'viewer' };

/** What happens to a draft, as it happens. */
function addEventRoute(router: Router, { store, events }: ServiceParts, mustBe: MustBe): void {
  router.get('/apps/:app/draft/events', async (request, response) => {
    const { app } = request.params;
    const builder = await mustBe({ role: 'viewer', scope: 'apps:read' }, request, app);
    if ((await store.apps.draft(app)) === undefined) throw new Refused(404, `There is no app ${quote(app)}.`);
    if (!events.open(app, builder, response)) throw new Refused(503, 'Too many consoles have this draft open.');
  });
}

/** Whether an address leads to a page below a mount, as browsers read it. */
const isBelow = (to: string, mount: string) => staysHere(to) && `${new URL(to, 'http://here').pathname}/`.startsWith(`${mount}/`);

const isMultipart = (request: Request) => request.headers['content-type']?.startsWith('multipart/form-data') === true;

/** Records as they are sent, and as they are fetched: read and written bit by bit, however many there are. */
function addRecordRoutes(router: Router, { apps, store }: ServiceParts, bodies: BodyGate, mustBe: MustBe): void {
  const path = '/apps/:app/records/:collection';
  router.get(path, async (request, response) => {
    const { app, collection } = request.params;
    await mustBe({ role: 'viewer', scope: 'records:read' }, request, app);
    const definition = await apps.collectionsOf(app);
    if (own(definition.collections, collection) === undefined)
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
    const { app, collection } = request.params;
    await mustBe({ role: 'builder', scope: 'records:write' }, request, app);
    const type = request.headers['content-type']?.split(';')[0]?.trim();
    if (type !== 'text/csv' && type !== 'application/json' && type !== 'application/x-ndjson')
      throw new Refused(415, 'Records are sent as text/csv, or as application/json with a record a line.');
    const content = bodyChunks(request, { bytes: apiLimits.imported, total: apiLimits.importTime });
    const source: RecordSource = { collection, format: type === 'text/csv' ? 'csv' : 'json', content };
    const query = queryOf(request);
    const mode = query.get('mode') === 'replace' ? 'replace' : 'update';
    const result = await bodies.during(request, () => apps.importRecords(app, source, mode, query.get('replace') === 'true'));
    response.json(imported.parse(result));
  });
}

function makeHandlers(parts: ServiceParts): Handlers {
  const { store, live, apps, changes, builders, keys, sealer, base, post, promises, rehearsals, looks, origins } = parts;
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
    ...builderHandlers(parts),
    ...recordHandlers(parts),
    ...apiTokenHandlers(parts),
    ...webhookHandlers(parts),
    ...pictureHandlers(parts),
    listApps: async () => ({ apps: await apps.list() }),
    async removeApp({ parameters: { app = '' }, request }) {
      await apps.remove(app, await revisionSeen(request, store.apps));
      return { done: true };
    },
    readAddress: async ({ parameters, body, request }) =>
      readFor(published(parameters['app']), sealer, body.address, await isOwner(builders, request)),
    writeAddress: async ({ parameters, body, request }) =>
      writeFor(published(parameters['app']), sealer, body, {
        asOwner: await isOwner(builders, request),
        base: base(),
      }),
    getDraft: ({ parameters }) => apps.draft(parameters['app'] ?? ''),
    pushDraft: ({ parameters, body, builder }) =>
      apps.push(
        parameters['app'] ?? '',
        {
          source: body.source,
          what: body.what,
          revision: body.revision,
          replace: body.replace,
          files: Object.fromEntries(Object.entries(body.files ?? {}).map(([name, base64]) => [name, Buffer.from(base64, 'base64')])),
          ...(body.data === undefined
            ? {}
            : { records: Object.entries(body.data).map(([collection, text]) => csvSource(collection, text)) }),
        },
        builder,
      ),
    patchDraft: ({ parameters, body, builder }) => apps.patch(parameters['app'] ?? '', body.revision, body.patch, builder),
    changeDraft: ({ parameters, body, builder }) => changes.change(parameters['app'] ?? '', body, builder),
    listChanges: async ({ parameters }) => ({ changes: await apps.changes(parameters['app'] ?? '') }),
    listEditions: async ({ parameters }) => ({ editions: await apps.editions(parameters['app'] ?? '') }),
    getEdition: ({ parameters }) => apps.edition(parameters['app'] ?? '', Number(parameters['number'])),
    publish: ({ parameters, body, builder }) => apps.publish(parameters['app'] ?? '', body, builder),
    getLinks: ({ parameters }) => linksOf(parts, parameters['app'] ?? ''),
    traceAddress: ({ parameters, body }) => trace(published(parameters['app']), promises, sealer, body.address),
    async addPrinted({ parameters, body, builder }) {
      await addPrinted(published(parameters['app']), promises, sealer, body, builder.name);
      return linksOf(parts, parameters['app'] ?? '');
    },
    async removePrinted({ parameters: { app = '', id = '' } }) {
      if (!(await promises.removePrinted(app, id))) throw new Refused(404, `There is no printed address ${quote(id)}.`);
      return { done: true };
    },
    rehearse: ({ parameters }) => rehearsals.rehearse(parameters['app'] ?? ''),
    getFindings: ({ parameters }) => rehearsals.findings(parameters['app'] ?? ''),
    compareEditions: ({ parameters: { app = '', number, later } }) => rehearsals.compareEditions(app, Number(number), Number(later)),
    async tryAs({ parameters: { app = '' }, body: { login, to }, request, builder }) {
      const hosted = await live.draft(app);
      if (hosted === undefined || 'problems' in hosted)
        throw new Refused(422, 'The draft has errors, so it cannot be tried. Fix them first.');
      if (login !== null && (await store.people.find(app, login)) === undefined)
        throw new Refused(404, `Nobody signs in as ${quote(login)}.`);
      const origin = origins.ofDrafts(request);
      if (origin === undefined) throw new Refused(409, noDraftOrigin);
      const { mount } = hosted.compiled;
      if (to !== undefined && !isBelow(to, mount)) throw new Refused(422, `The draft’s addresses begin with ${mount}.`);
      return { address: origin + looks.addressWith({ builder: builder.id, as: login, to: to ?? mount }) };
    },
    async previewMail({ parameters: { app = '', mail = '' }, body: { send, ...wanted } }) {
      const written = await previewMail(app, { mail, ...wanted }, store, live, base());
      const { problem, ...kept } = written;
      // A test goes to nobody: it stays in the outbox, to be read.
      if (send === true) await store.mails.add({ app, form: `${wanted.page}/${wanted.component}`, ...kept }, 'kept', problem);
      return written;
    },
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
      // Sessions that began with the old password end, and links that went to the old mail address.
      await store.sessions.endAll(scopesOf(app), person?.login ?? login);
      await store.entryLinks.endAll(scopesOf(app), person?.login ?? login);
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
      await store.entryLinks.endAll(scopesOf(app), person.login);
      return { done: true };
    },
    async listVisits({ parameters: { app = '' } }) {
      await apps.draft(app);
      return { visits: await store.visits.list(app) };
    },
    async listShort({ parameters }) {
      const hosted = published(parameters['app']);
      const { app } = hosted.definition;
      return shortAnswer(hosted, sealer, base(), await store.shortAddresses.list(app), await promises.printedCodes(app));
    },
    async makeShort({ parameters, body }) {
      const hosted = published(parameters['app']);
      return shortAnswer(hosted, sealer, base(), [await makeShort(hosted, sealer, store.shortAddresses, body)], new Map());
    },
    async withdrawShort({ parameters }) {
      const { app = '', code = '' } = parameters;
      await withdrawShort(published(app), promises, store.shortAddresses, code);
      return { done: true };
    },
    listMails: async () => ({ mails: await store.mails.list(undefined, undefined, 50) }),
    async readMail({ parameters: { number = '' } }) {
      const mail = /^\d{1,15}$/.test(number) ? await store.mails.find(Number(number)) : undefined;
      if (mail === undefined) throw new Refused(404, `There is no mail ${quote(number)}.`);
      return mail;
    },
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
  const bytes = await bodies.during(request, () =>
    readBody(request, { bytes: operation.mostBytes ?? defaultBodyBytes, total: apiLimits.time }),
  );
  let given: unknown;
  try {
    const text = bytes.toString('utf8');
    // Counted before it is taken apart: what works on values goes as deep as they do.
    if (depthOf(text) > apiLimits.depth)
      throw new Refused(400, `Lists and objects of the JSON text stand more than ${String(apiLimits.depth)} deep in each other.`);
    given = JSON.parse(text);
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw new Refused(400, 'The request is not well-formed: its JSON is broken.');
  }
  const parsed = operation.body.safeParse(given);
  if (parsed.success) return parsed.data;
  const problems = bodyProblems(parsed.error.issues);
  throw new Refused(400, problems.map(({ message }) => message).join(' '), problems);
}

/** Errors that carry a status, of bodies that are not taken and of Express. */
function fromError(error: unknown) {
  const status = typeof error === 'object' && error !== null && 'status' in error && typeof error.status === 'number' ? error.status : 500;
  if (status >= 500) return problemDetails(500, 'Something went wrong on our side; it is in the service’s log.');
  if (status === 400) return problemDetails(400, 'The request is not well-formed: its JSON or its percent-encoding is broken.');
  return problemDetails(status, error instanceof Error ? error.message : 'The request was refused.');
}
