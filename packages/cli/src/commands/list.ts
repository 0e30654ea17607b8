import type { Command } from 'commander';

/** A command: what the help says of it, and where it is. Only the command that is run is loaded, so that all begin quickly. */
export interface ListedCommand {
  readonly name: string;
  readonly alias?: string;
  readonly group: 'Get started' | 'App file' | 'Addresses' | 'Service' | 'What people leave' | 'Shell';
  readonly summary: string;
  readonly load: () => Promise<(program: Command) => void>;
}

export const listedCommands: readonly ListedCommand[] = [
  {
    name: 'new',
    group: 'Get started',
    summary: 'Write the app file of a small app that runs, with comments.',
    load: async () => (await import('./new.ts')).addNew,
  },
  {
    name: 'serve',
    group: 'Get started',
    summary: 'Serve the published apps, the console and the HTTP interface.',
    load: async () => (await import('./serve.ts')).addServe,
  },
  {
    name: 'demo',
    group: 'Get started',
    summary: 'Serve the demo app: Quillmoor Glasshouses, an invented botanic garden.',
    load: async () => (await import('./demo.ts')).addDemo,
  },
  {
    name: 'dev',
    group: 'App file',
    summary: 'Check and push an app file at each save; open pages of the draft follow.',
    load: async () => (await import('./dev.ts')).addDev,
  },
  {
    name: 'check',
    group: 'App file',
    summary: 'Find everything that is wrong in an app file or in a draft.',
    load: async () => (await import('./check.ts')).addCheck,
  },
  {
    name: 'rename',
    group: 'App file',
    summary: 'Rename a page, a parameter or a choice everywhere in an app file, or give a page another address.',
    load: async () => (await import('./rename.ts')).addRename,
  },
  {
    name: 'pages',
    group: 'App file',
    summary: 'List the pages of an app with their addresses.',
    load: async () => (await import('./pages.ts')).addPages,
  },
  {
    name: 'params',
    group: 'App file',
    summary: 'List the parameters of a page, or of all pages.',
    load: async () => (await import('./params.ts')).addParams,
  },
  {
    name: 'map',
    group: 'App file',
    summary: 'Draw the pages of an app and the links between them, as Mermaid text or as a picture (SVG).',
    load: async () => (await import('./map.ts')).addMap,
  },
  {
    name: 'declare',
    group: 'App file',
    summary: 'Put the pages that a module declares into an app file or a draft.',
    load: async () => (await import('./declare.ts')).addDeclare,
  },
  {
    name: 'types',
    group: 'App file',
    summary: 'Write the pages of an app as a TypeScript module for front-end code.',
    load: async () => (await import('./types.ts')).addTypes,
  },
  {
    name: 'read',
    group: 'Addresses',
    summary: 'Show how an address is read: its page, and the origin and problems of each value.',
    load: async () => (await import('./read.ts')).addRead,
  },
  {
    name: 'write',
    alias: 'link',
    group: 'Addresses',
    summary: 'Write the address of a page with values for its parameters.',
    load: async () => (await import('./write.ts')).addWrite,
  },
  {
    name: 'short',
    group: 'Addresses',
    summary: 'List, create or withdraw an app’s short addresses.',
    load: async () => (await import('./short.ts')).addShort,
  },
  {
    name: 'push',
    group: 'Service',
    summary: 'Replace the draft in the service with an app file. Creates the app if it is new.',
    load: async () => (await import('./push.ts')).addPush,
  },
  {
    name: 'pull',
    group: 'Service',
    summary: 'Write the app file of a draft or of an edition.',
    load: async () => (await import('./pull.ts')).addPull,
  },
  {
    name: 'audit',
    group: 'Addresses',
    summary: 'Find the addresses of an app in files, and show which of them work.',
    load: async () => (await import('./audit.ts')).addAudit,
  },
  {
    name: 'printed',
    group: 'Addresses',
    summary: 'Record which addresses are printed, and on what: publishing cannot change what they mean.',
    load: async () => (await import('./printed.ts')).addPrinted,
  },
  {
    name: 'rehearse',
    group: 'Service',
    summary: 'Show which addresses of earlier editions would change their meaning if you published the draft, and repair them.',
    load: async () => (await import('./rehearse.ts')).addRehearse,
  },
  {
    name: 'publish',
    group: 'Service',
    summary:
      'Publish the draft as a new edition. Fails and lists the problems if the draft has errors, or changes what earlier addresses mean.',
    load: async () => (await import('./publish.ts')).addPublish,
  },
  {
    name: 'editions',
    group: 'Service',
    summary: 'List the editions of an app, or restore an earlier one as the draft.',
    load: async () => (await import('./editions.ts')).addEditions,
  },
  {
    name: 'apps',
    group: 'Service',
    summary: 'List the apps, or remove one.',
    load: async () => (await import('./apps.ts')).addApps,
  },
  {
    name: 'tokens',
    group: 'Service',
    summary: 'List, create, renew or revoke tokens for programs that call the HTTP interface.',
    load: async () => (await import('./tokens.ts')).addTokens,
  },
  {
    name: 'webhooks',
    group: 'Service',
    summary: 'List, create or remove the webhooks of an app, and show their deliveries.',
    load: async () => (await import('./webhooks.ts')).addWebhooks,
  },
  {
    name: 'access',
    group: 'Service',
    summary: 'End all console sessions or replace the owner’s token, for example after a machine is lost.',
    load: async () => (await import('./access.ts')).addAccess,
  },
  {
    name: 'keys',
    group: 'Service',
    summary: 'List, create or forget the keys that seal values in addresses.',
    load: async () => (await import('./keys.ts')).addKeys,
  },
  {
    name: 'backup',
    group: 'Service',
    summary: 'Copy everything that the service keeps into a new directory.',
    load: async () => (await import('./backup.ts')).addBackup,
  },
  {
    name: 'restore',
    group: 'Service',
    summary: 'Put a backup in the place of the data directory.',
    load: async () => (await import('./backup.ts')).addRestore,
  },
  {
    name: 'doctor',
    group: 'Service',
    summary: 'Check everything that the service needs, and suggest fixes.',
    load: async () => (await import('./doctor.ts')).addDoctor,
  },
  {
    name: 'records',
    group: 'What people leave',
    summary: 'List, show, save, remove, import or export the records of a collection.',
    load: async () => (await import('./records.ts')).addRecords,
  },
  {
    name: 'people',
    group: 'What people leave',
    summary: 'List the people who can sign in to an app; add a person or set a new password; remove a person.',
    load: async () => (await import('./people.ts')).addPeople,
  },
  {
    name: 'outbox',
    group: 'What people leave',
    summary: 'List the newest mails or read one; send failed mails again.',
    load: async () => (await import('./outbox.ts')).addOutbox,
  },
  {
    name: 'visits',
    alias: 'arrivals',
    group: 'What people leave',
    summary: 'Count visits to an app, and forms sent, by the values that visits began with, such as a campaign.',
    load: async () => (await import('./visits.ts')).addVisits,
  },
  {
    name: 'completion',
    group: 'Shell',
    summary: 'Print a script that completes commands and options in bash, zsh or fish.',
    load: async () => (await import('./completion.ts')).addCompletion,
  },
  {
    name: 'manual',
    group: 'Shell',
    summary: 'Print the manual page of the command, as man shows it.',
    load: async () => (await import('./manual.ts')).addManual,
  },
];

/** The whole command, every part of it loaded. @param program to which they are added */
export async function loadAll(program: Command): Promise<void> {
  for (const listed of listedCommands) await addTo(program, listed);
}

/** Loads one command and adds it. */
export async function addTo(program: Command, { name, alias, group, summary, load }: ListedCommand): Promise<void> {
  (await load())(program);
  const command = program.commands.find((added) => added.name() === name);
  command?.description(summary).helpGroup(`${group}:`);
  if (alias !== undefined) command?.alias(alias);
}
