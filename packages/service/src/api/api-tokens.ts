import { quote } from '@pallmist/app';
import type { ServiceParts } from '../service-parts.ts';
import type { ApiToken } from '../store/api-tokens.ts';
import type { Handlers } from './handlers.ts';
import { Refused } from './problem-details.ts';

type Names = 'listTokens' | 'makeToken' | 'renewScopedToken' | 'endToken';

/** Tokens with names and scopes, for programs. */
export function apiTokenHandlers({ store, events }: ServiceParts): Pick<Handlers, Names> {
  const gone = (id: string) => new Refused(404, `There is no token ${quote(id)}.`);
  return {
    listTokens: async () => ({ tokens: (await store.apiTokens.list()).map(shown) }),
    async makeToken({ body: { name, scopes, app, days } }) {
      if (app !== undefined && (await store.apps.draft(app)) === undefined) throw new Refused(404, `There is no app ${quote(app)}.`);
      const { made, token } = await store.apiTokens.make({ name, scopes: [...new Set(scopes)], app: app ?? null }, days);
      return { made: shown(made), token };
    },
    async renewScopedToken({ parameters: { id = '' } }) {
      const renewed = await store.apiTokens.renew(id);
      if (renewed === undefined) throw gone(id);
      events.end(`token:${id}`);
      return { made: shown(renewed.made), token: renewed.token };
    },
    async endToken({ parameters: { id = '' } }) {
      if (!(await store.apiTokens.end(id))) throw gone(id);
      events.end(`token:${id}`);
      return { done: true };
    },
  };
}

const shown = ({ scopes, ...rest }: ApiToken) => ({ ...rest, scopes: [...scopes] });
