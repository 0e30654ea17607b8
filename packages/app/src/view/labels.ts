import type { Values } from '@pallmist/address/declare';
import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { choiceLabel } from './choice-label.ts';
import type { PageData, RecordData } from './page-payload.ts';

type AppPart = Pick<AppDefinition, 'choices' | 'collections' | 'parameters'>;

/** What people call a record: its title field, or its key. */
export function recordTitle({ collections }: Pick<AppDefinition, 'collections'>, collection: string, record: RecordData): string {
  const { titleField = '', keyField = '' } = collections?.[collection] ?? {};
  const title = record[titleField] ?? record[keyField];
  return typeof title === 'object' || title === undefined ? '' : String(title);
}

/**
 * What people call the value of each choice and record parameter, and the values of each list of them.
 * @param inWords fills in the words of the present language
 */
export function labelsOf(
  app: AppPart,
  page: Pick<PageDefinition, 'parameters'>,
  values: Values,
  data: PageData,
  inWords: (text: string) => string,
): Record<string, string | string[]> {
  const labels: Record<string, string | string[]> = {};
  const ofChoice = (of: string, value: unknown) =>
    typeof value === 'string' ? inWords(choiceLabel(app.choices?.[of]?.[value] ?? value)) : '';
  for (const [name, { type, of = '', items }] of Object.entries({ ...app.parameters, ...page.parameters })) {
    const value = values[name];
    const record = data.records[name];
    if (type === 'choice' && typeof value === 'string') labels[name] = ofChoice(of, value);
    else if (type === 'record' && record !== undefined) labels[name] = recordTitle(app, of, record);
    else if (type === 'list' && items?.type === 'choice' && Array.isArray(value))
      labels[name] = (value as unknown[]).map((item) => ofChoice(items.of ?? '', item));
    else if (type === 'list' && items?.type === 'record' && Array.isArray(value))
      labels[name] = data.titles?.[name] ?? (value as unknown[]).map(String);
  }
  return labels;
}
