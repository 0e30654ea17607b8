import { writeAddress } from '@pallmist/address/pages';
import { show as navigation } from '../components/navigation/show.ts';
import { signInAddress } from '../gate/way-back.ts';
import type { PageMaterial } from './material.ts';
import { PageView } from './page-view.ts';
import type { ShownPage } from './shown-page.ts';
import type { ShowTools } from './tools.ts';

/**
 * Settles what a page shows. Pure: the service and the browser call it with the same material and get the same page.
 */
export function showPage(material: PageMaterial, tools: ShowTools): ShownPage {
  const view = new PageView(material, tools);
  const { app, reading, person } = material;
  const address = writeAddress(view.app, material.name, view.values, { afterArrival: true }).address ?? '';
  const content = view.showAll(material.page.content);
  return {
    title: view.text(material.page.title),
    appTitle: app.title,
    home: app.mount === '/' ? '/' : app.mount,
    navigation: app.navigation ? navigation({ show: 'navigation', links: app.navigation, label: 'Main' }, view) : undefined,
    notices: reading.problems.filter((problem) => problem.severity === 'warning').map((problem) => problem.message),
    content,
    forms: [...view.forms],
    arrival: (material.arrival ?? []).flatMap((index) => {
      const notice = material.page.arrival?.[index]?.notice;
      return notice === undefined ? [] : [view.text(notice)];
    }),
    language: view.language,
    ...(person ? { person: { name: person.name, signOut: `${view.app.mount}/~sign-out`, ...accountOf(view) } } : {}),
    ...(app.signIn && !person && material.name !== app.signIn.page
      ? { signInHref: signInAddress(view.app, app.signIn.page, address, 'sign-in-needed', view.values) }
      : {}),
    address,
    draft: material.draft,
  };
}

/** The page where one sees as whom one is signed in, and signs out everywhere. */
function accountOf(view: PageView): { account?: string } {
  const { signIn } = view.material.app;
  const account = signIn && writeAddress(view.app, signIn.page, {}, { present: view.values }).address;
  return account === undefined ? {} : { account };
}
