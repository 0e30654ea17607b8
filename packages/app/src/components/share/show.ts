import type { share } from './definition.ts';
import { writeAddress } from '@pallmist/address/pages';
import { encode } from '@pallmist/address/types';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface ShareNode {
  show: 'share';
  text: string;
  /** The address for sharing: without what is nobody else's. */
  href: string;
  /** Where it is drawn as a QR code. */
  qr?: string;
  /** Where a short address is made of it. */
  short?: string;
}

export function show(component: ComponentOf<typeof share>, context: ViewContext): ShareNode {
  const { name } = context.payload;
  const values = context.carrying(name, context.values, component.withVisit);
  const href = writeAddress(context.app, name, values, { forSharing: true, tellsVisit: component.withVisit !== undefined }).address ?? '';
  return {
    show: 'share',
    text: context.text(component.text, context.say('Share this view')),
    href,
    ...(component.short === undefined ? {} : { short: `${context.app.mount}/~s` }),
    ...(component.qr === true ? { qr: `${context.app.mount}/~qr.svg?of=${encode(href)}` } : {}),
  };
}
