import { LiveAddress } from '@pallmist/browser';
import { compileApp, type Reading, type Values, writeAddress } from '@pallmist/app/address';

/** The console’s own addresses, declared as any app’s: what one looks at can be shared, reloaded and gone back from. */
const { app } = compileApp({
  app: 'console',
  mount: '/~/console',
  pages: {
    apps: { address: '/' },
    mails: { address: '/outbox/mails{?mail}', parameters: { mail: { type: 'integer', min: 1 } } },
    visits: { address: '/{app}/visits', formerAddresses: ['/{app}/arrivals'], parameters: { app: { type: 'text', maxLength: 40 } } },
    editor: {
      address: '/{app}{?page,parameter,at}',
      parameters: {
        app: { type: 'text', maxLength: 40 },
        page: { type: 'text', blank: 'absent', maxLength: 60, resets: ['parameter', 'at'] },
        parameter: { type: 'text', blank: 'absent', maxLength: 60, step: false },
        at: { type: 'text', blank: 'absent', step: false },
      },
    },
  },
});

/** The place in the console. */
class Place {
  readonly #live = new LiveAddress(app, window);
  #reading: Reading = $state.raw(this.#live.reading);

  constructor() {
    this.#live.subscribe((reading) => {
      this.#reading = reading;
    });
  }

  get page(): string {
    return this.#reading.page ?? 'apps';
  }

  text(name: 'app' | 'page' | 'parameter' | 'at'): string | undefined {
    const value = this.#reading.values[name];
    return typeof value === 'string' ? value : undefined;
  }

  change(changes: Values): void {
    this.#live.change(changes);
  }

  get mail(): number | undefined {
    const value = this.#reading.values['mail'];
    return typeof value === 'number' ? value : undefined;
  }

  href(page: 'apps' | 'editor' | 'mails' | 'visits', values: Values = {}): string {
    return writeAddress(app, page, values).address ?? '/~/console/';
  }

  /** Follows a link of the console without loading it again; with a modifier key the link stays a link. */
  follow(event: MouseEvent & { currentTarget: HTMLAnchorElement }): void {
    if (event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    this.#live.open(event.currentTarget.pathname + event.currentTarget.search);
  }
}

export const place = new Place();
