/** The dependency rule of the house: contract -> core; server, web and cli -> contract and core; never back, never sideways. */
const outside = (room, ...allowed) => ({
  name: `${room}-imports`,
  severity: 'error',
  comment: `${room} may import only itself${allowed.length ? ', ' + allowed.join(', ') : ''} and packages`,
  from: { path: `^${room}/` },
  to: {
    path: '^(core|contract|server|web|cli|e2e)/',
    pathNot: `^(${[room, ...allowed].join('|')})/`,
  },
});

module.exports = {
  forbidden: [
    outside('core'),
    outside('contract', 'core'),
    outside('server', 'contract', 'core'),
    outside('web', 'contract', 'core'),
    outside('cli', 'contract', 'core'),
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'core has no I/O, no clock, no schema library and no interface code',
      from: { path: '^core/src/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(node:|fs|path|os)|node_modules/(zod|vue|express|drizzle-orm)/' },
    },
    {
      name: 'only-repo-knows-the-database',
      severity: 'error',
      comment: 'Drizzle and PGlite stay behind server/src/repo; main.ts alone opens the database',
      from: { path: '^server/src/', pathNot: '^server/src/(repo/|main\\.ts)' },
      to: { path: 'node_modules/(drizzle-orm|@electric-sql)/' },
    },
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|types)/' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default'] },
  },
};
