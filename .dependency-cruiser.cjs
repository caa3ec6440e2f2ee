// The layer table of docs/architecture.md: arrows point down. A broken rule fails `npm test`.
const layer = (name, from, allowed) => ({
  name: `${name}-imports-only-what-is-below`,
  severity: 'error',
  from: { path: from },
  to: { path: '^src/', pathNot: allowed },
})

// What every slice's screens are made of: no slice itself, each file one thing.
const kit = 'feedback|forms|frame|graphics|table|theme'

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
    {
      name: 'another-slice-only-by-its-door',
      severity: 'error',
      from: { path: '^src/(core|db|services)/([^/]+)/' },
      to: {
        path: '^src/(core|db|services)/',
        pathNot: ['^src/$1/$2/', '^src/(core|db|services)/[^/]+/index\\.ts$'],
      },
    },
    {
      name: 'everybody-else-by-the-door-too',
      severity: 'error',
      from: { path: '^(scripts|src/(ui|app|demo|workers|instrumentation|proxy))' },
      to: { path: '^src/(core|db|services)/', pathNot: '^src/(core|db|services)/[^/]+/index\\.ts$' },
    },
    {
      // A page opens what it shows; one slice's screens take another's only by its door.
      name: 'screens-of-another-slice-only-by-its-door',
      severity: 'error',
      from: { path: '^src/ui/([^/]+)/' },
      to: { path: '^src/ui/', pathNot: ['^src/ui/$1/', `^src/ui/(${kit})/`, '^src/ui/[^/]+/index\\.ts$'] },
    },
    {
      name: 'no-circles-between-slices',
      severity: 'error',
      scope: 'folder',
      from: { path: '^src/(core|db|services|ui)/[^/]+$' },
      to: { circular: true },
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
