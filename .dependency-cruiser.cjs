// Allowed imports, as the design has them: the address library imports no other package.
const allowed = {
  address: [],
  app: ['address'],
  browser: ['address'],
  api: ['address'],
  pages: ['app', 'browser'],
  console: ['app', 'api', 'browser', 'pages'],
  service: ['app', 'api', 'pages'],
  cli: ['app', 'api', 'service'],
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
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'what-front-ends-ship-has-no-dependency',
      comment: 'The address library and the browser library are shipped by front-end developers as they are.',
      severity: 'error',
      from: { path: '^packages/(address|browser)/src', pathNot: '^packages/browser/src/svelte/' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'npm-peer', 'core'], pathNot: '^(packages|node_modules/@pallmist)/address/' },
    },
    {
      name: 'the-binding-for-svelte-uses-svelte-alone',
      severity: 'error',
      from: { path: '^packages/browser/src/svelte/' },
      to: { path: '^node_modules/', pathNot: '^node_modules/(@pallmist/address|svelte)/' },
    },
    {
      name: 'address-and-app-need-no-platform',
      severity: 'error',
      from: { path: '^packages/(address|app)/src' },
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
