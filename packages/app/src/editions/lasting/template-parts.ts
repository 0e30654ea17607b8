import { parseTemplate, type AddressTemplate } from '@pallmist/address/declare';

/** Templates that are kept parsed. */
const most = 10_000;
const parsed = new Map<string, AddressTemplate>();

/** The parts of an address template, kept: the same templates are looked at for each edition. */
export function partsOf(address: string): AddressTemplate {
  let template = parsed.get(address);
  if (template === undefined) {
    if (parsed.size >= most) parsed.clear();
    ({ template } = parseTemplate(address));
    parsed.set(address, template);
  }
  return template;
}
