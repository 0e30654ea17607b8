import { own } from '../own.ts';
import { toPointer, type PatchOperation, type Problem } from '@pallmist/address/declare';

type Key = string | number;
type Fields = Record<string, unknown>;

/** A key of the app file that had another name, or another form, in the past. */
interface FormerKey {
  from: string;
  to: string;
  /** Today's value; the same when left out. */
  value?: (given: unknown) => unknown;
}

const parameterKeys: FormerKey[] = [
  { from: 'otherwise', to: 'ifWrong' },
  { from: 'history', to: 'step', value: (given) => (given === 'replace' ? false : given === 'step' ? true : given) },
  { from: 'formerly', to: 'formerNames' },
];
const linkKeys: FormerKey[] = [{ from: 'carry', to: 'withVisit' }];
const submitKey: FormerKey = { from: 'button', to: 'submit' };
const beforeSearch: FormerKey = { from: 'unasked', to: 'beforeSearch' };
const panes: FormerKey = { from: 'views', to: 'panes' };

/** By the name that a component has today. */
const componentKeys: Record<string, FormerKey[]> = {
  search: [{ from: 'hint', to: 'placeholder' }],
  select: [{ from: 'anything', to: 'anyLabel' }],
  radio: [{ from: 'anything', to: 'anyLabel' }],
  image: [{ from: 'alternative', to: 'alt' }],
  list: [{ from: 'picture', to: 'image' }, beforeSearch],
  table: [beforeSearch],
  details: [{ from: 'record', to: 'bind' }],
  form: [{ from: 'record', to: 'bind' }, submitKey],
  ask: [submitKey],
  'sign-in': [{ from: 'name', to: 'loginLabel' }, submitKey],
  'sign-up': [{ from: 'name', to: 'loginLabel' }, { from: 'called', to: 'nameLabel' }, submitKey],
  share: [...linkKeys],
  tabs: [panes],
  views: [panes],
};
/** The reasons for which a visitor is sent to the sign-in page. */
const reasonKeys: FormerKey[] = [
  { from: 'needed', to: 'sign-in-needed' },
  { from: 'wrong', to: 'wrong-password' },
  { from: 'left', to: 'signed-out' },
  { from: 'busy', to: 'too-many-tries' },
  { from: 'other', to: 'other-account' },
  { from: 'mailed', to: 'mail-sent' },
  { from: 'ended', to: 'link-expired' },
];
const formerComponents: Record<string, string> = { choices: 'checkboxes', away: 'site-link' };

/** App files of the past, brought into today's form. */
export interface Modernized {
  /** One note for each former key, with the change that rewrites it. */
  problems: Problem[];
  /** The changes in a row, for the text of the file. */
  operations: PatchOperation[];
  /** Where something stands in the text that stands at a pointer in today's form. */
  placeInText(path: readonly string[]): string[];
}

/** Renames former keys in the parsed data of an app file, in its place. */
export function modernize(data: unknown): Modernized {
  const work = new Modernizing();
  if (isFields(data)) work.app(data);
  return work;
}

class Modernizing implements Modernized {
  readonly problems: Problem[] = [];
  readonly operations: PatchOperation[] = [];
  /** Paths in the text, by pointers of today's form. */
  readonly #moved = new Map<string, readonly Key[]>();

  placeInText(path: readonly string[]): string[] {
    let place: string[] = [];
    for (let length = 1; length <= path.length; length++) {
      const moved = this.#moved.get(toPointer(path.slice(0, length)));
      place = moved === undefined ? [...place, path[length - 1] ?? ''] : moved.map(String);
    }
    return place;
  }

  app(app: Fields): void {
    this.#each(app, 'parameters', [], (parameter, at) => {
      this.#rename(parameter, at, parameterKeys);
    });
    this.#each(app, 'choices', [], (list, at) => {
      for (const value of Object.keys(list))
        this.#inside(list, value, at, (choice, place) => {
          this.#rename(choice, place, [{ from: 'formerly', to: 'formerValues' }]);
        });
    });
    this.#each(app, 'collections', [], (collection, at) => {
      this.#rename(collection, at, [
        { from: 'key', to: 'keyField' },
        { from: 'title', to: 'titleField' },
      ]);
    });
    this.#each(app, 'sites', [], (site, at) => {
      this.#rename(site, at, [
        { from: 'at', to: 'base' },
        { from: 'carries', to: 'withVisit' },
      ]);
    });
    this.#each(app, 'mails', [], (mail, at) => {
      this.#links(mail, at);
    });
    this.#inside(app, 'navigation', [], (entries, at) => {
      this.#links(entries, at);
    });
    this.#inside(app, 'signIn', [], (signIn, at) => {
      this.#links(signIn, at);
      this.#inside(signIn, 'reasons', at, (reasons, place) => {
        this.#rename(reasons, place, reasonKeys);
      });
      this.#inside(signIn, 'newcomers', at, (newcomers, place) => {
        this.#rename(newcomers, place, [{ from: 'first', to: 'afterSignUp' }]);
      });
      this.#rename(signIn, at, [{ from: 'first', to: 'afterSignIn' }]);
    });
    this.#each(app, 'pages', [], (page, at) => {
      this.#each(page, 'parameters', at, (parameter, place) => {
        this.#rename(parameter, place, parameterKeys);
      });
      this.#inside(page, 'content', at, (content, place) => {
        this.#links(content, place);
      });
      this.#rename(page, at, [
        { from: 'formerly', to: 'formerNames' },
        { from: 'reads', to: 'rows' },
      ]);
    });
  }

  /** Components and links, wherever they stand below a place. */
  #links(node: Fields, at: readonly Key[]): void {
    for (const key of Object.keys(node))
      this.#inside(node, key, at, (inner, place) => {
        this.#links(inner, place);
      });
    if (typeof node['page'] === 'string' && !('show' in node)) this.#rename(node, at, linkKeys);
    if (typeof node['show'] === 'string') this.#component(node, node['show'], at);
  }

  #component(node: Fields, show: string, at: readonly Key[]): void {
    const today = own(formerComponents, show);
    if (today !== undefined) {
      node['show'] = today;
      this.#note(
        at,
        'show',
        [{ op: 'replace', path: toPointer([...at, 'show']), value: today }],
        `The component “${show}” is called “${today}”.`,
      );
    } else if (show === 'button') {
      Object.assign(node, { show: 'link', look: 'button' });
      this.#note(
        at,
        'show',
        [
          { op: 'replace', path: toPointer([...at, 'show']), value: 'link' },
          { op: 'add', path: toPointer([...at, 'look']), value: 'button' },
        ],
        'A button that leads somewhere is a link with the look of a button.',
      );
    }
    if (show === 'table') {
      this.#inside(node, 'edit', at, (edit, place) => {
        this.#rename(edit, place, [submitKey]);
      });
      this.#bound(node, at, { sort: 'sort', choose: 'tick' });
    }
    this.#rename(node, at, own(componentKeys, show) ?? []);
  }

  /** What a table keeps in the address stands under `bind` today. */
  #bound(node: Fields, at: readonly Key[], names: Record<string, string>): void {
    const former = Object.keys(names).filter((name) => typeof node[name] === 'string');
    if (former.length === 0 || 'bind' in node) return;
    const bind = Object.fromEntries(former.map((name) => [names[name] ?? name, node[name]]));
    for (const name of former) {
      Reflect.deleteProperty(node, name);
      this.#moved.set(toPointer([...at, 'bind', names[name] ?? name]), this.#old([...at, name]));
    }
    node['bind'] = bind;
    this.#note(
      at,
      'bind',
      [
        ...former.map((name): PatchOperation => ({ op: 'remove', path: toPointer([...at, name]) })),
        { op: 'add', path: toPointer([...at, 'bind']), value: bind },
      ],
      `What a table keeps in the address stands under “bind”: ${Object.entries(bind)
        .map(([key, name]) => `${key}: ${String(name)}`)
        .join(', ')}.`,
    );
  }

  #rename(node: Fields, at: readonly Key[], keys: readonly FormerKey[]): void {
    for (const { from, to, value } of keys) {
      if (!Object.hasOwn(node, from) || Object.hasOwn(node, to)) continue;
      const given = node[from];
      const today = value === undefined ? given : value(given);
      Reflect.deleteProperty(node, from);
      node[to] = today;
      const path = toPointer([...at, to]);
      this.#moved.set(path, this.#old([...at, from]));
      const move: PatchOperation = { op: 'move', from: toPointer([...at, from]), path };
      this.#note(at, to, today === given ? [move] : [move, { op: 'replace', path, value: today }], `“${from}” is called “${to}” today.`);
    }
  }

  #note(at: readonly Key[], key: string, operations: PatchOperation[], message: string): void {
    this.operations.push(...operations);
    this.problems.push({
      code: 'former-key',
      severity: 'note',
      message,
      hint: 'It still works; “pallmist check --fix” rewrites it.',
      pointer: toPointer([...at, key]),
      // Whatever is changed in the file, former keys are rewritten with it.
      fix: [],
    });
  }

  #old(path: readonly Key[]): Key[] {
    return this.placeInText(path.map(String));
  }

  #inside(node: Fields, key: string, at: readonly Key[], work: (inner: Fields, at: Key[]) => void): void {
    const inner = node[key];
    if (isFields(inner)) work(inner, [...at, key]);
  }

  #each(node: Fields, key: string, at: readonly Key[], work: (inner: Fields, at: Key[]) => void): void {
    this.#inside(node, key, at, (map, place) => {
      for (const name of Object.keys(map)) this.#inside(map, name, place, work);
    });
  }
}

/** Maps and lists: what may hold something of the app file. */
const isFields = (value: unknown): value is Fields => typeof value === 'object' && value !== null;
