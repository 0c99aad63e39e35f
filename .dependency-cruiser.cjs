// The floors of the house: each imports only what stands below it, and goes in by the front door.
const floor = (name, from, to) => ({ name, severity: 'error', from: { path: from }, to: { path: to } });
// The order of the work: what comes later may use what comes before it, never the other way round.
const order = ['guide', 'measure', 'diagnose', 'load', 'cable', 'supply', 'job', 'intake'];
const ordered = order.slice(0, -1).map((capability, index) => ({
  name: `core-order-${capability}`,
  severity: 'error',
  from: { path: `^core/src/${capability}/`, pathNot: '\\.test(-help)?\\.ts$' },
  to: { path: `^core/src/(${order.slice(index + 1).join('|')})/` },
}));
module.exports = {
  forbidden: [
    ...ordered,
    floor('core-imports-nothing-above', '^core/src', '^(contract|server|web|command|instruments)/'),
    {
      name: 'core-imports-no-package',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test(-help)?\\.ts$' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'] },
    },
    floor('contract-above-core-only', '^contract/src', '^(server|web|command|instruments)/'),
    floor('instruments-above-core-only', '^instruments/src', '^(contract|server|web|command)/'),
    floor('server-knows-no-screen', '^server/src', '^(web|command|instruments)/'),
    floor('web-knows-no-server', '^web/src', '^(server|command|instruments)/'),
    {
      name: 'core-capabilities-by-their-door',
      severity: 'error',
      from: { path: '^core/src/([^/]+)/', pathNot: '\\.test(-help)?\\.ts$' },
      to: { path: '^core/src/([^/]+)/.+', pathNot: ['^core/src/$1/', '^core/src/[^/]+/index\\.ts$'] },
    },
    {
      name: 'core-floors-standards',
      severity: 'error',
      from: { path: '^core/src/(standards|machine)/', pathNot: '\\.test(-help)?\\.ts$' },
      to: { path: '^core/src/(measure|diagnose|load|cable|supply|job|wording)/' },
    },
    {
      name: 'core-wording-on-top',
      severity: 'error',
      from: {
        path: '^core/src/(standards|machine|measure|diagnose|load|cable|supply|job|intake)/',
        pathNot: '\\.test(-help)?\\.ts$',
      },
      to: { path: '^core/src/wording/' },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: { pathNot: '\\.test(-help)?\\.ts$' },
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist(-types)?/' },
    tsConfig: { fileName: 'tsconfig.base.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { conditionNames: ['fairwatt-source', 'import', 'default'], exportsFields: ['exports'] },
  },
};
