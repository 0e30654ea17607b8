import { compileApp as compile, type CompileOptions } from './address/compile.ts';
import type { AddressableApp, CompiledApp } from './address/compiled-app.ts';
import { parameterTypes } from './parameters/types/index.ts';
import { packed } from './parameters/types/packed.ts';
import type { ParameterTypes } from './parameters/codec.ts';
import type { Problem } from './problem.ts';

/** Every type of parameters, `packed` too, which brings other packages along. */
export const allParameterTypes: ParameterTypes = { ...parameterTypes, packed };

/** As `compileApp` of the address part, with every type of parameters at hand. */
export function compileApp(definition: AddressableApp, options: CompileOptions = {}): { app: CompiledApp; problems: Problem[] } {
  return compile(definition, { types: allParameterTypes, ...options });
}
