import { formatTemplate } from '@pallmist/address/declare';
import type { CompiledApp, CompiledPage } from '@pallmist/address/pages';
import type { AppDefinition } from '../definition/app-definition.ts';
import { Identifiers } from './identifiers.ts';
import { docComment, literal, propertyName } from './literal.ts';
import { need, parameterCode, type ModuleParts } from './parameter-code.ts';
import { pick } from './pick.ts';

/**
 * Writes the pages of an app as a TypeScript module for `@pallmist/address`: what the app file declares, with its types, and
 * its labels and helps as doc comments. The same app gives the same text.
 * Sealed parameters are left out: only the service can read and write them.
 */
export function frontEndModule(definition: AppDefinition, compiled: CompiledApp): string {
  const identifiers = new Identifiers();
  const lists = new Map<string, string>();
  const parts: ModuleParts = {
    imports: new Map(),
    collections: definition.collections ?? {},
    pages: [...compiled.pages.keys()],
    timeZone: definition.timeZone ?? 'UTC',
    choices(list) {
      const name = lists.get(list) ?? identifiers.make(list, 'Choices');
      lists.set(list, name);
      return name;
    },
  };
  need(parts, 'page');
  const names = new Map([...compiled.pages.keys()].map((name) => [name, identifiers.make(name, 'Page')]));
  const pages = [...compiled.pages.values()].map((page) => pageCode(page, names.get(page.name) ?? '', definition, compiled, parts));
  const choices = [...lists].map(
    ([list, name]) => `const ${name} = ${literal(definition.choices?.[list] ?? {}, '', name.length + 9)} as const;\n`,
  );
  const imports = [...parts.imports]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(
      ([from, needed]) =>
        `import { ${[...needed]
          .sort()
          .map((one) => (one === 'SchemaOf' ? `type ${one}` : one))
          .join(', ')} } from '${from}';\n`,
    );
  return [
    `// Made from the app “${definition.app}” by “pallmist types”. Change the app file, and run the command again.\n`,
    imports.join(''),
    ...(choices.length > 0 ? ['\n', choices.join('')] : []),
    ...pages.map((code) => `\n${code}`),
    `\n/** Every page, by its name in the app file. */\nexport const pages = {\n`,
    ...[...names].map(([name, constant]) => `  ${propertyName(name)}: ${constant},\n`),
    `};\n`,
  ].join('');
}

function pageCode(page: CompiledPage, constant: string, definition: AppDefinition, { mount }: CompiledApp, parts: ModuleParts): string {
  const open = page.parameters.filter(({ sealed }) => !sealed);
  const sealed = page.parameters.filter((parameter) => parameter.sealed).map(({ name }) => name);
  const query = [...page.template.query];
  for (const { name } of page.query) if (!query.includes(name)) query.push(name);
  const path = formatTemplate({ ...page.template, query: query.filter((name) => !sealed.includes(name)) });
  const address =
    mount + path === '' ? '/' : mount !== '' && (path === '/' || path.startsWith('/{?')) ? mount + path.slice(1) : mount + path;
  const { title } = definition.pages[page.name] ?? {};
  const lines = open.map((parameter) => {
    const { name, declaration } = parameter;
    const key = propertyName(name);
    const code = parameterCode(parameter, parts, '  ', key.length + 2);
    return `${docComment([pick(declaration.label), pick(declaration.help)], '  ')}  ${key}: ${code},\n`;
  });
  const comment = docComment([
    pick(title)?.includes('{') === true ? undefined : pick(title),
    sealed.length > 0 ? `Without the sealed ${sealed.join(', ')}, which only the service reads and writes.` : undefined,
  ]);
  const end = lines.length === 0 ? ');\n' : `, {\n${lines.join('')}});\n`;
  return `${comment}export const ${constant} = page(${literal(address)}${end}`;
}
