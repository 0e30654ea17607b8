import { writeAddress } from '@pallmist/address/pages';
import { show as navigation } from '../components/navigation/show.ts';
import { signInAddress } from '../gate/way-back.ts';
import type { PagePayload } from './page-payload.ts';
import { firstPageOf } from './first-page.ts';
import { PageView } from './page-view.ts';
import type { ShownPage } from './shown-page.ts';
import { withTextsInWords } from './words.ts';
import type { ShowTools } from './tools.ts';

/**
 * Settles what a page shows. Pure: the service and the browser call it with the same payload and get the same page.
 */
export function showPage(payload: PagePayload, tools: ShowTools): ShownPage {
  const view = new PageView(payload, tools);
  const { app, reading, person } = payload;
  const address = writeAddress(view.app, payload.name, view.values, { afterArrival: true }).address ?? '';
  const content = view.showAll(payload.page.content);
  return {
    title: view.text(payload.page.title),
    appTitle: view.text(app.title),
    say: view.say,
    home: homeOf(view),
    navigation: app.navigation ? navigation({ show: 'navigation', links: app.navigation, label: view.say('Main') }, view) : undefined,
    notices: reading.problems
      .filter((problem) => problem.severity === 'warning')
      .map(({ message, parameter = '' }) => withTextsInWords(message, view.declaration(parameter), (text) => view.text(text))),
    content,
    forms: [...view.forms],
    arrival: (payload.arrival ?? []).flatMap((index) => {
      const notice = payload.page.arrival?.[index]?.notice;
      return notice === undefined ? [] : [view.text(notice)];
    }),
    language: view.language,
    languages: () => languagesOf(view),
    ...(person ? { person: { name: person.name, signOut: `${view.app.mount}/~sign-out`, ...accountOf(view) } } : {}),
    ...(app.signIn && !person && payload.name !== app.signIn.page
      ? { signInHref: signInAddress(view.app, app.signIn.page, address, undefined, view.values) }
      : {}),
    address,
    ...(app.look === undefined ? {} : { look: app.look }),
    ...(app.logo === undefined ? {} : { logo: app.logo }),
    ...(payload.page.description === undefined ? {} : { description: view.text(payload.page.description) }),
    ...(payload.page.robots === undefined ? {} : { robots: payload.page.robots.join(', ') }),
    ...(app.footer === undefined ? {} : { footer: footerOf(app.footer, view) }),
    draft: payload.draft,
  };
}

/** The page that shows who is signed in, and signs out everywhere. */
function accountOf(view: PageView): { account?: string } {
  const { signIn } = view.payload.app;
  const account = signIn && writeAddress(view.app, signIn.page, {}, { present: view.values }).address;
  return account === undefined ? {} : { account };
}

/** The app's first page, in the present language. */
function homeOf(view: PageView): string {
  const { mount, pages, language } = view.payload.app;
  const page = language === undefined ? undefined : firstPageOf(pages);
  return (page === undefined ? undefined : writeAddress(view.app, page, {}, { present: view.values }).address) ?? mount;
}

function languagesOf(view: PageView): { tag: string; href: string }[] {
  const { app, name } = view.payload;
  const tags = Object.keys(app.choices?.[app.parameters?.[app.language ?? '']?.of ?? ''] ?? {});
  return tags.flatMap((tag) => {
    const href = writeAddress(view.app, name, { ...view.values, [app.language ?? '']: tag }, { afterArrival: true }).address;
    return href === undefined ? [] : [{ tag, href }];
  });
}

const footerOf = ({ text, links = [] }: NonNullable<PagePayload['app']['footer']>, view: PageView): NonNullable<ShownPage['footer']> => ({
  text: view.text(text),
  links: links.map((entry) => view.anchor(view.text(entry.text), entry.to)),
});
