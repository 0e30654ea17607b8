import type { siteLink } from './definition.ts';
import { display } from '../../expressions/evaluator.ts';
import { parseText } from '../../expressions/template-text.ts';
import type { Anchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

/** Leads to another site. */
export interface SiteLinkNode {
  show: 'site-link';
  link: Anchor;
  /** The host that it leads to, said beside it. */
  host: string;
}

/** A segment that a browser would take for the way up (WHATWG URL, “double-dot path segment”). */
const upwards = /^(?:\.|%2e){1,2}$/i;

/** A link to another site, which the app file names; without an address where a value is missing or would lead elsewhere. */
export function show(component: ComponentOf<typeof siteLink>, context: ViewContext): SiteLinkNode {
  const href = addressOf(component, context);
  return {
    show: 'site-link',
    host: href === undefined ? '' : new URL(href).host,
    link: {
      text: context.text(component.text),
      ...(href === undefined ? {} : { href }),
      ...(component.window === 'new' ? { newWindow: context.say('(opens in a new window)') } : {}),
    },
  };
}

function addressOf(component: ComponentOf<typeof siteLink>, context: ViewContext): string | undefined {
  const site = context.payload.app.sites?.[component.site];
  const path = component.path === undefined ? '' : filledPath(component.path, context);
  if (site === undefined || path === undefined) return undefined;
  const query = new URLSearchParams();
  for (const [name, given] of Object.entries(component.query ?? {})) {
    const value = context.evaluator.value(given);
    if (value !== undefined) query.set(name, typeof value === 'boolean' ? String(value) : display(value));
  }
  for (const [name, text] of context.visitTexts(site.withVisit ?? [])) if (!query.has(name)) query.set(name, text);
  const beginning = site.base.replace(/\/$/, '');
  const asked = query.size === 0 ? '' : `?${query.toString()}`;
  return `${beginning}${path === '' ? '' : `/${path}`}${asked}`;
}

/** The path with its expressions filled in: each value is encoded, so that it makes no segment of its own. */
function filledPath(template: string, context: ViewContext): string | undefined {
  const pieces: string[] = [];
  for (const part of parseText(template)) {
    if ('words' in part) pieces.push(part.words);
    else {
      const value = display(context.evaluator.expression(part.expression));
      if (value === '') return undefined;
      pieces.push(encodeURIComponent(value.toWellFormed()));
    }
  }
  const path = pieces.join('').replace(/^\//, '');
  return path.split('/').some((segment) => upwards.test(segment)) ? undefined : path;
}
