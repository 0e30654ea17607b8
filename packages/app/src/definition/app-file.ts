import { z } from 'zod';
import { appFile } from './app-file-schema.ts';
import { withEditorRules } from './editor-schema/editor-rules.ts';

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
