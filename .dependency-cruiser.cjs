// Who may use whom, as the design has it: everything may use core, and core uses nobody.
const allowed = {
  core: [],
  browser: ['core'],
  api: ['core'],
  pages: ['core', 'browser'],
  console: ['core', 'api', 'browser', 'pages'],
  service: ['core', 'api', 'pages'],
  cli: ['core', 'api', 'service'],
};
const names = Object.keys(allowed);
const packageRules = Object.entries(allowed).map(([name, uses]) => ({
  name: `${name}-uses-only-${uses.join('-') || 'itself'}`,
  severity: 'error',
  from: { path: `^packages/${name}/src` },
  to: {
    path: `^(packages|node_modules/@pallmist)/(${names.filter((other) => other !== name && !uses.includes(other)).join('|') || 'none'})/`,
  },
}));

module.exports = {
  forbidden: [
    ...packageRules,
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    {
      name: 'what-browsers-ship-has-no-dependency',
      comment: 'The address part of core and the browser library are shipped by front-end developers as they are.',
      severity: 'error',
      from: { path: '^packages/(core/src/(address|parameters)|browser/src)', pathNot: 'parameters/types/packed\\.ts$' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'], pathNot: '^(packages|node_modules/@pallmist)/core/' },
    },
    {
      name: 'packed-is-brought-along-by-who-wants-it',
      severity: 'error',
      from: { path: '^packages/(core/src/(address|parameters)|browser/src)' },
      to: { path: 'parameters/types/packed\\.ts$' },
    },
    {
      name: 'core-needs-no-platform',
      severity: 'error',
      from: { path: '^packages/core/src' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'only-the-service-side-uses-node',
      severity: 'error',
      from: { path: '^packages/(browser|pages|console|api)/src' },
      to: { dependencyTypes: ['core'] },
    },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\.css$' } },
  ],
  options: {
    includeOnly: '^packages/|^node_modules',
    exclude: '/(dist|test)/|vite\\.config',
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['source', 'types', 'import', 'default', 'svelte'],
      extensions: ['.ts', '.js', '.svelte', '.css'],
    },
  },
};
