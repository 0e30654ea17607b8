import type { Scope } from '@pallmist/api';
import type { Request } from 'express';
import { mayAs, type Builder, type Builders } from '../builders/builders.ts';
import type { BuilderRole } from '../store/builders.ts';
import { Refused } from './problem-details.ts';

const stranger = 'Only builders may do this. Open the console by its link, sign in to it, or send a token.';
const notAllowed: Record<BuilderRole, string> = {
  viewer: stranger,
  builder: 'You may look at this app and try it, but not change it. Ask the owner for the role “builder”.',
  owner: 'Only the owner may do this.',
};

/** What something takes: a role of people, and a scope of tokens. */
export interface Access {
  role: BuilderRole;
  /** When left out, no named token may do it. */
  scope?: Scope | undefined;
}

/** A token that may not do what was asked, with the challenge that says which scope does (RFC 6750). */
export class OutOfScope extends Refused {
  readonly challenge: string;

  constructor(message: string, scope: Scope | undefined) {
    super(403, message);
    this.challenge = `Bearer error="insufficient_scope"${scope === undefined ? '' : `, scope="${scope}"`}`;
  }
}

/**
 * Who asks.
 * @param app the app that it is about; undefined where it is about all of them
 * @throws Refused where they may not
 */
export async function admitTo(builders: Builders, { role, scope }: Access, request: Request, app: string | undefined): Promise<Builder> {
  const builder = await builders.who(request);
  if (builder === undefined) throw new Refused(401, stranger);
  if (builder.token === undefined) {
    if (!mayAs(builder.role, role)) throw new Refused(403, notAllowed[role]);
    return builder;
  }
  const { scopes, app: only } = builder.token;
  if (scope === undefined) throw new OutOfScope('A token with scopes may not do this. Use the owner’s token, or the console.', undefined);
  if (!scopes.includes(scope)) throw new OutOfScope(`The token “${builder.name}” has no scope “${scope}”.`, scope);
  if (only !== null && only !== app) throw new OutOfScope(`The token “${builder.name}” is for the app “${only}” alone.`, scope);
  return builder;
}

/** Whether the owner asks, as a person or with the owner's token: named tokens may do nothing that takes the owner. */
export async function isOwner(builders: Builders, request: Request): Promise<boolean> {
  const builder = await builders.who(request);
  return builder?.role === 'owner' && builder.token === undefined;
}

/** Whether a builder may look at the draft of an app, and at what is published beside it. */
export function maySeeDrafts(builder: Builder | undefined, app: string): builder is Builder {
  if (builder?.token === undefined) return builder !== undefined;
  const { scopes, app: only } = builder.token;
  return scopes.includes('apps:read') && (only === null || only === app);
}
