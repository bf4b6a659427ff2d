/** Import rules: who may know whom. */
module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-stands-alone',
      comment: 'The computation knows no interface, HTTP or database.',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$' },
      to: { path: '^(apps|packages/contracts|e2e|bench|scripts)|node_modules/(?!(ajv|ajv-formats)(/|$))' },
    },
    {
      name: 'core-has-no-node',
      comment: 'It runs in a worker too; only its command line reads files.',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '(\\.test\\.ts|src/(cli|testing)/)' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'engine-without-formats',
      comment: 'Schema checking stays out of the worker.',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '(src/(formats|cli|testing)/|\\.test\\.ts$)' },
      to: { path: '^packages/core/src/formats' },
    },
    {
      name: 'order-knows-no-tracing',
      comment: 'What happened is told without any judgement of it, and without its report.',
      severity: 'error',
      from: { path: '^packages/core/src/order', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^packages/core/src/(observation|inference|decision|plan|learn|explain|record|practice|referee|link|formats|cli)',
      },
    },
    {
      name: 'observation-knows-no-belief',
      comment: 'What can be seen of a fault hangs on no belief.',
      severity: 'error',
      from: { path: '^packages/core/src/observation', pathNot: '\\.test\\.ts$' },
      to: { path: '^packages/core/src/(inference|decision|plan|learn|explain|practice|referee|formats|cli)' },
    },
    {
      name: 'inference-decides-nothing',
      severity: 'error',
      from: { path: '^packages/core/src/inference', pathNot: '\\.test\\.ts$' },
      to: { path: '^packages/core/src/(decision|plan|learn|explain|practice|referee|formats|cli|order)' },
    },
    {
      name: 'decision-writes-no-sentences',
      severity: 'error',
      from: { path: '^packages/core/src/decision', pathNot: '\\.test\\.ts$' },
      to: { path: '^packages/core/src/(explain|learn|practice|referee|formats|cli)' },
    },
    {
      name: 'contracts-know-core-only',
      severity: 'error',
      from: { path: '^packages/contracts/src' },
      to: { path: '^apps' },
    },
    {
      name: 'client-and-server-apart',
      comment: 'They meet in contracts and core.',
      severity: 'error',
      from: { path: '^apps/client' },
      to: { path: '^apps/server' },
    },
    {
      name: 'server-and-client-apart',
      severity: 'error',
      from: { path: '^apps/server' },
      to: { path: '^apps/client' },
    },
    {
      name: 'features-of-the-server',
      comment:
        'A feature is used through its index; a thread takes the computation alone, without routes and database.',
      severity: 'error',
      from: { path: '^apps/server/src/([^/]+)/', pathNot: '^apps/server/src/work/tasks' },
      to: { path: '^apps/server/src/(orders|machines|shop)/', pathNot: ['^apps/server/src/$1/', '/index\\.ts$'] },
    },
    {
      name: 'shared-pieces-know-no-feature',
      severity: 'error',
      from: { path: '^apps/client/src/(ui|workers)/' },
      to: { path: '^apps/client/src/(orders|trace|plan|prove|record|intake|bench|machines|settings|catalogue)/' },
    },
    {
      name: 'features-of-the-client',
      comment: 'Features meet in orders (the frame of an order), data, ui and workers.',
      severity: 'error',
      from: { path: '^apps/client/src/(trace|plan|prove|record|intake|bench|machines|settings|catalogue)/' },
      to: {
        path: '^apps/client/src/(trace|plan|prove|record|intake|bench|machines|settings|catalogue)/',
        pathNot: '^apps/client/src/$1/',
      },
    },
    {
      name: 'workers-only-call-core',
      severity: 'error',
      from: { path: '\\.worker\\.ts$' },
      to: { pathNot: '^(packages/core|node_modules/comlink)' },
    },
    { name: 'not-declared', severity: 'error', from: {}, to: { dependencyTypes: ['npm-no-pkg', 'npm-unknown'] } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(/dist/|\\.expo|/\\.data/)' },
    tsPreCompilationDeps: true,
    combinedDependencies: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.json', '.mjs', '.cjs'],
      mainFields: ['main', 'types'],
    },
  },
};
