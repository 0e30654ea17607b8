import { AddressError, type AddressProblem } from '@pallmist/address';
import {
  join,
  longestWritten,
  noProblems,
  readHere,
  refusalCode,
  refusalData,
  refuse,
  slotNamed,
  textFor,
  type Slot,
  type Template,
} from '@pallmist/address/live';
import type { BrowserWindow } from './browser-window.ts';
import { Listeners } from './listeners.ts';
import type { ChangeOptions } from './live-types.ts';
import { SharedAddress, type AddressPart, type Cause } from './shared-address.ts';

type Values = Readonly<Record<string, unknown>>;
type Problems = readonly AddressProblem[];
/** A value that a parameter is to have, and its text in the address: none for the default. */
interface Planned {
  slot: Slot;
  value: unknown;
  text: string | undefined;
}
type Texts = readonly (string | undefined)[];

/** A text of at most so many characters makes no address too long. */
const short = 100;
/** In the place of a name: all values. */
const all = '';

/** What `live` gives. `Live` says what each member does; here nothing is known of the types. */
export class LiveState implements AddressPart {
  readonly order: string;
  status: 'found' | 'refused' | 'elsewhere' = 'elsewhere';
  problems: Problems = noProblems;
  cause: Cause = 'change';
  readonly page: Template;
  readonly #shared: SharedAddress;
  readonly #listeners = new Listeners((name) => (name === all ? this.values : this.get(name)));
  readonly #once: readonly Slot[];
  /** The values by name, and their texts by the place of their slots. */
  readonly #values: Record<string, unknown>;
  readonly #texts: (string | undefined)[] = [];
  /** What is shown in the place of those while something is dragged. */
  readonly #held = new Map<string, unknown>();
  #snapshot: Values | undefined;
  /** Names whose values may have changed since it was told last. */
  #touched: string[] = [];

  constructor(page: Template, window: BrowserWindow) {
    this.page = page;
    this.#once = page.slots.filter(actsOnce);
    this.#values = { ...page.absent };
    this.order = (page.root || '?') + (page.slots[page.inPath]?.name ?? '');
    this.#shared = SharedAddress.of(window);
    this.follow(this.#shared.join(this), 'change');
  }

  get values(): Values {
    return (this.#snapshot ??= this.#held.size > 0 ? { ...this.#values, ...Object.fromEntries(this.#held) } : { ...this.#values });
  }

  get(name: string): unknown {
    return this.#held.size > 0 && this.#held.has(name) ? this.#held.get(name) : this.#values[name];
  }

  set(changes: Values, { step, gesture }: ChangeOptions = {}): Problems {
    const { planned, changed, problems } = this.#plan(changes);
    if (problems.length > 0) return problems;
    // Nothing to write where the address has it all already.
    const writes = changed.length > 0 || this.problems !== noProblems;
    const steps = writes && (step ?? changed.some(({ parameter }) => parameter.options.step !== false));
    this.#shared.beforeChange(steps);
    this.status = 'found';
    this.problems = noProblems;
    this.cause = 'change';
    this.#take(planned);
    if (writes) this.#shared.changed(steps, gesture);
    // Others that own what changed have it before anybody is told who might change it again.
    for (const part of this.#shared.parts) {
      if (part !== this && changed.some(({ name, inPath }) => inPath || part.owns(name))) part.follow(this.#shared.compose(this), 'change');
    }
    this.#tell();
    return noProblems;
  }

  hold(changes: Values): Problems {
    const { planned, problems } = this.#plan(changes, true);
    if (problems.length > 0) return problems;
    for (const { slot, value } of planned) {
      this.#held.set(slot.name, value);
      this.#touched.push(slot.name);
    }
    this.#snapshot = undefined;
    this.#tell();
    return noProblems;
  }

  release(): void {
    this.#letGo();
    this.#tell();
  }

  href(changes: Values = {}): string {
    const { planned, problems } = this.#plan(changes);
    if (problems.length > 0) throw new AddressError(problems);
    return this.#shared.compose(this, this.#join(this.#textsWith(planned)));
  }

  go(address: string, { step = true }: ChangeOptions = {}): boolean {
    const page = this.page;
    return this.#shared.go(address, step, (here, samePath) => (page.root !== '' || samePath) && readHere(page, here)?.status === 'found');
  }

  readonly subscribe = (...given: [(value: unknown) => void] | [string, (value: unknown) => void]): (() => void) =>
    given.length === 1 ? this.#listeners.add(all, given[0]) : this.#listeners.add(...given);

  readonly snapshot = (): Values => this.values;

  flush(): void {
    this.#shared.flush();
  }

  close(): void {
    this.#listeners.end();
    this.#shared.leave(this);
    this.status = 'elsewhere';
  }

  address(): string | undefined {
    return this.status === 'found' ? this.#join(this.#texts) : undefined;
  }

  owns(name: string): boolean {
    return slotNamed(this.page.byName, name)?.inPath === false;
  }

  follow(here: string, cause: Cause): void {
    const reading = readHere(this.page, here);
    const { status = 'elsewhere', problems = noProblems } = reading ?? {};
    if (status !== this.status || problems !== this.problems) this.#snapshot = undefined;
    this.status = status;
    this.problems = problems;
    this.cause = cause;
    if (cause !== 'change') this.#letGo();
    if (reading !== undefined) {
      const planned = this.page.slots.map((slot) => plan(slot, reading.values[slot.name]));
      this.#take(planned);
      // What acts once has acted, and a former name gives way to today’s.
      if (reading.former || planned.some(({ slot, text }) => text !== undefined && this.#once.includes(slot))) this.#shared.changed(false);
    }
    this.#tell();
  }

  #letGo(): void {
    if (this.#held.size > 0) this.#snapshot = undefined;
    this.#touched.push(...this.#held.keys());
    this.#held.clear();
  }

  /**
   * What changes come to.
   * @param alone without what they reset, and with what has acted
   */
  #plan(changes: Values, alone = false): { planned: Planned[]; changed: Slot[]; problems: Problems } {
    const { byName, slots } = this.page;
    const planned: Planned[] = [];
    const changed: Slot[] = [];
    let problems: Problems = noProblems;
    const complain = (code: string, parameter?: string, data?: unknown) => {
      problems = [...problems, { code, severity: 'error', parameter, data }];
    };
    const refused = this.status === 'refused';
    let check = refused;
    if (this.status !== 'found' && !refused) complain('unknown-page');
    for (const name in changes) {
      const slot = byName.get(name);
      if (slot?.name === name) {
        const one = plan(slot, changes[name]);
        const { text } = one;
        planned.push(one);
        if (text === undefined && refusalCode !== '') complain(refusalCode, name, refusalData);
        else if (text !== this.#texts[slot.index]) changed.push(slot);
        check ||= text !== undefined && text.length > short;
      } else complain('undeclared', name);
    }
    if (!alone && changed.length > 0) {
      const leave = (slot: Slot | undefined) => {
        if (slot !== undefined && !(slot.name in changes)) planned.push(plan(slot, undefined));
      };
      for (const { parameter } of changed) for (const name of parameter.options.resets ?? []) leave(byName.get(name));
      for (const slot of this.#once) leave(slot);
    }
    if (check) {
      const texts = this.#textsWith(planned);
      const { length } = this.#join(texts);
      if (length > longestWritten) complain('address-too-long', undefined, length);
      for (const { required, index, name } of slots)
        if (required && texts[index] === undefined && !(name in changes)) complain('missing', name);
    }
    return { planned, changed, problems };
  }

  #textsWith(planned: readonly Planned[]): Texts {
    const texts = [...this.#texts];
    for (const { slot, text } of planned) texts[slot.index] = text;
    return texts;
  }

  #join(texts: Texts): string {
    return join(this.page, texts);
  }

  /** Gives values their new state. An equal list stays the same object. */
  #take(planned: readonly Planned[]): void {
    for (const { slot, value, text } of planned) {
      const { index, name } = slot;
      const shown = this.get(name);
      const after = this.#once.includes(slot) ? undefined : text;
      if (after !== this.#texts[index] || after === undefined) this.#values[name] = value;
      this.#texts[index] = after;
      this.#held.delete(name);
      if (this.get(name) === shown) continue;
      this.#touched.push(name);
      this.#snapshot = undefined;
    }
  }

  #tell(): void {
    const names = this.#touched;
    this.#touched = [];
    names.push(all);
    this.#listeners.tell(names);
  }
}

const actsOnce = ({ inPath, parameter }: Slot) => !inPath && parameter.options.once === true;

/** What a parameter with a wanted value is to have: the value and its text, or the default. `refusalCode` says what is wrong. */
function plan(slot: Slot, wanted: unknown): Planned {
  refuse('');
  const text = textFor(slot, wanted);
  return { slot, text, value: text === undefined ? (slot.changing === undefined ? slot.fixed : slot.changing()) : wanted };
}
