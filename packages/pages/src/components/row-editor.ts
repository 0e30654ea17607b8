import type { TableNode } from '@pallmist/app/view';
import type { Component } from 'svelte';
import type { LivePage } from '../live-page.ts';

/** Draws the form of the row that is being edited. */
type RowEditor = Component<{
  node: TableNode;
  edited: NonNullable<TableNode['edited']>;
  live: LivePage;
}>;

/** What is loaded with the forms, for tables. */
export const rowEditor: { component?: RowEditor } = {};
