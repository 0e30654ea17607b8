import { formField, setValues } from '../components/shared/form-field-schemas.ts';
import * as schemas from './app-schema.ts';
import type { TypeOf } from './schema.ts';
import { schemaFor } from './schema-for.ts';
import { link } from './schema-parts.ts';

export type { Component } from './component.ts';

// eslint-disable-next-line @typescript-eslint/no-unused-vars -- the compiler writes out the types below from this constant
const definitions = {
  app: schemaFor(schemas.appWithAnyComponents),
  block: schemaFor(schemas.block),
  collection: schemaFor(schemas.collection),
  field: schemaFor(schemas.field),
  figure: schemaFor(schemas.figure),
  formField: schemaFor(formField),
  link: schemaFor(link),
  look: schemaFor(schemas.look),
  mail: schemaFor(schemas.mail),
  page: schemaFor(schemas.page),
  read: schemaFor(schemas.read),
  setValues: schemaFor(setValues),
};
type Definitions = typeof definitions;

/** An app, as its file declares it, in today's form. */
export type AppDefinition = TypeOf<Definitions['app']>;
/** Content that pages use by its name. */
export type BlockDefinition = TypeOf<Definitions['block']>;
export type CollectionDefinition = TypeOf<Definitions['collection']>;
export type FieldDefinition = TypeOf<Definitions['field']>;
/** A figure of all records of a list. */
export type FigureDefinition = TypeOf<Definitions['figure']>;
/** A field that a form shows. */
export type FormFieldDefinition = TypeOf<Definitions['formField']>;
/** A destination page with values for its parameters. */
export type LinkDefinition = TypeOf<Definitions['link']>;
export type LookDefinition = TypeOf<Definitions['look']>;
export type MailDefinition = TypeOf<Definitions['mail']>;
export type PageDefinition = TypeOf<Definitions['page']>;
/** The records of a collection that a page shows. */
export type ReadDefinition = TypeOf<Definitions['read']>;
/** Fields that nobody types: settled by the service when the form is sent. */
export type SetValues = TypeOf<Definitions['setValues']>;
