/** One direction: each storey may use only those below it. */
const storey = (name, from, to) => ({ name, severity: 'error', from: { path: from }, to: { path: to } });
module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: { path: '^(src|practice|bin)' }, to: { circular: true } },
    storey('core-knows-nobody', '^src/core/', '^(src/(?!core/)|practice/|bin/|tests/)'),
    {
      name: 'core-has-no-input-or-output',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    storey('formats-use-core', '^src/formats/', '^src/(?!core/|formats/)'),
    storey('database-uses-formats-and-core', '^src/database/', '^src/(?!core/|formats/|database/)'),
    storey('usecases-use-what-is-below', '^src/usecases/', '^src/(app|ui|jobs)/'),
    {
      name: 'ui-knows-only-core',
      severity: 'error',
      from: { path: '^src/ui/' },
      to: { path: '^src/(?!core/|ui/)' },
    },
    {
      name: 'only-usecases-know-sql',
      severity: 'error',
      from: { path: '^src/app/' },
      to: { path: '^(src/database/|node_modules/pg/)' },
    },
    {
      name: 'places-import-acts-never-each-other',
      severity: 'error',
      from: {
        path: '^src/app/(acquire|api|begin|invited|ledger|prices|prospects|record|renewals|rescue|selling|setup|sign-in|today|transfers|unknown|you)/',
      },
      to: { path: '^src/app/', pathNot: '^src/app/($1|acts|frame|http)/' },
    },
    {
      name: 'acts-know-no-place',
      severity: 'error',
      from: { path: '^src/app/(acts|frame|http)/' },
      to: {
        path: '^src/app/(acquire|api|begin|invited|ledger|prices|prospects|record|renewals|rescue|selling|setup|sign-in|today|transfers|unknown|you)/',
      },
    },
    storey('connectors-use-formats-and-core', '^src/connectors/', '^src/(?!core/|formats/|connectors/)'),
    storey('jobs-use-usecases', '^src/jobs/', '^src/(app|ui)/'),
    storey('shop-uses-usecases', '^src/shop/', '^src/(app|ui|jobs|server|database|connectors|formats)/'),
    storey(
      'server-and-thread-use-usecases',
      '^src/(server|thread)/',
      '^src/(app|ui|jobs|database|connectors|formats)/',
    ),
    storey('nothing-uses-the-way-in', '^src/(?!server/)', '^src/server/'),
    storey(
      'practice-is-the-outside',
      '^practice/(?!scenario/)',
      '^src/core/(lifecycle|funding)/|^src/core/selling/netProceeds',
    ),
    storey('tests-are-not-shipped', '^src/.*(?<!\\.test\\.tsx?)$', '^tests/'),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(\\.next|next-env)' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default'],
    },
  },
};
