import { LiveAddress } from '@pallmist/browser/app';
import { changeValues, compileApp, type Reading, type Values, writeAddress } from '@pallmist/app/address';

const name = { type: 'text', blank: 'absent', maxLength: 60 } as const;
const view = { ...name, step: false } as const;
const app = { type: 'text', maxLength: 40 } as const;
const edition = { type: 'integer', min: 1 };
const ofApp = (section: string) => ({ address: `/{app}/${section}`, parameters: { app } });

/** The console’s own addresses, declared as any app’s: what a builder looks at can be shared, reloaded and gone back from. */
const { app: compiled } = compileApp({
  app: 'console',
  mount: '/~/console',
  pages: {
    apps: { address: '/' },
    new: { address: '/new{?from}', parameters: { from: view } },
    outbox: { address: '/outbox/mails{?mail}', parameters: { mail: { type: 'integer', min: 1 } } },
    team: { address: '/outbox/team' },
    keys: { address: '/outbox/keys' },
    pages: {
      address: '/{app}{?page,parameter,part,rows,at,sample,mode}',
      parameters: {
        app,
        page: { ...name, resets: ['parameter', 'part', 'rows', 'at', 'sample'] },
        parameter: { ...view, resets: ['part', 'rows'] },
        part: { ...view, maxLength: 200, resets: ['parameter', 'rows'] },
        rows: { ...view, resets: ['parameter', 'part'] },
        at: { ...view, maxLength: 2000 },
        sample: view,
        mode: { type: 'choice', of: 'modes', default: 'build', step: false },
      },
    },
    data: {
      address: '/{app}/data{?collection,part,find,field,value,sort,page}',
      parameters: {
        app,
        collection: { ...name, resets: ['part', 'find', 'field', 'value', 'sort', 'page'] },
        part: { type: 'choice', of: 'data-parts', default: 'records', step: false },
        find: { ...view, resets: ['page'] },
        field: { ...view, resets: ['page'] },
        value: { ...view, resets: ['page'] },
        sort: { ...view, resets: ['page'] },
        page: { type: 'integer', min: 1, default: 1 },
      },
    },
    map: { address: '/{app}/map{?parameter}', parameters: { app, parameter: view } },
    mails: { address: '/{app}/mails{?mail}', parameters: { app, mail: view } },
    people: ofApp('people'),
    words: ofApp('words'),
    settings: ofApp('settings'),
    visits: { address: '/{app}/visits', formerAddresses: ['/{app}/arrivals'], parameters: { app } },
    links: ofApp('short-addresses'),
    webhooks: ofApp('webhooks'),
    promises: {
      address: '/{app}/links{?address,from,to}',
      parameters: { app, address: { ...name, maxLength: 2000 }, from: edition, to: edition },
    },
    file: { address: '/{app}/file{?line}', parameters: { app, line: { type: 'integer', min: 1, step: false } } },
    publish: { address: '/{app}/publish{?edition}', parameters: { app, edition } },
    problems: ofApp('problems'),
    log: ofApp('log'),
  },
  choices: { modes: { build: 'Build', try: 'Try' }, 'data-parts': { records: 'Records', fields: 'Fields' } },
});

/** Names of the console’s pages. */
export type ConsolePage =
  | 'apps'
  | 'new'
  | 'outbox'
  | 'team'
  | 'keys'
  | 'pages'
  | 'data'
  | 'map'
  | 'mails'
  | 'people'
  | 'words'
  | 'settings'
  | 'visits'
  | 'links'
  | 'webhooks'
  | 'promises'
  | 'file'
  | 'publish'
  | 'problems'
  | 'log';

/** The place in the console. */
class Place {
  readonly #live = new LiveAddress(compiled, window);
  #reading: Reading = $state.raw(this.#live.reading);

  constructor() {
    this.#live.subscribe((reading) => {
      this.#reading = reading;
    });
  }

  get page(): ConsolePage {
    return (this.#reading.page ?? 'apps') as ConsolePage;
  }

  /** The text of a parameter; undefined where it is absent. */
  text(name: string): string | undefined {
    const value = this.#reading.values[name];
    return typeof value === 'string' ? value : undefined;
  }

  number(name: string): number | undefined {
    const value = this.#reading.values[name];
    return typeof value === 'number' ? value : undefined;
  }

  /** Changes values of the present page of the console. */
  change(changes: Values): void {
    this.#live.change(changes);
  }

  /** Changes them without a step of the history: the builder has gone back already. */
  replace(changes: Values): void {
    const { address } = changeValues(compiled, this.page, this.#reading.values, changes).written;
    if (address !== undefined) this.#live.open(address, false);
  }

  /** Whether a click selects or uses what is shown stays as it is from page to page. */
  href(page: ConsolePage, values: Values = {}): string {
    const kept = page === 'pages' && this.page === 'pages' && this.text('mode') === 'try' ? { mode: 'try' } : {};
    return writeAddress(compiled, page, { ...kept, ...values }).address ?? '/~/console/';
  }

  /** Opens another page of the console, as a step of the history. */
  open(page: ConsolePage, values: Values = {}): void {
    this.#live.open(this.href(page, values));
  }

  /** Follows a link of the console without loading it again; with a modifier key the link stays a link. */
  follow(event: MouseEvent & { currentTarget: HTMLAnchorElement }): void {
    if (event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    this.#live.open(event.currentTarget.pathname + event.currentTarget.search);
  }
}

export const place = new Place();
