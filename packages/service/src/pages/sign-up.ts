import { own, followBack, showPage, signUpForm, writeAddress, type FormState, type Say } from '@pallmist/app';
import type { Clock } from '../clock.ts';
import { AttemptLimit } from '../http/attempt-limit.ts';
import type { LoadGuard } from '../http/load-guard.ts';
import { isLoginName, loginNameRule } from '../people/login-names.ts';
import { passwordProblem } from '../people/password-rule.ts';
import type { PasswordTurns } from '../people/password-turns.ts';
import type { Store } from '../store/store.ts';
import type { FormBody } from './form-body.ts';
import { message, sayFor } from './messages.ts';
import type { SaveOutcome } from './save.ts';
import type { SignIn } from './sign-in.ts';
import { says, tools, type Loaded, type Step } from './steps.ts';

const minute = 60_000;
/** Accounts that are tried for from one network, made or not. */
const accountsOfNetwork = { window: 60 * minute, most: 20 };

/** Lets people make accounts themselves, where the app says so and the page shows the form. */
export class SignUp {
  readonly #store: Store;
  readonly #signIn: SignIn;
  readonly #guard: LoadGuard;
  readonly #turns: PasswordTurns;
  readonly #limit: AttemptLimit;

  constructor(store: Store, signIn: SignIn, guard: LoadGuard, turns: PasswordTurns, clock: Clock) {
    this.#turns = turns;
    this.#guard = guard;
    this.#store = store;
    this.#signIn = signIn;
    this.#limit = new AttemptLimit(accountsOfNetwork, clock.steady);
  }

  async join({ hosted, payload, reading, request, response }: Loaded, { texts }: FormBody): Promise<Step<SaveOutcome>> {
    const { values } = reading;
    const { definition } = hosted;
    const newcomers = definition.signIn?.newcomers;
    if (newcomers === undefined || !showPage(payload, tools).forms.includes(signUpForm))
      return says(message(hosted, 409, 'That form is not here', ['You cannot create an account on this page.'], values));
    const say = sayFor(hosted, values);
    const field = (name: string) => own(texts, name) ?? '';
    const [name, login, password] = [field('called').trim(), field('login').trim(), field('password')];
    const again = (
      problems: Record<string, string>,
      problem: Parameters<Say>[0] = 'The account is not created yet. Please check the marked fields.',
    ): SaveOutcome => {
      const state: FormState = { values: { called: name, login }, problems, problem: say(problem) };
      return { again: { [signUpForm]: state } };
    };
    if (this.#limit.isReachedBy(request, response)) return again({}, 'Your network requested too many accounts. Please try again later.');
    const problems: Record<string, string> = {};
    if (name === '' || name.length > 80) problems['called'] = say('Enter 1 to 80 characters.');
    if (!isLoginName(login)) problems['login'] = say(loginNameRule);
    const weak = passwordProblem(password, [login, name], say);
    if (weak !== undefined) problems['password'] = weak;
    const person = { name, password, roles: newcomers.roles ?? [] };
    if (Object.keys(problems).length > 0) return again(problems);
    const add = () => this.#guard.aside(() => this.#store.people.add(definition.app, login, person));
    const added = await this.#turns.during(request, add);
    if (added === 'too-many') return again({}, 'So many people are here that we cannot keep up. Please try again in a moment.');
    if (!added) return again({ login: say('An account with this name already exists.') });
    await this.#signIn.begin(hosted, login, request, response);
    const first =
      newcomers.afterSignUp && writeAddress(hosted.compiled, newcomers.afterSignUp.page, newcomers.afterSignUp.values ?? {}).address;
    const wanted = followBack(hosted.compiled, definition.signIn?.page ?? '', field('~wanted'));
    return { saved: wanted ?? first ?? (hosted.compiled.mount || '/') };
  }
}
