import { compileApp as compile, parameterTypes, type CompileOptions, type DeclaredTypes } from '@pallmist/address/declare';
import { packedType } from './types/packed.ts';

/** Every type of parameters, `packed` too, which brings other packages along. */
export const allParameterTypes = { ...parameterTypes, packed: packedType } satisfies DeclaredTypes;

/** As `compileApp` of the address library, with every type of parameters at hand. */
export const compileApp = (definition: Parameters<typeof compile>[0], options: CompileOptions = {}): ReturnType<typeof compile> =>
  compile(definition, { types: allParameterTypes, ...options });
