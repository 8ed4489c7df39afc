/** The dependency rule of the house: the core knows nobody, the shells know the core, and inside the core the arrows point down. */
const inside = (path) => ({ path: `^core/src/${path}/`, pathNot: '\\.test\\.ts$' });

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-knows-nobody',
      comment: 'The core imports nothing of ours but itself, and from outside only the schema library.',
      severity: 'error',
      from: { path: '^core/src/', pathNot: '(\\.test\\.ts$|^core/src/testkit/)' },
      to: { pathNot: '^(core/src/|node_modules/zod/)' },
    },
    {
      name: 'web-and-server-apart',
      severity: 'error',
      from: { path: '^web/' },
      to: { path: '^(server|cli)/' },
    },
    {
      name: 'server-and-web-apart',
      severity: 'error',
      from: { path: '^(server|cli)/' },
      to: { path: '^web/' },
    },
    { name: 'cli-and-server-apart', severity: 'error', from: { path: '^cli/' }, to: { path: '^server/' } },
    {
      name: 'network-is-mathematics',
      severity: 'error',
      from: inside('network'),
      to: { path: '^core/src/', pathNot: '^core/src/network/' },
    },
    {
      name: 'codes-are-tables',
      severity: 'error',
      from: inside('codes'),
      to: { path: '^core/src/', pathNot: '^core/src/(codes|network)/' },
    },
    {
      name: 'compile-before-checks',
      severity: 'error',
      from: inside('compile'),
      to: { path: '^core/src/(checks|procedure|wire)/' },
    },
    {
      name: 'checks-do-not-know-each-other',
      comment: 'What two checks share lives in checks/support.',
      severity: 'error',
      from: { path: '^core/src/checks/[a-z]+[A-Z][A-Za-z]*\\.ts$', pathNot: '(runChecks|\\.test)\\.ts$' },
      to: { path: '^core/src/checks/[a-z]+[A-Z][A-Za-z]*\\.ts$' },
    },
    {
      name: 'nothing-inside-imports-the-entry',
      severity: 'error',
      from: { path: '^(core|server|web|cli)/src/', pathNot: '(\\.test\\.ts|index\\.ts)$' },
      to: { path: '^(core|server|cli)/src/index\\.ts$' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|types)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.js'],
    },
  },
};
