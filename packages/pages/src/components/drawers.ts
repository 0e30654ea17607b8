import type { Node, TableNode } from '@pallmist/app/view';
import type { Component } from 'svelte';
import type { LivePage } from '../live-page.ts';

/** Draws the nodes of one kind. Which kind of node belongs to it, the registry below says. */
type Drawer = Component<{ node: never; live: LivePage }>;

/** Components that only some pages have. They are here once they are loaded, which is before a page is drawn that needs them. */
export const drawers: Partial<Record<Node['show'], Drawer>> & {
  rowEditor?: Component<{
    node: TableNode;
    row: TableNode['rows'][number];
    edited: NonNullable<TableNode['edited']>;
    live: LivePage;
  }>;
} = {};
