// The layering rule. Stages in the order of the work: each may use what comes before it, never what comes after.
const stages = ['measure', 'layers', 'paper', 'sheets', 'depth', 'build', 'log']
const base = ['geometry', 'units', 'project']
const inside = (names) => `^core/src/(${names.join('|')})/`

const stageRules = stages.map((stage, i) => ({
  name: `${stage}-uses-earlier-only`,
  severity: 'error',
  comment: 'A stage may use geometry, units, the project and earlier stages; of formats only its types.',
  from: { path: inside([stage]) },
  to: { path: inside([...stages.slice(i + 1), 'whole', 'files', 'demo']) },
}))

module.exports = {
  forbidden: [
    ...stageRules,
    { name: 'base-uses-no-stage', severity: 'error', from: { path: inside(base) }, to: { path: '^core/src/', pathNot: inside(base) } },
    { name: 'formats-know-no-stage', severity: 'error', from: { path: inside(['formats']) }, to: { path: inside([...stages, 'whole', 'files', 'demo']) } },
    {
      name: 'stages-use-only-types-of-formats',
      severity: 'error',
      from: { path: inside(stages) },
      to: { path: inside(['formats']), dependencyTypesNot: ['type-only'] },
    },
    { name: 'core-stands-alone', severity: 'error', from: { path: '^core/' }, to: { path: '^(web|server|headless|e2e|bench)/' } },
    { name: 'web-and-server-apart', severity: 'error', from: { path: '^web/' }, to: { path: '^(server|headless)/' } },
    { name: 'server-serves-only', severity: 'error', from: { path: '^server/' }, to: { path: '^(web|headless)/' } },
    {
      name: 'by-the-front-door',
      severity: 'error',
      comment: 'Nothing outside a core folder reaches past its index; folders inside (nest, svg) belong to their parent.',
      from: { path: '^core/src/([^/]+)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/src/([^/]+)/', pathNot: ['^core/src/$1/', '^core/src/[^/]+/index\\.ts$'] },
    },
    { name: 'ui-draws-only', severity: 'error', from: { path: '^web/src/ui/' }, to: { path: '^web/src/(app|drawing|stages|workers)/' } },
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
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'], extensions: ['.ts', '.tsx', '.js', '.mjs', '.json'] },
  },
}
