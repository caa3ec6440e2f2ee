// The layer table of docs/architecture.md: arrows point down. A broken rule fails `npm test`.
const layer = (name, from, allowed) => ({
  name: `${name}-imports-only-what-is-below`,
  severity: 'error',
  from: { path: from },
  to: { path: '^src/', pathNot: allowed },
})

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    layer('core', '^src/core/', '^src/core/'),
    layer('db', '^src/db/', '^src/(core|db)/'),
    layer('services', '^src/services/', '^src/(core|db|services)/'),
    layer('ui', '^src/ui/', '^src/(core|ui)/'),
    layer('workers', '^src/workers/', '^src/core/'),
    layer('demo', '^src/demo/', '^src/(core|services|demo)/'),
    layer('app', '^src/(app/|instrumentation|proxy)', '^src/(core|services|ui|app)/'),
    layer('scripts', '^scripts/', '^src/(core|db|services|demo)/'),
    {
      name: 'core-stays-pure',
      severity: 'error',
      from: { path: '^src/core/' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-has-no-interface-or-database',
      severity: 'error',
      from: { path: '^src/core/' },
      to: { path: 'node_modules/(react|next|@mui|sequelize|sqlite3|server-only)' },
    },
    {
      name: 'ui-never-reaches-the-database',
      severity: 'error',
      from: { path: '^src/(ui|app)/' },
      to: { path: 'node_modules/(sequelize|sqlite3)' },
    },
    { name: 'only-what-exists', severity: 'error', from: {}, to: { couldNotResolve: true } },
    {
      name: 'no-development-packages-in-the-product',
      severity: 'error',
      from: { path: '^src/' },
      to: { dependencyTypes: ['npm-dev'], dependencyTypesNot: ['type-only'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['react-server', 'import', 'node', 'default', 'types'],
    },
  },
}
