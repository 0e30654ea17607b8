import type { ComponentOf } from '../../definition/content-schema.ts';
import type { HeadingNode, LinkNode, NavigationNode, NoticeNode, TextNode } from '../nodes.ts';
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
});

export const navigation = (component: Pick<ComponentOf<'navigation'>, 'links' | 'label'>, shower: Shower): NavigationNode => ({
  show: 'navigation',
  label: shower.text(component.label, 'Navigation'),
  links: component.links.map((entry) => ({
    ...shower.anchor(shower.text(entry.text), entry.to),
    current: entry.to.page === shower.material.name,
  })),
});
