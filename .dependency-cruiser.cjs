/** The arrows of the house. A room may import itself, packages, and what is named for it. */
const room = (path, ...allowed) => ({
  name: `${path.replaceAll('/', '-')}-imports`,
  severity: 'error',
  comment: `${path} may import only itself${allowed.length ? ', ' + allowed.join(', ') : ''} and packages`,
  from: { path: `^${path}/`, pathNot: '\\.test\\.ts$' },
  to: {
    path: '^(core|contract|plan|server|web|cli|e2e)/',
    pathNot: `^(${[path, ...allowed].join('|')})/`,
  },
});
const below = ['core', 'contract', 'plan'];
const inside = (...rooms) => rooms.map((name) => `web/src/${name}`);

module.exports = {
  forbidden: [
    room('core'),
    room('contract', 'core/src/units'),
    room('plan', 'core', 'contract'),
    room('server', ...below),
    room('web', ...below),
    room('cli', ...below),
    // Inside web: ui and board know no session; stages know session, compute, data, board, ui; app knows stages.
    room('web/src/ui', ...below),
    room('web/src/board', ...below, ...inside('ui')),
    room('web/src/data', ...below),
    room('web/src/session', ...below),
    room('web/src/compute', ...below, ...inside('session', 'data')),
    room('web/src/stages', ...below, ...inside('session', 'compute', 'data', 'board', 'ui')),
    room('web/src/app', ...below, ...inside('stages', 'session', 'compute', 'data', 'board', 'ui')),
    {
      name: 'no-stage-imports-another',
      severity: 'error',
      comment: 'a stage is added or taken out by its folder alone; what several share is common',
      from: { path: '^web/src/stages/([^/]+)/' },
      to: { path: '^web/src/stages/[^/]+/', pathNot: '^web/src/stages/($1|common)/' },
    },
    {
      name: 'paper-is-pure',
      severity: 'error',
      comment: 'core and plan have no I/O and no interface code; core has no schema library either',
      from: { path: '^(core|plan)/src/', pathNot: '(\\.test\\.ts$|/test/)' },
      to: { path: '^(node:|fs$|path$|os$)|node_modules/(vue|express|drizzle-orm|pinia)/' },
    },
    {
      name: 'core-knows-no-schemas',
      severity: 'error',
      from: { path: '^core/src/', pathNot: '\\.test\\.ts$' },
      to: { path: 'node_modules/(zod|nanoid)/' },
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
