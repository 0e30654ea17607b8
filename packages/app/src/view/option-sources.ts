import { type OptionSource, optionsName } from '../components/shared/options.ts';
import { formOf, walkContent } from '../components/walk-content.ts';
import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { fieldName } from '../records/plan-save.ts';

interface Referring {
  type: string;
  of?: string | undefined;
  by?: string | undefined;
  items?: Referring | undefined;
}

/** The collections that a page lets people choose from: by its inputs, and by the fields of its forms. */
export function optionSources(app: Pick<AppDefinition, 'collections' | 'parameters' | 'pages'>, page: PageDefinition): OptionSource[] {
  const sources = new Map<string, OptionSource>();
  const add = (referring: Referring | undefined) => {
    const { type, of, by } = referring?.items ?? referring ?? {};
    if (type !== 'record' || of === undefined) return;
    const source = { from: of, ...(by === undefined ? {} : { by }) };
    sources.set(optionsName(source), source);
  };
  for (const { component, references } of walkContent(page.content)) {
    for (const name of references.chosen) add(page.parameters?.[name] ?? app.parameters?.[name]);
    for (const way of references.ways) for (const name of way.boxes) add(app.pages[way.page]?.parameters?.[name]);
    const form = formOf(component, page, app);
    const fields = app.collections?.[form?.collection ?? '']?.fields ?? {};
    for (const field of form?.fields ?? []) add(fields[fieldName(field)]);
  }
  return [...sources.values()];
}
