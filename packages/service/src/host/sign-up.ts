import { followBack, showPage, signUpForm, writeAddress, type FormState } from '@pallmist/core';
import { renderPage, type Assets } from '@pallmist/pages/server';
import type { Request, Response } from 'express';
import type { Store } from '../store/open-store.ts';
import type { PageHost } from './host.ts';
import type { HostedApp } from './hosted-app.ts';
import { message } from './messages.ts';
import { tools } from './prepare.ts';
import type { SignIn } from './sign-in.ts';

/** What a name to sign in with is made of. */
const loginForm = /^[\p{L}\p{N}._@+-]{1,100}$/u;

/** Lets people make accounts themselves, where the app says so and the page shows the form. */
export class SignUp {
  readonly #store: Store;
  readonly #host: PageHost;
  readonly #signIn: SignIn;
  readonly #assets: Assets;

  constructor(store: Store, host: PageHost, signIn: SignIn, assets: Assets) {
    this.#store = store;
    this.#host = host;
    this.#signIn = signIn;
    this.#assets = assets;
  }

  async join(hosted: HostedApp, request: Request, response: Response): Promise<void> {
    const { definition } = hosted;
    const newcomers = definition.signIn?.newcomers;
    const prepared = await this.#host.preparer.prepare(hosted, request, response, 'form');
    if (newcomers === undefined || !('material' in prepared) || !showPage(prepared.material, tools).forms.includes(signUpForm)) {
      this.#host.say(response, message(hosted, 409, 'That form is not here', ['Nobody makes an account on this page.']));
      return;
    }
    const field = (name: string) => request.form.texts[name] ?? '';
    const [called, login, password] = [field('called').trim(), field('login').trim(), field('password')];
    const again = (problems: Record<string, string>, problem = 'There is no account yet. Please look at what is marked.') => {
      const state: FormState = { values: { called, login }, problems, problem };
      const material = { ...prepared.material, forms: { [signUpForm]: state } };
      response
        .status(422)
        .type('html')
        .send(renderPage(material, tools, this.#assets));
    };
    if (await this.#signIn.isTooOften(request, response)) {
      again({}, 'There were too many attempts. Please wait a few minutes and try again.');
      return;
    }
    const problems: Record<string, string> = {};
    if (called === '' || called.length > 80) problems['called'] = 'Between 1 and 80 characters, please.';
    if (!loginForm.test(login)) problems['login'] = 'It may have letters, digits and . _ @ + - only.';
    if (password.length < 8 || password.length > 200) problems['password'] = 'It needs at least 8 characters.';
    if (
      Object.keys(problems).length === 0 &&
      !(await this.#store.people.add(definition.app, login, called, password, newcomers.roles ?? []))
    )
      problems['login'] = 'Somebody else is called so already.';
    if (Object.keys(problems).length > 0) {
      again(problems);
      return;
    }
    await this.#signIn.begin(hosted, login, request, response);
    const first = newcomers.first && writeAddress(hosted.compiled, newcomers.first.page, newcomers.first.values ?? {}).address;
    response.redirect(
      303,
      followBack(hosted.compiled, definition.signIn?.page ?? '', field('~back')) ?? first ?? (hosted.compiled.mount || '/'),
    );
  }
}
