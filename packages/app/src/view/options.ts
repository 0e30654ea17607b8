import type { AppDefinition, PageDefinition } from '../definition/app-schema.ts';
import type { ComponentDefinition } from '../definition/content-schema.ts';
import { fieldName } from '../records/plan-save.ts';

/** A collection whose records can be chosen, and the unique field that names them where it is not the key. */
export interface OptionSource {
  from: string;
  by?: string;
}

interface Referring {
  type: string;
  of?: string | undefined;
  by?: string | undefined;
}

/** The name under which a page's data have what there is to choose from. */
export const optionsName = ({ from, by }: OptionSource): string => (by === undefined ? from : `${from}.${by}`);

/** The collections that a component lets people choose from. */
export function optionsFor(
  component: ComponentDefinition,
  app: Pick<AppDefinition, 'collections' | 'parameters'> & { pages?: Record<string, { parameters?: unknown }> },
  page: PageDefinition,
): OptionSource[] {
  const declared = (name: string) => page.parameters?.[name] ?? app.parameters?.[name];
  const sources = (referring: Referring | undefined): OptionSource[] =>
    referring?.type === 'record' && referring.of !== undefined
      ? [{ from: referring.of, ...(referring.by === undefined ? {} : { by: referring.by }) }]
      : [];
  const fields = (collection: string | undefined, names: readonly string[]) =>
    names.flatMap((name) => sources(app.collections?.[collection ?? '']?.fields[name]));
  switch (component.show) {
    case 'select':
    case 'radio':
      return sources(declared(component.bind));
    case 'checkboxes':
      return sources(declared(component.bind)?.items);
    case 'form':
      return fields(component.collection ?? declared(component.bind ?? '')?.of, (component.fields ?? []).map(fieldName));
    case 'table':
      return component.edit ? fields(page.rows?.[component.rows]?.from, component.edit.fields.map(fieldName)) : [];
    case 'ask': {
      const parameters = app.pages?.[component.page]?.parameters as Record<string, Referring> | undefined;
      return component.boxes.flatMap((name) => sources(parameters?.[name]));
    }
    default:
      return [];
  }
}
