import { randomBytes } from 'node:crypto';
import type { Request, Response } from 'express';
import { readCookie, setCookie } from '../http/cookies.ts';
import type { Origins } from '../http/origins.ts';
import type { Store } from '../store/store.ts';
import type { Clock } from '../clock.ts';
import { lookScope, type Builder, type Builders } from './builders.ts';

const lookCookie = 'pallmist_look';
/** As long as the console stays open, in milliseconds. */
const lifetime = 30 * 24 * 60 * 60 * 1000;
/** Milliseconds in which a ticket is used: it is made in the redirect that leads to its use. */
const ticketTime = 60_000;
const mostTickets = 200;

/** What a ticket is good for, once. */
export interface Ticket {
  builder: string;
  /** Path and query at the origin of drafts. */
  to: string;
  /** Person of the app as whom the draft is tried; null for signed out, undefined for no change. */
  as?: string | null | undefined;
}

/**
 * Who may look at drafts, at the origin of drafts. The console’s own session is not valid there; a browser gets there with
 * a ticket from the console, for a session that opens no operation of the HTTP interface.
 */
export class Looks {
  readonly #tickets = new Map<string, Ticket & { until: number }>();
  readonly #store: Store;
  readonly #builders: Builders;
  readonly #origins: Origins;
  readonly #clock: Clock;

  constructor({ store, builders, origins, clock }: { store: Store; builders: Builders; origins: Origins; clock: Clock }) {
    this.#store = store;
    this.#builders = builders;
    this.#origins = origins;
    this.#clock = clock;
  }

  /** @returns path and query, at the origin of drafts, that uses the ticket up and leads on */
  addressWith(ticket: Ticket): string {
    const name = randomBytes(24).toString('base64url');
    this.#tickets.set(name, { ...ticket, until: this.#clock.steady() + ticketTime });
    const [oldest] = this.#tickets.keys();
    if (this.#tickets.size > mostTickets && oldest !== undefined) this.#tickets.delete(oldest);
    return `/~/enter?ticket=${name}`;
  }

  /** Uses a ticket up, and lets the browser look. @returns undefined where there is no such ticket any more */
  async enter(name: string, request: Request, response: Response): Promise<Ticket | undefined> {
    const ticket = this.#tickets.get(name);
    this.#tickets.delete(name);
    if (ticket === undefined || ticket.until < this.#clock.steady()) return undefined;
    const present = await this.who(request);
    if (present?.id !== ticket.builder) {
      const token = await this.#store.sessions.begin(lookScope, ticket.builder, { age: lifetime, idle: lifetime });
      setCookie(response, lookCookie, token, lifetime, { path: '/~/', secure: this.#origins.isSecure(true), sameSite: 'lax' });
    }
    return ticket;
  }

  /** Who looks: with a token, or with a session that a ticket began; undefined for a stranger. */
  async who(request: Request): Promise<Builder | undefined> {
    const bearer = await this.#builders.withToken(request);
    if (bearer !== 'none') return bearer;
    const id = await this.#store.sessions.login(lookScope, readCookie(request, lookCookie));
    return id === undefined ? undefined : this.#builders.find(id);
  }
}
