import { formatTemplate, parseTemplate, type ParameterDeclaration } from '@pallmist/address/declare';
import type { PageDefinition } from '../definition/app-definition.ts';
import type { LinkDefinition } from '../definition/app-definition.ts';
import type { AppPart } from './page-payload.ts';

/** A page as an app part has it: what reading and writing its addresses takes. */
type LinkedPage = AppPart['pages'][string];

/**
 * A page to which only these links lead, such as one of the navigation, without the parameters that they never write: so no
 * page carries the declarations, choices and types of all that stands in its header and footer.
 */
export function linkedBy(links: readonly LinkDefinition[], { address, parameters = {} }: PageDefinition): LinkedPage {
  if (links.some(({ keep }) => keep === true)) return { address, parameters };
  const given = new Set(links.flatMap(({ values, keep }) => [...Object.keys(values ?? {}), ...(Array.isArray(keep) ? keep : [])]));
  const { template } = parseTemplate(address);
  const query = template.query.filter((name) => given.has(name) || isWritten(parameters[name]));
  const left = new Set([...query, ...template.segments.flatMap((segment) => ('parameter' in segment ? [segment.parameter] : []))]);
  return {
    address: formatTemplate({ ...template, query }),
    parameters: Object.fromEntries(
      Object.entries(parameters)
        .filter(([name]) => left.has(name))
        .map(([name, one]) => [name, alone(one, left)]),
    ),
  };
}

/** Whether a link may write it that gives it no value, or needs it. */
const isWritten = (declaration: ParameterDeclaration | undefined): boolean =>
  declaration !== undefined && (declaration.required === true || declaration.inNewLinks !== undefined || declaration.reach !== undefined);

/** A declaration without what it says of parameters that are not there. */
const alone = ({ resets, tied: _, ...declaration }: ParameterDeclaration, names: ReadonlySet<string>): ParameterDeclaration => ({
  ...declaration,
  ...(resets === undefined ? {} : { resets: resets.filter((name) => names.has(name)) }),
});
