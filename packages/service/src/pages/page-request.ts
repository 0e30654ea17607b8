import { signUpForm } from '@pallmist/app';
import type { Assets } from '@pallmist/pages/server';
import type { Ledger } from '../ledger/ledger.ts';
import type { LinkPromises } from '../apps/link-promises.ts';
import type { AppCookies } from '../http/cookies.ts';
import type { Sealer } from '../seals/sealer.ts';
import type { Store } from '../store/store.ts';
import { admit } from './admit.ts';
import type { Answer } from './answer.ts';
import type { FormBody } from './form-body.ts';
import { load } from './load.ts';
import { recordSpace } from './load-data.ts';
import { PageCache } from './page-cache.ts';
import type { PreviousPages } from './previous-pages.ts';
import { leadOn } from './lead-on.ts';
import { read } from './read.ts';
import { holdForm, save, type SaveParts } from './save.ts';
import { show, toKeep } from './show.ts';
import type { SignUp } from './sign-up.ts';
import { pageDataType, type AskedAs, type Loaded, type Received, type Step } from './steps.ts';
import type { VisitMemory } from './visit.ts';
import { withoutStrays } from './without-strays.ts';

// A request for a page goes through named steps, each a function with what it gets and what it gives (steps.ts). A step may
// lead elsewhere: to sign in, to today’s address, to a page that says what is wrong.
//
//     receive ──▶ read ──▶ admit ──▶ load ──▶ show ──▶ answer
//                                     │         ▲
//                                     └─▶ save ─┘   where a form was sent

/** What the steps work with. */
export interface PageParts {
  store: Store;
  promises: LinkPromises;
  ledger: Ledger;
  cookies: AppCookies;
  sealer: Sealer;
  visit: VisitMemory;
  previous: PreviousPages;
  assets: Assets;
  /** Where the public reaches the service, without a “/” at the end. */
  base: () => string;
  cache: PageCache;
  saving: SaveParts;
  signUp: SignUp;
}

/** The answer to a request for a page. What was shown before is sent again while nothing has changed that it depends on. */
export async function pageAnswer(received: Received, parts: PageParts): Promise<Answer> {
  const { hosted, response, as } = received;
  response.setHeader('cache-control', 'private, no-cache');
  response.vary('Accept');
  response.vary('Cookie');

  const asked = await read(received, parts);
  if ('elsewhere' in asked) return asked.elsewhere;

  const allowed = await admit(asked, parts);
  if ('elsewhere' in allowed) return allowed.elsewhere;
  const { admitted, address } = withoutStrays(allowed);

  const version = parts.store.records.version(recordSpace(parts.store, hosted));
  const key = admitted.repeats ? PageCache.keyOf(as, address, admitted) : undefined;
  const kept = key === undefined ? undefined : parts.cache.find(hosted, version, key);
  if (kept !== undefined) return { body: kept, as };

  const loaded = await load(admitted, parts);
  if ('elsewhere' in loaded) return loaded.elsewhere;

  const led = await leadOn(loaded, parts.sealer);
  if (led !== undefined) return led.elsewhere;

  const body = show(loaded, as, parts);
  if (key === undefined || !loaded.repeats) return { body, as };
  const keeping = toKeep(body);
  parts.cache.keep(hosted, version, key, keeping);
  return { body: keeping, as };
}

/** The answer to a form of a page: once saved it leads on; otherwise the page shows what is wrong with what was typed. */
export async function formAnswer(received: Received, name: string, form: FormBody, parts: PageParts): Promise<Answer> {
  const loaded = await loadedFor(received, parts);
  if ('elsewhere' in loaded) {
    const { elsewhere } = loaded;
    if ('say' in elsewhere) return elsewhere;
    // The session has ended: what was typed is kept until its person is back.
    if (elsewhere.needsSignIn) await holdForm(received, parts.saving);
    return { document: elsewhere.redirect.to };
  }

  const outcome = await (name === signUpForm ? parts.signUp.join(loaded, form) : save(loaded, name, form, parts.saving));
  if ('elsewhere' in outcome) return outcome.elsewhere;
  if ('saved' in outcome) return outcome;

  const as: AskedAs = received.request.headers.accept === pageDataType ? 'data' : 'document';
  const body = show(loaded, as, parts, outcome.again);
  return as === 'document' ? { body, as, status: 422 } : { body: `{"payload":${body}}`, as };
}

async function loadedFor(received: Received, parts: PageParts): Promise<Step<Loaded>> {
  const asked = await read(received, parts);
  if ('elsewhere' in asked) return asked;
  const admitted = await admit(asked, parts);
  return 'elsewhere' in admitted ? admitted : load(admitted, parts);
}
