import { writeAddress } from '@pallmist/address/pages';
import { encode } from '@pallmist/address/types';
import type { ComponentOf } from '../../definition/content-schema.ts';
import type {
  BackNode,
  HeadingNode,
  ImageNode,
  LanguageNode,
  LinkNode,
  NavigationNode,
  NoticeNode,
  ShareNode,
  TextNode,
} from '../nodes.ts';
import { choiceLabel } from '../tools.ts';
import type { Shower } from '../shower.ts';

export const heading = (component: ComponentOf<'heading'>, shower: Shower): HeadingNode => ({
  show: 'heading',
  text: shower.text(component.text),
  level: component.level ?? 2,
});

export const text = (component: ComponentOf<'text'>, shower: Shower): TextNode => ({ show: 'text', text: shower.text(component.text) });

export const notice = (component: ComponentOf<'notice'>, shower: Shower): NoticeNode => ({
  show: 'notice',
  text: shower.text(component.text),
  tone: component.tone ?? 'plain',
});

export const link = (component: ComponentOf<'link'>, shower: Shower): LinkNode => ({
  show: 'link',
  link: shower.anchor(shower.text(component.text), component.to),
  ...(component.look === 'button' ? { look: 'button' } : {}),
});

export function image(component: ComponentOf<'image'>, shower: Shower): ImageNode {
  return {
    show: 'image',
    source: shower.fileAddress(shower.text(component.file)) ?? '',
    alt: shower.text(component.alt),
    ...(component.width === undefined ? {} : { width: component.width }),
  };
}

export function navigation(component: Pick<ComponentOf<'navigation'>, 'links' | 'label' | 'bind'>, shower: Shower): NavigationNode {
  const { bind, links = [] } = component;
  const choices = shower.material.app.choices?.[shower.declaration(bind ?? '')?.of ?? ''];
  return {
    show: 'navigation',
    label: shower.text(component.label, 'Navigation'),
    links: [
      ...links.map((entry) => ({ ...shower.anchor(shower.text(entry.text), entry.to), current: entry.to.page === shower.material.name })),
      ...Object.entries(bind === undefined ? {} : (choices ?? {})).map(([choice, label]) => ({
        ...shower.changeAnchor(choiceLabel(label), { [bind ?? '']: choice }),
        current: shower.values[bind ?? ''] === choice,
      })),
    ],
  };
}

export function back(component: ComponentOf<'back'>, shower: Shower): BackNode {
  const { previous } = shower.material;
  const cameFrom = previous?.page === component.to.page;
  const text = shower.text(component.text);
  return { show: 'back', cameFrom, link: cameFrom ? { text, href: previous.address } : shower.anchor(text, component.to) };
}

export function share(component: ComponentOf<'share'>, shower: Shower): ShareNode {
  const { name } = shower.material;
  const values = shower.carrying(name, shower.values, component.withVisit);
  const href = writeAddress(shower.app, name, values, { forSharing: true, tellsVisit: component.withVisit !== undefined }).address ?? '';
  return {
    show: 'share',
    text: shower.text(component.text, 'Share this view'),
    href,
    ...(component.short === undefined ? {} : { short: `${shower.app.mount}/~s` }),
    ...(component.qr === true ? { qr: `${shower.app.mount}/~qr.svg?of=${encode(href)}` } : {}),
  };
}

export function language(component: ComponentOf<'language'>, shower: Shower): LanguageNode {
  const name = shower.material.app.language ?? '';
  return {
    show: 'language',
    label: shower.text(component.label, 'Language'),
    languages: Object.entries(shower.material.app.choices?.[shower.declaration(name)?.of ?? ''] ?? {}).map(([tag, label]) => ({
      ...shower.changeAnchor(choiceLabel(label), { [name]: tag }),
      tag,
      current: shower.language === tag,
    })),
  };
}
