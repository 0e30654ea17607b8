import { report, type CheckContext, type Place } from './context.ts';

/** Warns of names that differ only by capitals: people take one for the other. For fields it is an error: a database does so too. */
export function checkNames(context: CheckContext): void {
  const { definition } = context;
  const look = (place: Place, names: Iterable<string>, severity: 'error' | 'warning' = 'warning') => {
    const seen = new Map<string, string>();
    for (const name of names) {
      const twin = seen.get(name.toLowerCase());
      if (twin === undefined) seen.set(name.toLowerCase(), name);
      else {
        report(context, [...place, name], {
          code: 'names-differ-by-case',
          severity,
          message: `“${twin}” and “${name}” differ only by capitals.`,
          hint: 'Rename one of them.',
        });
      }
    }
  };
  look(['pages'], Object.keys(definition.pages));
  look(['collections'], Object.keys(definition.collections ?? {}));
  look(['choices'], Object.keys(definition.choices ?? {}));
  for (const [name, page] of Object.entries(definition.pages)) look(['pages', name, 'parameters'], Object.keys(page.parameters ?? {}));
  for (const [name, collection] of Object.entries(definition.collections ?? {}))
    look(['collections', name, 'fields'], Object.keys(collection.fields), 'error');
  for (const [name, list] of Object.entries(definition.choices ?? {})) look(['choices', name], Object.keys(list));
}
