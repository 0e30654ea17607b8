import {
  allParameterTypes,
  appPartFor,
  evaluateCel,
  programsFor,
  readAddress,
  showPage,
  shows,
  type AnyNode,
  type AppDefinition,
  type ComponentName,
  type NodeOf,
  type CompiledApp,
  type PagePayload,
  type ShownPage,
} from '../src/index.ts';

/** Shows the page at an address, as the service does once its data are loaded. */
export function showAt(definition: AppDefinition, compiled: CompiledApp, address: string, more: Partial<PagePayload> = {}): ShownPage {
  const reading = readAddress(compiled, address);
  const name = reading.page ?? '';
  const page = definition.pages[name];
  if (!page) throw new Error(`There is no page at ${address}.`);
  const { programs, cel } = programsFor(definition, page);
  const payload: PagePayload = {
    app: appPartFor(definition, name),
    name,
    page,
    reading,
    data: { records: {}, rows: {}, options: {} },
    programs,
    cel,
    packed: false,
    today: '2026-11-23',
    visit: {},
    draft: false,
    ...more,
  };
  // The engine is there only where the payload says that it is needed, as in a browser.
  const engine = cel ? evaluateCel : () => undefined;
  return showPage(payload, { cel: engine, types: allParameterTypes, shows });
}

/** What the components of one kind show. */
export const nodesOf = <Name extends ComponentName>(content: readonly AnyNode[], kind: Name): NodeOf<Name>[] =>
  content.filter(({ show }) => show === kind) as unknown as NodeOf<Name>[];
