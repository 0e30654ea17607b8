import type { BuilderAccount } from '@pallmist/api';
import type { Response } from 'express';
import { asBuilder, theOwner, type Builder } from '../builders/builders.ts';
import { AttemptLimit } from '../http/attempt-limit.ts';
import { networkOfRequest } from '../http/network.ts';
import { KnownBrowsers } from '../people/known-browsers.ts';
import { passwordProblem } from '../people/password-rule.ts';
import type { ServiceParts } from '../service-parts.ts';
import type { BuilderRow } from '../store/builders.ts';
import type { Handlers } from './handlers.ts';
import { Refused } from './problem-details.ts';

/** Days for which an invitation is open. */
const invitationDays = 7;
const day = 24 * 60 * 60_000;
/** Tries from one network, within ten minutes, that do not open the console. */
const tries = { window: 10 * 60_000, most: 30 };

type Names =
  | 'whoAmI'
  | 'signInBuilder'
  | 'acceptInvitation'
  | 'listBuilders'
  | 'inviteBuilder'
  | 'setBuilderRole'
  | 'removeBuilder'
  | 'enterConsole'
  | 'leaveConsole'
  | 'endConsoleSessions'
  | 'renewToken';

/** Who may open the console: the owner by the link, others by accounts to which they are invited. */
export function builderHandlers({
  store,
  builders,
  origins,
  events,
  post,
  base,
  clock,
  sealer,
  passwordTurns,
}: ServiceParts): Pick<Handlers, Names> {
  const networks = new AttemptLimit(tries, clock.steady);
  const browsers = new KnownBrowsers(sealer, clock);
  const mustExist = (done: boolean) => {
    if (!done) throw new Refused(404, 'There is no such builder any more.');
    return { done: true as const };
  };
  return {
    whoAmI: ({ builder, request }) => ({ ...builder, drafts: origins.ofDrafts(request) ?? null }),
    async enterConsole({ body, response }) {
      if (await builders.enter(body.key, response)) return { done: true };
      throw new Refused(
        401,
        'This link has been used, or a newer one was made. Start the service again for a new link; it stands in console-link.txt too.',
      );
    },
    async signInBuilder({ body, request, response }) {
      if (networks.isReachedBy(request, response)) throw new Refused(429, 'Too many tries. Wait ten minutes, then try again.');
      const mail = body.mail.trim().toLowerCase();
      const tried = await browsers.try(consoleScope, mail, builders.deviceOf(request));
      if ('wait' in tried) {
        response.setHeader('retry-after', String(tried.wait));
        throw new Refused(429, 'Too many tries for this account. Wait a quarter of an hour, then try again.');
      }
      const row = await passwordTurns.during(request, () => store.builders.signIn(mail, body.password));
      if (row === 'too-many') throw tooMany(response);
      if (row === undefined) throw new Refused(401, 'The mail address or the password is wrong.');
      tried.forgive();
      networks.forgive(networkOfRequest(request));
      await builders.begin(row.id, response);
      builders.rememberDevice(await browsers.mark(consoleScope, row.mail), response);
      return asBuilder(row);
    },
    async acceptInvitation({ body, request, response }) {
      if (networks.isReachedBy(request, response)) throw new Refused(429, 'Too many tries. Wait ten minutes, then try again.');
      const invited = await store.builders.invited(body.key);
      if (invited === undefined) throw gone();
      const weak = passwordProblem(body.password, [body.name, invited.mail]);
      if (weak !== undefined)
        throw new Refused(422, `The password is refused. ${weak}`, [
          { code: 'weak-password', severity: 'error', message: weak, pointer: '/password' },
        ]);
      const row = await passwordTurns.during(request, () => store.builders.accept(body.key, body.name, body.password));
      if (row === 'too-many') throw tooMany(response);
      if (row === undefined) throw gone();
      networks.forgive(networkOfRequest(request));
      await builders.endSessions(row.id);
      await builders.begin(row.id, response);
      builders.rememberDevice(await browsers.mark(consoleScope, row.mail), response);
      return asBuilder(row);
    },
    async leaveConsole({ request, response }) {
      await builders.leave(request, response);
      return { done: true };
    },
    async endConsoleSessions() {
      const ended = await builders.endAllSessions();
      events.end();
      return { ended };
    },
    renewToken() {
      events.end(theOwner.id);
      return { token: builders.renewToken() };
    },
    listBuilders: async () => ({ builders: (await store.builders.list()).map(asAccount) }),
    async inviteBuilder({ body, builder }) {
      const { builder: row, key } = await store.builders.invite(body.mail, body.role, invitationDays);
      const link = `${base()}/~/console/#invited=${key}`;
      if (body.send === true) {
        await store.mails.add(
          { app: '', recipient: row.mail, ...invitationMail(builder, link), removeAt: clock() + (invitationDays + 1) * day },
          post.stateOfNew,
        );
        post.wake();
      }
      return { link };
    },
    async setBuilderRole({ parameters: { id = '' }, body }) {
      const done = mustExist(await store.builders.setRole(id, body.role));
      // The console connects again, with the new role.
      events.end(id);
      return done;
    },
    async removeBuilder({ parameters: { id = '' } }) {
      const done = mustExist(await store.builders.remove(id));
      await builders.endSessions(id);
      events.end(id);
      return done;
    },
  };
}

/** What marks of browsers that have signed in to the console are sealed for; no app is called so. */
const consoleScope = '~console';

function tooMany(response: Response): Refused {
  response.setHeader('retry-after', '2');
  return new Refused(503, 'So many passwords are being checked that no more are taken for a moment. Try again.');
}

const gone = () => new Refused(401, 'This invitation has been used, or is older than seven days. Ask the owner for a new one.');

const asAccount = (row: BuilderRow): BuilderAccount => ({
  id: row.id,
  name: row.name,
  mail: row.mail,
  role: row.role,
  invited: row.passwordHash === null,
});

function invitationMail({ name }: Builder, link: string): { subject: string; text: string; html: string } {
  const text = `${name} invites you to build apps with Pallmist.\n\nOpen this address within seven days and choose a password:\n\n${link}\n`;
  const html = `<!doctype html><html><body><p>An invitation to build apps with Pallmist.</p><p><a href="${link}">Open the console</a> within seven days and choose a password.</p></body></html>`;
  return { subject: 'You are invited to build with Pallmist', text, html };
}
