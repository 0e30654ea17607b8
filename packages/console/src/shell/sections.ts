import type { ConsolePage } from '../service/place.svelte.ts';

/** A screen of an app. */
export interface Section {
  page: ConsolePage;
  label: string;
  sentence: string;
  /** Only the owner may open it. */
  ofOwner?: true;
  /** The screen that leads to it; the bar has no link of its own for it. */
  within?: ConsolePage;
}

/** The screens of an app, in the order in which builders work. */
export const sections: readonly Section[] = [
  { page: 'pages', label: 'Pages', sentence: 'Pages, their addresses, parameters and content' },
  { page: 'data', label: 'Data', sentence: 'Collections, records and choices lists' },
  { page: 'map', label: 'Map', sentence: 'All pages and the links between them' },
  { page: 'people', label: 'People', sentence: 'Who may sign in, gates, and sign-in' },
  { page: 'mails', label: 'Mails', sentence: 'What forms send' },
  { page: 'words', label: 'Words', sentence: 'Texts in several languages' },
  { page: 'settings', label: 'Settings', sentence: 'Title, mount, look, navigation and sites' },
  { page: 'promises', label: 'Links', sentence: 'What earlier addresses mean, and which are printed' },
  { page: 'links', label: 'Short addresses', sentence: 'Short addresses that lead to pages' },
  { page: 'visits', label: 'Visits', sentence: 'Where visitors came from' },
  { page: 'webhooks', label: 'Webhooks', sentence: 'Programs that are told what forms save', ofOwner: true, within: 'mails' },
  { page: 'file', label: 'File', sentence: 'The app file as text' },
  { page: 'log', label: 'Log', sentence: 'Who changed and published what' },
];

/** Those that a builder may open. */
export const sectionsFor = (isOwner: boolean) => sections.filter(({ ofOwner }) => ofOwner !== true || isOwner);
