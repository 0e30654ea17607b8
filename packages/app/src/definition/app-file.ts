import { z } from 'zod';
import { schemaOf } from '../components/kind.ts';
import { componentKinds } from '../components/kinds.ts';
import { type AppDefinition, appWithAnyComponents, type Component, page } from './app-schema.ts';
import { withEditorRules } from './editor-schema/editor-rules.ts';
import { name } from './schema-parts.ts';

// A component may hold components, whose schema is known once those of all kinds are.
const inner: z.ZodType<Component> = z.lazy(() => component);
const [first, ...others] = componentKinds.map((kind) => schemaOf(kind, inner));
if (first === undefined) throw new Error('There are no kinds of components.');

/** One component of a page, of one of the kinds. */
const component = z.discriminatedUnion('show', [first, ...others]).meta({ id: 'component' }) as unknown as z.ZodType<Component>;

/** A page of the app file. */
export const pageOfAppFile = page.extend({ content: z.array(component) });

/** The app file, version 1. */
export const appFile: z.ZodType<AppDefinition> = appWithAnyComponents.extend({ pages: z.record(name, pageOfAppFile) });

/** The app file’s JSON Schema (draft 2020-12), for editors. */
export function appFileJsonSchema(): object {
  const schema = z.toJSONSchema(appFile, {
    io: 'input',
    override({ jsonSchema }) {
      // What Pallmist fills in is not for editors to offer.
      for (const [key, property] of Object.entries(jsonSchema.properties ?? {}))
        if (typeof property === 'object' && 'filledIn' in property) delete jsonSchema.properties?.[key];
    },
  });
  const $id = 'https://pallmist.example/~/docs/app-file.schema.json';
  return { $schema: schema.$schema, $id, title: 'Pallmist app file', ...schema, $defs: withEditorRules(schema.$defs ?? {}) };
}
