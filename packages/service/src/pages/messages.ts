import { appPartFor, nearest, parameterTypes, quote, showPage, type AppPart, type PagePayload, type Reading } from '@pallmist/app';
import type { MessagePage } from '@pallmist/pages/server';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { MissingRecord } from './load-data.ts';

/** A message and the HTTP status that goes with it. */
export interface StatusMessage {
  status: number;
  message: MessagePage;
}

/** What to say for an address that cannot be shown. */
export function readingMessage(hosted: HostedApp, reading: Reading): StatusMessage {
  const sentences = reading.problems
    .filter(({ severity }) => severity === 'error')
    .flatMap(({ message, hint }) => (hint === undefined ? [message] : [message, hint]));
  switch (reading.status) {
    case 'unknown-page':
      return message(hosted, 404, 'There is no such page', [
        sentences[0] ?? 'The address leads nowhere.',
        'Perhaps it is mistyped, or the page is gone.',
      ]);
    case 'malformed':
      return message(hosted, reading.problems.some(({ code }) => code === 'address-too-long') ? 414 : 400, 'That is no address', sentences);
    default: {
      const inPath = reading.parameters.some(({ place, problem }) => place === 'path' && problem !== undefined);
      return message(hosted, inPath ? 404 : 400, inPath ? 'There is no such page' : 'Something is wrong in the address', sentences);
    }
  }
}

/** What to say when a record that the address names is not there. */
export function missingMessage(hosted: HostedApp, page: string, missing: MissingRecord): StatusMessage {
  const declaration = hosted.definition.pages[page]?.parameters?.[missing.parameter];
  const label = declaration?.label ?? missing.parameter;
  return message(hosted, 404, `There is no such ${label.toLowerCase()}`, [
    `Nothing is kept under ${quote(missing.key)}. Perhaps it is mistyped, or it has been removed.`,
  ]);
}

/** The service has more to do than it can. */
export function busyMessage(hosted: HostedApp | undefined): StatusMessage {
  return message(hosted, 503, 'Too many at once', ['So many people are here that we cannot keep up. Please try again in a moment.']);
}

export function failureMessage(hosted: HostedApp | undefined): StatusMessage {
  return message(hosted, 500, 'That did not work', ['Something went wrong on our side; it is in the service’s log. Please try again.']);
}

/** A message in the look of an app; without an app, plainly. */
export function message(hosted: HostedApp | undefined, status: number, title: string, sentences: string[]): StatusMessage {
  if (!hosted)
    return { status, message: { title, sentences, ways: [], appTitle: 'Pallmist', home: '/', navigation: undefined, draft: false } };
  const home = hosted.compiled.mount === '' ? '/' : hosted.compiled.mount;
  return {
    status,
    message: {
      title,
      sentences,
      ways: [{ text: `Go to the first page of ${hosted.definition.title}`, href: home }],
      appTitle: hosted.definition.title,
      home,
      navigation: navigationOf(hosted),
      draft: hosted.draft,
    },
  };
}

const bareParts = new WeakMap<HostedApp, AppPart>();

/** What showing the navigation needs; the same for every message. */
function barePart(hosted: HostedApp): AppPart {
  let part = bareParts.get(hosted);
  if (part === undefined) bareParts.set(hosted, (part = appPartFor(hosted.definition, '')));
  return part;
}

/** The app’s navigation, with no page being the current one. */
function navigationOf(hosted: HostedApp): MessagePage['navigation'] {
  const payload: PagePayload = {
    app: barePart(hosted),
    name: '',
    page: { title: '', address: '/', content: [] },
    reading: { status: 'found', values: {}, parameters: [], problems: [], undeclared: [], former: false },
    data: { records: {}, rows: {}, options: {} },
    cel: false,
    packed: false,
    today: '',
    visit: {},
    draft: hosted.draft,
  };
  return showPage(payload, { cel: () => undefined, types: parameterTypes, shows: {} }).navigation;
}

/** Points to an app whose mount is near to a path that belongs to none. */
export function strayMessage(path: string, apps: readonly HostedApp[]): StatusMessage {
  const first = '/' + (path.split('/')[1] ?? '');
  const near = nearest(
    first,
    apps.map(({ compiled }) => compiled.mount),
  );
  const shown = apps.filter(({ compiled }) => near === undefined || compiled.mount === near);
  return {
    status: 404,
    message: {
      title: 'Nothing is here',
      sentences: [`No app is mounted at ${quote(first, 60)}.`],
      ways: shown.slice(0, 10).map(({ definition }) => ({ text: definition.title, href: definition.mount })),
      appTitle: 'Pallmist',
      home: '/',
      navigation: undefined,
      draft: false,
    },
  };
}
