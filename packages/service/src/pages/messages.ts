import {
  own,
  allParameterTypes,
  appPartFor,
  appTexts,
  decodeForShow,
  evaluateCel,
  languageOf,
  nearest,
  quote,
  readAddress,
  Refusal,
  inEnglish,
  longestAddress,
  sayIn,
  showPage,
  pageTitle,
  valueFrom,
  withTextsInWords,
  writeAddress,
  type AppPart,
  type PagePayload,
  type ParameterReading,
  type Phrase,
  type Reading,
  type Say,
  type ShownPage,
  type Values,
} from '@pallmist/app';
import { messagePhrases, type MessagePhrase } from '@pallmist/app/message-phrases';
import { phrases } from '@pallmist/app/phrases';
import type { MessagePage } from '@pallmist/pages/server';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { MissingRecord } from './load-data.ts';

/** A message and the HTTP status that goes with it. */
export interface StatusMessage {
  status: number;
  message: MessagePage;
}

/** A sentence that is in the language of its reader already, or that is the app’s own. */
export interface Said {
  said: string;
}

/** What stands on a message: one of Pallmist’s own phrases, which is translated, or a sentence that is ready. */
export type Sentence = Phrase | MessagePhrase | Said;

/** What to say for an address that cannot be shown. */
export function readingMessage(hosted: HostedApp, reading: Reading, address: string): StatusMessage {
  const values = reading.page === undefined ? valuesAnywhere(hosted, address) : reading.values;
  const say = sayFor(hosted, values);
  const inWords = appTexts(hosted.definition, values);
  const declared = { ...hosted.definition.parameters, ...own(hosted.definition.pages, reading.page ?? '')?.parameters };
  const sentences = reading.problems
    .filter(({ severity }) => severity === 'error')
    // A damaged value is not missing: the page shows the other problem of the parameter.
    .map((problem) =>
      problem.code === 'missing'
        ? (reading.problems.find(({ code, parameter }) => parameter === problem.parameter && code !== 'missing') ?? problem)
        : problem,
    )
    .flatMap(({ message: raw, hint, parameter = '' }) => {
      const said = { said: withTextsInWords(raw, own(declared, parameter), inWords) };
      return hint === undefined ? [said] : [said, { said: hint }];
    });
  switch (reading.status) {
    case 'gone':
      return goneMessage(hosted, reading, inWords, values);
    case 'unknown-page':
      return message(
        hosted,
        404,
        'There is no such page',
        [{ said: say('There is no page at {0}.', quote(pathOf(address), 80)) }, 'Perhaps it is mistyped, or the page is gone.'],
        values,
      );
    case 'malformed':
      return reading.problems.some(({ code }) => code === 'address-too-long')
        ? message(
            hosted,
            414,
            'This is not a valid address',
            [{ said: say('The address is longer than {0} characters.', longestAddress) }],
            values,
          )
        : message(hosted, 400, 'This is not a valid address', ['The address is not valid.'], values);
    default: {
      const gone = reading.parameters.find(({ problem }) => problem?.code === 'gone-value');
      if (gone !== undefined) return goneValueMessage(hosted, reading, gone, inWords);
      const inPath = reading.parameters.some(({ place, problem }) => place === 'path' && problem !== undefined);
      return message(hosted, inPath ? 404 : 400, inPath ? 'There is no such page' : 'Something is wrong in the address', sentences, values);
    }
  }
}

/** What to say for an address that an earlier edition knew, and that leads nowhere today. */
export const removedMessage = (hosted: HostedApp, address: string): StatusMessage =>
  message(hosted, 410, 'This page was removed', ['Nothing is at this address any more.'], valuesAnywhere(hosted, address));

/** What to say for an address that the app declares as gone, and where to go instead. */
function goneMessage(hosted: HostedApp, { gone = 0 }: Reading, inWords: (text: string) => string, values: Values): StatusMessage {
  const { reason, to } = hosted.definition.gone?.[gone] ?? {};
  const said = message(
    hosted,
    410,
    'This page was removed',
    [reason === undefined ? 'Nothing is at this address any more.' : { said: inWords(reason) }],
    values,
  );
  const target = to === undefined ? undefined : own(hosted.definition.pages, to.page);
  const href =
    to === undefined ? undefined : writeAddress(hosted.compiled, to.page, to.values ?? {}, { present: values, newLink: true }).address;
  if (target !== undefined && href !== undefined && to !== undefined)
    said.message.ways.unshift({ text: inWords(pageTitle(target.title, to.page)), href });
  return said;
}

/** What to say for a value that the app declares as gone, and that its page cannot do without. */
function goneValueMessage(
  hosted: HostedApp,
  { page = '', values }: Reading,
  { name, text = '' }: ParameterReading,
  inWords: (text: string) => string,
): StatusMessage {
  const declaration = own({ ...hosted.definition.parameters, ...own(hosted.definition.pages, page)?.parameters }, name);
  const { reason, instead } = own(declaration?.goneValues, decodeForShow(text)) ?? {};
  const sentence: Sentence = reason === undefined ? 'Nothing is at this address any more.' : { said: inWords(reason) };
  const said = message(hosted, 410, 'This page was removed', [sentence], values);
  const compiled = hosted.compiled.pages.get(page)?.byName.get(name);
  if (instead === undefined || compiled === undefined) return said;
  const value = valueFrom(instead, compiled.plain);
  if (value instanceof Refusal) return said;
  const href = writeAddress(hosted.compiled, page, { ...values, [name]: value }).address;
  const choice = typeof value === 'string' ? own(own(hosted.definition.choices, declaration?.of ?? ''), value) : undefined;
  const label = typeof choice === 'object' ? choice.label : choice;
  if (href !== undefined)
    said.message.ways.unshift({ text: label === undefined ? decodeForShow(compiled.plain.write(value) ?? '') : inWords(label), href });
  return said;
}

/** What to say when a record that the address names is not there. */
export function missingMessage(hosted: HostedApp, page: string, missing: MissingRecord, values: Values): StatusMessage {
  const say = sayFor(hosted, values);
  const declaration = own(own(hosted.definition.pages, page)?.parameters, missing.parameter);
  const label = appTexts(hosted.definition, values)(declaration?.label ?? missing.parameter);
  return message(
    hosted,
    404,
    { said: say('There is no such {0}', languageOf(hosted.definition, values) === 'en' ? label.toLowerCase() : label) },
    [{ said: say('Nothing is kept under {0}. Perhaps it is mistyped, or it has been removed.', quote(missing.key)) }],
    values,
  );
}

/** The service has more to do than it can. */
export function busyMessage(hosted: HostedApp | undefined): StatusMessage {
  return message(hosted, 503, 'Too many at once', ['So many people are here that we cannot keep up. Please try again in a moment.']);
}

export function failureMessage(hosted: HostedApp | undefined): StatusMessage {
  return message(hosted, 500, 'Something went wrong', ['An error occurred on our side and was logged. Please try again.']);
}

/** The path of an address, as it stands there. */
const pathOf = (address: string): string => /^[^?#]*/.exec(address)?.[0] ?? '';

/** The values that an address of no page gives to what every page has: its language, say. */
export function valuesAnywhere(hosted: HostedApp, address: string): Values {
  const query = /\?[^#]*/.exec(address)?.[0] ?? '';
  return readAddress(hosted.compiled, (hosted.compiled.mount || '/') + query).values;
}

const allPhrases = { ...phrases, ...messagePhrases };

/** Says Pallmist's own texts in the language of an address of the app. */
export const sayFor = (hosted: HostedApp, values: Values): Say =>
  sayIn(languageOf(hosted.definition, values), hosted.definition.phrases, allPhrases);

/** Says Pallmist's own sentences in the language of an address, and leaves all others as they are. */
export function ownTextsIn(hosted: HostedApp, values: Values): (text: string) => string {
  const say = sayFor(hosted, values);
  return (text) => (Object.hasOwn(allPhrases, text) ? say(text as Phrase) : text);
}

/** The values of an address that says nothing: the defaults. */
const noValues: Values = {};

/** A message of no app, in English: for builders, and for what reaches no app. */
export function plainMessage(status: number, title: string, sentences: string[]): StatusMessage {
  const bare = { say: inEnglish, language: 'en', appTitle: 'Pallmist', home: '/' };
  return { status, message: { ...bare, title, sentences, ways: [], navigation: undefined, draft: false } };
}

/**
 * A message in the look of an app; without an app, plainly.
 * @param values whose language it is in
 */
export function message(
  hosted: HostedApp | undefined,
  status: number,
  title: Sentence,
  sentences: readonly Sentence[],
  values: Values = noValues,
): StatusMessage {
  const say = hosted === undefined ? inEnglish : sayFor(hosted, values);
  const inWords = (sentence: Sentence) => (typeof sentence === 'string' ? say(sentence) : sentence.said);
  if (!hosted) return plainMessage(status, inWords(title), sentences.map(inWords));
  const { definition } = hosted;
  const shown = frameOf(hosted, values);
  return {
    status,
    message: {
      say,
      language: languageOf(definition, values),
      title: inWords(title),
      sentences: sentences.map(inWords),
      ways: [{ text: say('Go to the first page of {0}', shown.appTitle), href: shown.home }],
      appTitle: shown.appTitle,
      home: shown.home,
      navigation: shown.navigation,
      draft: hosted.trial,
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

/** What stands around a page, with no page being the current one. */
function frameOf(hosted: HostedApp, values: Values): Pick<ShownPage, 'navigation' | 'home' | 'appTitle'> {
  const payload: PagePayload = {
    app: barePart(hosted),
    name: '',
    page: { title: '', address: '/', content: [] },
    reading: { status: 'found', values, parameters: [], problems: [], undeclared: [], former: false },
    data: { records: {}, rows: {}, options: {} },
    cel: false,
    packed: false,
    today: '',
    visit: {},
    draft: hosted.trial,
  };
  return showPage(payload, { cel: evaluateCel, types: allParameterTypes, shows: {}, phrases });
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
      say: sayIn('en', undefined, undefined),
      language: 'en',
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
