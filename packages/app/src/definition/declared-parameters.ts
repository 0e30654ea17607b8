import type { ParameterDeclaration } from '@pallmist/address/declare';
import type { AppDefinition } from './app-definition.ts';

/** A parameter with the place of its declaration in the app file. */
export interface DeclaredParameter {
  place: string[];
  name: string;
  /** Its page; undefined for a parameter of the app. */
  page: string | undefined;
  declaration: ParameterDeclaration;
}

/** Every parameter that an app declares: those of the app, then those of each page. */
export function declaredParameters({
  pages = {},
  parameters = {},
}: Partial<Pick<AppDefinition, 'pages' | 'parameters'>>): DeclaredParameter[] {
  const listed = (at: string[], page: string | undefined, of: Record<string, ParameterDeclaration>) =>
    Object.entries(of).map(([name, declaration]) => ({ place: [...at, 'parameters', name], name, page, declaration }));
  return [
    ...listed([], undefined, parameters),
    ...Object.entries(pages).flatMap(([page, { parameters: of = {} }]) => listed(['pages', page], page, of)),
  ];
}
