/** What people call one entry of each part of an app file. */
export const partNames = {
  blocks: 'block',
  collections: 'collection',
  choices: 'choices list',
  gates: 'gate',
  mails: 'mail',
  words: 'word',
  sites: 'site',
  signIn: 'sign-in',
} as const;
