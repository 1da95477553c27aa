// The layering rule. Stages in the order of the work: each may use what comes before it, never what comes after.
const stages = ['measure', 'layers', 'paper', 'sheets', 'depth', 'assembly', 'journal']
const stage = (names) => `^core/src/stages/(${names.join('|')})/`
const core = (names) => `^core/src/(${names.join('|')})/`

const stageRules = stages.map((name, i) => ({
  name: `${name}-uses-earlier-only`,
  severity: 'error',
  comment:
    'A stage may use base, the project and earlier stages; of what is read and written only the types.',
  from: { path: stage([name]) },
  to: {
    path: [
      ...(i + 1 < stages.length ? [stage(stages.slice(i + 1))] : []),
      core(['io/exports', 'demo']),
      '^core/src/stages/[^/]+\\.ts$',
    ],
  },
}))

module.exports = {
  forbidden: [
    ...stageRules,
    {
      name: 'base-uses-base',
      severity: 'error',
      from: { path: core(['base']) },
      to: { path: '^core/src/', pathNot: core(['base']) },
    },
    {
      name: 'project-uses-base',
      severity: 'error',
      from: { path: core(['project']) },
      to: { path: '^core/src/', pathNot: core(['base', 'project']) },
    },
    {
      name: 'formats-know-no-stage',
      severity: 'error',
      from: { path: core(['io/read', 'io/write']) },
      to: { path: core(['stages', 'planner', 'io/exports', 'demo']) },
    },
    {
      name: 'stages-use-only-types-of-formats',
      severity: 'error',
      from: { path: stage(stages) },
      to: { path: core(['io']), dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/' },
      to: { path: '^(web|server|headless|e2e|bench)/' },
    },
    {
      name: 'web-and-server-apart',
      severity: 'error',
      from: { path: '^web/' },
      to: { path: '^(server|headless)/' },
    },
    {
      name: 'server-serves-only',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^(web|headless)/' },
    },
    {
      name: 'by-the-front-door',
      severity: 'error',
      comment:
        'Nothing outside a core folder reaches past its index; folders inside (nest, svg) belong to their parent.',
      from: { path: '^core/src/((?:base|stages|io)/[^/]+|[^/]+)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/src/', pathNot: ['^core/src/$1/', '/index\\.ts$', '^core/src/io/dxf-pairs\\.ts$'] },
    },
    {
      name: 'ui-draws-only',
      severity: 'error',
      from: { path: '^web/src/ui/' },
      to: { path: '^web/src/(shell|session|state|plan|commands|drawing|stages|workers)/' },
    },
    {
      name: 'stages-apart',
      severity: 'error',
      from: { path: '^web/src/stages/([^/]+)/' },
      to: { path: '^web/src/stages/([^/]+)/', pathNot: '^web/src/stages/$1/' },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: { path: '^(core|headless|server|web)/' },
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.test\\.ts$' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.json'],
    },
  },
}
