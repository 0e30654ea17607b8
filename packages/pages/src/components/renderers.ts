import type { AnyNode, ComponentName, NodeOf } from '@pallmist/app/view';
import type { Component, Snippet } from 'svelte';
import type { LivePage } from '../live-page.ts';
import { commonRenderers } from './common-components.ts';

/** What draws a component: its node, the page, and the way to draw what stands within it. */
interface RendererProps<Node> {
  node: Node;
  live: LivePage;
  render: Snippet<[AnyNode[]]>;
}

/** The Svelte component that draws each kind of component. */
export type Renderers = { readonly [Name in ComponentName]: Component<RendererProps<NodeOf<Name>>> };

/** What is loaded so far; what only some pages need is there before the first of them is drawn. */
export const renderers: Partial<Record<string, Component<RendererProps<never>>>> = { ...commonRenderers };
