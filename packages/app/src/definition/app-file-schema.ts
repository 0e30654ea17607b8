import { z } from 'zod';
import { schemaOf } from '../components/component-kind.ts';
import { componentKinds } from '../components/kinds.ts';
import type { AppDefinition, Component } from './app-definition.ts';
import { appWithAnyComponents, page } from './app-schema.ts';
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
