import { plainText } from '../expressions/template-text.ts';
import { stringify } from 'yaml';
import type { AppDefinition, CollectionDefinition, FieldDefinition } from '../definition/app-definition.ts';
import { freeName, slugOf } from './names.ts';
import type { GuessedField } from './guess-collection.ts';
import { pagesForCollection } from './pages-for-collection.ts';
import { patchData } from './patch-data.ts';

export { commentedApp } from './commented-app.ts';

/** What a new app is called, and where it stands. */
export interface NewApp {
  title: string;
  app: string;
  mount: string;
}

/** A name and a mount that no app has, by the title. */
export function nameNewApp(title: string, taken: readonly { app: string; mount: string }[]): NewApp {
  const slug = slugOf(title, 'app').slice(0, 30);
  const app = freeName(
    slug,
    taken.map((one) => one.app),
    '-',
  );
  return {
    title: title.trim(),
    app,
    mount: freeName(
      `/${slug}`,
      taken.map((one) => one.mount),
      '-',
    ),
  };
}

/** An app with one page that says where to begin. */
export function emptyApp({ title, app, mount }: NewApp): AppDefinition {
  return {
    pallmist: 1,
    app,
    title,
    mount,
    pages: {
      home: {
        title: 'Home',
        address: '/',
        content: [{ show: 'heading', text: plainText(title) }],
      },
    },
  };
}

/** What a file of data becomes: a collection, and the choices lists of its columns. */
export interface NewCollection {
  name: string;
  collection: CollectionDefinition;
  choices: Record<string, Record<string, string>>;
  /** For each choice column: the value of each text in the file. */
  values: Record<string, Record<string, string>>;
}

/** Makes a collection of guessed fields. @param key the key field; automatic number when left out */
export function collectionFrom(
  title: string,
  fields: readonly GuessedField[],
  key: string | undefined,
  titleField: string | undefined,
  taken: Pick<AppDefinition, 'collections' | 'choices'> = {},
): NewCollection {
  const name = freeName(slugOf(title, 'records'), Object.keys(taken.collections ?? {}), '-');
  const used = fields.filter(({ skip }) => skip !== true);
  const choices: NewCollection['choices'] = {};
  const values: NewCollection['values'] = {};
  const declared: Record<string, FieldDefinition> = {};
  const keyField =
    key ??
    freeName(
      'number',
      used.map((field) => field.name),
    );
  if (key === undefined) {
    const letter = name.slice(0, 1).toUpperCase();
    declared[keyField] = {
      type: 'text',
      pattern: `${letter}-[0-9]{4,}`,
      unique: true,
      required: true,
      serial: `${letter}-0000`,
      label: 'Number',
    };
  }
  for (const { name: fieldName, column, field, choices: texts } of used) {
    if (field.type === 'choice' && texts !== undefined) {
      const list = freeName(slugOf(column, fieldName), [...Object.keys(taken.choices ?? {}), ...Object.keys(choices)], '-');
      const names: string[] = [];
      const byText: Record<string, string> = {};
      for (const text of texts) {
        const value = freeName(slugOf(text, 'other'), names, '-');
        names.push(value);
        byText[text] = value;
      }
      choices[list] = Object.fromEntries(texts.map((text) => [byText[text] ?? text, text]));
      values[fieldName] = byText;
      declared[fieldName] = { ...field, of: list };
    } else declared[fieldName] = fieldName === key ? { ...field, type: 'text', unique: true, required: true } : field;
  }
  return { name, collection: { keyField, ...(titleField === undefined ? {} : { titleField }), fields: declared }, choices, values };
}

/**
 * An app made of one collection: a list, a record page, forms to add and to change, linked with each other.
 * @param sample the key of a record to see the pages with while they are built
 */
export function appFromCollection(app: NewApp, { name, collection, choices }: NewCollection, sample?: string): AppDefinition {
  const base: AppDefinition = {
    pallmist: 1,
    app: app.app,
    title: plainText(app.title),
    mount: app.mount,
    ...(Object.keys(choices).length > 0 ? { choices } : {}),
    collections: { [name]: collection },
    pages: {},
  };
  return patchData(base, pagesForCollection(base, name, { listAt: '/', sample }).patch) as AppDefinition;
}

/** A copy of an app under another name. */
export const copyOfApp = (definition: AppDefinition, app: NewApp): AppDefinition => ({ ...definition, ...app });

/** The text of an app file. */
export const appFileText = (definition: AppDefinition): string => stringify(definition, { lineWidth: 120 });
