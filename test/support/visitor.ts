/** A browser without JavaScript, as far as a test needs one: it keeps cookies, sends forms, follows redirects. */
export class Visitor {
  readonly #base: string;
  readonly #headers: Record<string, string>;
  readonly #cookies = new Map<string, string>();

  /** @param headers sent with every request: the owner's token, say */
  constructor(base: string, headers: Record<string, string> = {}) {
    this.#base = base;
    this.#headers = headers;
  }

  async #ask(path: string, given: RequestInit): Promise<Response> {
    const cookie = [...this.#cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    const answer = await fetch(new URL(path, this.#base), {
      redirect: 'manual',
      ...given,
      headers: { ...this.#headers, ...(given.headers as Record<string, string>), cookie },
    });
    for (const set of answer.headers.getSetCookie()) {
      const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(set) ?? [];
      if (value === '' || /expires=Thu, 01 Jan 1970/i.test(set)) this.#cookies.delete(name);
      else this.#cookies.set(name, value);
    }
    return answer;
  }

  get(path: string, headers: Record<string, string> = {}): Promise<Response> {
    return this.#ask(path, { headers });
  }

  async text(path: string): Promise<string> {
    return (await this.follow(await this.get(path))).replace(/<script[^]*?<\/script>/g, '');
  }

  send(path: string, fields: Record<string, string>, headers: Record<string, string> = {}): Promise<Response> {
    return this.#ask(path, { method: 'POST', body: new URLSearchParams(fields), headers });
  }

  /** Sends a form with files. */
  sendFiles(path: string, fields: Record<string, string>, files: Record<string, File>): Promise<Response> {
    const body = new FormData();
    for (const [name, value] of [...Object.entries(fields), ...Object.entries(files)]) body.append(name, value);
    return this.#ask(path, { method: 'POST', body });
  }

  /** The text of the page that an answer leads to. */
  async follow(answer: Response): Promise<string> {
    const to = answer.headers.get('location');
    return to === null ? answer.text() : this.follow(await this.get(new URL(to, answer.url).href));
  }

  async signIn({ login, password }: { login: string; password: string }): Promise<void> {
    await this.send('/garden/sign-in', { '~name': login, '~password': password });
  }

  forget(name: string): void {
    this.#cookies.delete(name);
  }

  cookie(name: string): string | undefined {
    return this.#cookies.get(name);
  }

  set(name: string, value: string): void {
    this.#cookies.set(name, value);
  }
}
