import { formatTemplate, parseTemplate, type AddressTemplate } from '@pallmist/address/declare';
import { equal } from '../editing/compare-data.ts';

/**
 * The address template of a page as an app file has it, from the one that code declares: without the mount and the app’s
 * own parameters, and with those that are sealed, of which code knows nothing.
 * @param address as code declares it, with the mount
 * @param present as the app file has it; kept where it means the same
 * @param sealed names of the page’s sealed parameters
 * @param own names of all the page’s parameters
 */
export function addressFromCode(
  address: string,
  { mount, present, sealed, own }: { mount: string; present: string | undefined; sealed: readonly string[]; own: readonly string[] },
): string {
  const below = mount !== '/' && (address + '/').replace('{', '/{').startsWith(mount + '/') ? address.slice(mount.length) : address;
  const { template } = parseTemplate(below.startsWith('/') || below.startsWith('{/') ? below : `/${below}`);
  const query = template.query.filter((name) => own.includes(name));
  const was = present === undefined ? undefined : parseTemplate(present).template;
  if (was !== undefined && present !== undefined && sameTemplate({ ...template, query }, was, sealed)) return present;
  return formatTemplate({ ...template, query: [...query, ...(was?.query.filter((name) => sealed.includes(name)) ?? [])] });
}

function sameTemplate(next: AddressTemplate, was: AddressTemplate, sealed: readonly string[]): boolean {
  const open = was.query.filter((name) => !sealed.includes(name));
  return (
    equal(next.segments, was.segments) &&
    equal(next.query, open) &&
    open.every((name) => next.repeated.has(name) === was.repeated.has(name))
  );
}
