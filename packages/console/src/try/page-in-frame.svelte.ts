import type { PresentValues } from '@pallmist/app/editing';
import { me } from '../service/me.svelte.ts';

/** What has happened to the address of the page that is shown. */
export interface AddressStep {
  address: string;
  cause: string;
  /** The component that it came from, as a place in the page. */
  place: string | undefined;
}

const mostSteps = 60;
/** Milliseconds by which two frames can read the clock differently: browsers round it. */
const clockGrain = 10;

/**
 * The draft’s page in its frame: it is led, it points at components, and it tells what happens in it. It is of another origin,
 * so all of this goes by messages; what it has loaded without JavaScript, the service tells.
 */
export class PageInFrame {
  #frame: HTMLIFrameElement | undefined;
  /** Whether the page in the frame listens: it does not without JavaScript, nor where the service has shown a message. */
  listens = $state(false);
  /** The address in the draft that is shown. */
  address: string | undefined = $state();
  values: PresentValues = $state.raw({});
  steps: readonly AddressStep[] = $state.raw([]);
  /** Where the page leads on to by itself: to sign in, or to today’s address of it. */
  ledTo: string | undefined = $state();
  onaddress: ((address: string, cause: string) => void) | undefined;
  onpicked: ((place: string) => void) | undefined;
  #picking = false;
  #pointed: string | undefined;
  #wanted: string | undefined;
  /** Addresses that were asked for, and given up for another before they were shown. */
  #givenUp: string[] = [];
  /** When the address that is wanted was asked for, in milliseconds since 1970. */
  #wantedSince = 0;

  attach(frame: HTMLIFrameElement): void {
    this.#frame = frame;
    this.listens = false;
    // A new frame shows nothing yet.
    this.address = undefined;
    this.#want(undefined);
  }

  /**
   * Shows an address of the draft, in the page’s place where that listens.
   * @param step whether Back leads back to what was shown
   */
  open(address: string, step = false): void {
    if (this.address === address || this.#wanted === address) return;
    this.#want(address);
    if (this.listens) this.#send({ pallmist: 'open', address, step });
    else this.#frame?.contentWindow?.location.replace(address);
  }

  /** Loads the page again: in its place, with what is open and typed, where it listens. */
  refresh(): void {
    const address = this.#wanted ?? this.ledTo ?? this.address;
    const onItsWay = this.#wanted !== undefined && this.#wanted !== this.address;
    this.#wanted = address;
    // An address that is on its way is asked for again: to load the present one would give it up.
    if (this.listens) this.#send(onItsWay ? { pallmist: 'open', address, step: false } : { pallmist: 'refresh' });
    else if (address !== undefined) this.show(address);
  }

  /**
   * Shows an address by a document of its own.
   * @param by what leads there, for another person say; the address itself when left out
   */
  show(address: string, by = address): void {
    this.listens = false;
    this.#want(address);
    this.#frame?.contentWindow?.location.replace(by);
  }

  reload(): void {
    if (this.listens) this.#send({ pallmist: 'reload' });
    else if (this.address !== undefined) this.show(this.address);
  }

  step(by: -1 | 1): void {
    // The pages in frames share the history of the window.
    window.history.go(by);
  }

  pick(on: boolean): void {
    this.#picking = on;
    this.#send({ pallmist: 'pick', on });
  }

  /** Draws a box around what a component shows. */
  point(place: string | undefined): void {
    this.#pointed = place;
    this.#send({ pallmist: 'point', place });
  }

  /** The service has sent a document of the draft to a frame of this builder. A page that listens tells it itself. */
  sent(address: string): void {
    if (this.listens) return;
    // It is told late, of a document that the frame no longer loads.
    const late = this.#wanted === address ? -1 : this.#givenUp.indexOf(address);
    if (late >= 0) this.#givenUp.splice(late, 1);
    else this.#arrived(address, 'arrival', undefined);
  }

  #want(address: string | undefined): void {
    if (this.#wanted !== undefined && this.#wanted !== address) this.#givenUp.push(this.#wanted);
    this.#wanted = address;
    this.#wantedSince = Date.now();
  }

  /** Hears what the page says. */
  hear({ origin, source, data }: MessageEvent<unknown>): void {
    if (origin !== me.drafts || source !== this.#frame?.contentWindow) return;
    if (typeof data !== 'object' || data === null || !('pallmist' in data)) return;
    if (data.pallmist === 'here') {
      this.listens = true;
      this.#send({ pallmist: 'hello' });
      this.pick(this.#picking);
      this.point(this.#pointed);
      return;
    }
    if (data.pallmist === 'leaves') {
      this.listens = false;
      return;
    }
    const said = data as { pallmist: string; address?: string; cause?: string; place?: string; began?: number };
    if (said.pallmist === 'address' && said.address !== undefined) {
      const isGivenUp = said.cause === 'arrival' && this.#wanted !== undefined && (said.began ?? Infinity) < this.#wantedSince - clockGrain;
      // A document was on its way when another was asked for. Browsers may drop that request: the document goes on to it.
      if (isGivenUp) this.#send({ pallmist: 'open', address: this.#wanted, step: false });
      else this.#arrived(said.address, said.cause ?? 'change', said.place);
    } else if (said.pallmist === 'values') this.values = data as PresentValues;
    else if (said.pallmist === 'key') window.dispatchEvent(new KeyboardEvent('keydown', data as unknown as KeyboardEventInit));
    else if (said.pallmist === 'picked' && said.place !== undefined) this.onpicked?.(said.place);
  }

  #arrived(address: string, cause: string, place: string | undefined): void {
    const wanted = this.#wanted;
    this.#wanted = undefined;
    this.#givenUp = [];
    // A document that was asked for and came by another address: the builder stays with what was asked for.
    // It stays so while that is drawn again.
    const led = cause === 'arrival' && wanted !== undefined ? wanted !== address : this.ledTo === address;
    this.ledTo = led ? address : undefined;
    const news = address !== this.address;
    if (news) {
      this.steps = [...this.steps.slice(1 - mostSteps), { address, cause, place }];
      this.address = address;
    }
    // Only what was done in the page leads the console: not what it was asked to show.
    if (news && !led && cause !== 'refresh' && cause !== 'order' && (cause !== 'arrival' || wanted === undefined))
      this.onaddress?.(address, cause);
  }

  #send(order: object): void {
    if (this.listens && me.drafts !== undefined) this.#frame?.contentWindow?.postMessage(order, me.drafts);
  }
}
