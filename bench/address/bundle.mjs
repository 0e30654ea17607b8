// Bundles and minifies code with the library, as an application ships it.
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { build } from 'vite';

const here = fileURLToPath(new URL('.', import.meta.url));
/** Where the code stands while it is bundled: nowhere on the disk. */
const entry = `${here}entry.ts`;
const packages = fileURLToPath(new URL('../../packages/', import.meta.url));

/**
 * @param code an ES module, which may import from this folder and from the libraries
 * @param minify whether names are shortened and blanks left out
 * @returns the text of one ES module
 */
export async function bundle(code, minify = true) {
  const result = await build({
    root: here,
    configFile: false,
    logLevel: 'silent',
    resolve: {
      alias: [
        { find: /^@pallmist\/(address|browser)$/, replacement: `${packages}$1/src/index.ts` },
        { find: '@pallmist/address/live', replacement: `${packages}address/src/live.ts` },
      ],
    },
    plugins: [
      {
        name: 'entry',
        enforce: 'pre',
        resolveId: (id) => (id === entry ? id : undefined),
        load: (id) => (id === entry ? code : undefined),
      },
    ],
    build: { write: false, target: 'es2023', minify, rolldownOptions: { output: { minify } }, lib: { entry, formats: ['es'] } },
  });
  return result[0].output[0].code;
}

/** Bytes of a text once it is compressed, as a server sends it. */
export const gzipped = (text) => gzipSync(text, { level: 9 }).length;

/** Code that reads and writes the addresses of one of the pages here, and nothing else. */
export const using = (file, name) =>
  `import { read, write } from '@pallmist/address'; import { ${name} } from './${file}.ts';
   export const readPage = (address: string) => read(${name}, address).values; export const writePage = (values: any) => write(${name}, values);`;
