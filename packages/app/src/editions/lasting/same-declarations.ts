import type { ParameterDeclaration } from '@pallmist/address/declare';
import type { PageVersion } from './page-version.ts';
import { partsOf } from './template-parts.ts';

/**
 * Parameters that two versions of a page declare alike, with all that the declarations refer to: their values are read
 * alike, whatever else differs.
 */
export function sameDeclarations(then: PageVersion, today: PageVersion): Set<string> {
  const [was, is] = [declarations(then), declarations(today)];
  // A sealed value is bound to the name of its page.
  const bound = then.page === today.page;
  return new Set(Object.keys(was).filter((name) => was[name] === is[name] && (bound || !(was[name] ?? '').includes('"sealed"'))));
}

/** Each declaration as a text, with what it refers to. */
function declarations({ app, page }: PageVersion): Record<string, string> {
  const { repeated } = partsOf(app.pages[page]?.address ?? '');
  const inPath = new Set((app.pages[page]?.address ?? '').match(/\{\/?[^{}?]+\}/g)?.map((part) => part.replaceAll(/[{}/]/g, '')));
  const all = { ...app.parameters, ...app.pages[page]?.parameters };
  return Object.fromEntries(
    Object.entries(all).map(([name, declaration]) => [
      name,
      JSON.stringify([declaration, repeated.has(name), inPath.has(name), ...referred(app, declaration)]),
    ]),
  );
}

const referred = ({ choices = {}, collections = {} }: PageVersion['app'], { of = '', items }: ParameterDeclaration) =>
  [of, items?.of ?? ''].map((name) => [choices[name], collections[name]]);
