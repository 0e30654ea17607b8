import type { LinkFinding, Rehearsal } from '@pallmist/api';

type Group = Rehearsal['others'][number]['group'];

/** Findings in the order in which they are told: first what nobody would notice, last what changes no meaning. */
export const findingGroups: readonly (
  { fate: LinkFinding['fate']; group?: undefined; title: string } | { group: Group; fate?: undefined; title: string }
)[] = [
  { fate: 'silent', title: 'These addresses open and mean something else. Nobody would notice.' },
  { fate: 'gone', title: 'These addresses lead nowhere.' },
  { fate: 'refused', title: 'These addresses are refused.' },
  { fate: 'noted', title: 'These addresses open without a value, and the page says so.' },
  { group: 'who-may-see', title: 'Who may see them changes.' },
  { group: 'how-it-looks', title: 'They mean the same and look different.' },
];
