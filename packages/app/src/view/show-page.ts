import { writeAddress } from '@pallmist/address/pages';
import type { ComponentDefinition } from '../definition/content-schema.ts';
import { signInAddress } from '../gate/way-back.ts';
import { siteLink } from './components/site-link.ts';
import { details } from './components/details.ts';
import { dialog } from './components/dialog.ts';
import { checkboxes, input, radio, search, select, toggle } from './components/filters.ts';
import { list } from './components/list.ts';
import { pager } from './components/pager.ts';
import { back, heading, image, language, link, navigation, notice, share, text } from './components/plain.ts';
import { table } from './components/table.ts';
import { tabs } from './components/tabs.ts';
import type { PageMaterial } from './material.ts';
import type { Node, ShownPage } from './nodes.ts';
import { Shower } from './shower.ts';
import type { ShowTools } from './tools.ts';

/**
 * Settles what a page shows. Pure: the service and the browser call it with the same material and get the same page.
 */
export function showPage(material: PageMaterial, tools: ShowTools): ShownPage {
  const shower = new Shower(material, tools);
  const { app, reading, person } = material;
  const address = writeAddress(shower.app, material.name, shower.values, { afterArrival: true }).address ?? '';
  const content = showContent(material.page.content, shower);
  return {
    title: shower.text(material.page.title),
    appTitle: app.title,
    home: app.mount === '/' ? '/' : app.mount,
    navigation: app.navigation ? navigation({ links: app.navigation, label: 'Main' }, shower) : undefined,
    notices: reading.problems.filter((problem) => problem.severity === 'warning').map((problem) => problem.message),
    content,
    forms: [...shower.forms],
    arrival: (material.arrival ?? []).flatMap((index) => {
      const notice = material.page.arrival?.[index]?.notice;
      return notice === undefined ? [] : [shower.text(notice)];
    }),
    language: shower.language,
    ...(person ? { person: { name: person.name, signOut: `${shower.app.mount}/~sign-out`, ...accountOf(shower) } } : {}),
    ...(app.signIn && !person && material.name !== app.signIn.page
      ? { signInHref: signInAddress(shower.app, app.signIn.page, address, 'sign-in-needed', shower.values) }
      : {}),
    address,
    draft: material.draft,
  };
}

/** The page where one sees as whom one is signed in, and signs out everywhere. */
function accountOf(shower: Shower): { account?: string } {
  const { signIn } = shower.material.app;
  const account = signIn && writeAddress(shower.app, signIn.page, {}, { present: shower.values }).address;
  return account === undefined ? {} : { account };
}

/** Settles what a page's components show; those whose condition does not hold are left out. */
export function showContent(content: readonly ComponentDefinition[], shower: Shower): Node[] {
  const showAll = (inner: readonly ComponentDefinition[]): Node[] =>
    inner
      .filter((component) => shower.evaluator.holds(component.when))
      .map((component) => showOne(component, shower, showAll))
      .filter((node) => node !== undefined);
  return showAll(content);
}

function showOne(
  component: ComponentDefinition,
  shower: Shower,
  showAll: (content: readonly ComponentDefinition[]) => Node[],
): Node | undefined {
  switch (component.show) {
    case 'image':
      return image(component, shower);
    case 'site-link':
      return siteLink(component, shower);
    case 'back':
      return back(component, shower);
    case 'share':
      return share(component, shower);
    case 'language':
      return language(component, shower);
    case 'radio':
      return radio(component, shower);
    case 'dialog':
      return dialog(component, shower, showAll);
    case 'views': {
      const open = shower.values[component.bind];
      return { show: 'views', content: typeof open === 'string' ? showAll(component.panes[open] ?? []) : [] };
    }
    case 'form':
      return shower.formParts?.form(component, shower);
    case 'ask':
      return shower.formParts?.ask(component, shower);
    case 'heading':
      return heading(component, shower);
    case 'text':
      return text(component, shower);
    case 'notice':
      return notice(component, shower);
    case 'link':
      return link(component, shower);
    case 'navigation':
      return navigation(component, shower);
    case 'search':
      return search(component, shower);
    case 'select':
      return select(component, shower);
    case 'checkboxes':
      return checkboxes(component, shower);
    case 'toggle':
      return toggle(component, shower);
    case 'input':
      return input(component, shower);
    case 'panel':
      return { show: 'panel', label: shower.text(component.label), content: showAll(component.content) };
    case 'tabs':
      return tabs(component, shower, showAll);
    case 'table':
      return table(component, shower);
    case 'list':
      return list(component, shower);
    case 'pager':
      return pager(component, shower);
    case 'details':
      return details(component, shower);
    case 'sign-up':
      return shower.formParts?.signUp(component, shower);
    case 'sign-in':
      return shower.formParts?.signIn(component, shower);
  }
}
