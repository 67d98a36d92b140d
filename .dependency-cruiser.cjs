// Which way the arrows may point: web → work → contract → core, server → work → contract → core, bin → core; inside the
// core from the floors up. What points back breaks the build.

/** Inner floors of the core, lowest first: a room may lean on those before it. */
const FLOORS = [
  ['units', 'fit'],
  ['gravity'],
  ['input'],
  ['instruments'],
  ['checks'],
  ['ladders', 'judging'],
  ['scraping'],
  ['moves'],
  ['solve'],
  ['describe'],
];
/** Rooms of the work package, likewise. */
const WORK_FLOORS = [['notebook', 'archive', 'said'], ['sheets', 'kit', 'register', 'scraping'], ['judging'], ['ladder'], ['stripdown'], ['board', 'story', 'planning'], ['report']];
const WORKSPACES = {
  core: [],
  contract: ['core'],
  work: ['contract', 'core'],
  server: ['work', 'contract', 'core'],
  web: ['work', 'contract', 'core'],
};
const room = (workspace, names) => `^${workspace}/src/(${names.join('|')})/`;

const leansDown = (workspace, all) =>
  all.slice(0, -1).map((names, i) => ({
    name: `${workspace}-${names[0]}-leans-down`,
    comment: `${names.join(' and ')} may lean only on what lies below.`,
    severity: 'error',
    from: { path: room(workspace, names), pathNot: '\\.spec\\.ts$|/testing/' },
    to: { path: room(workspace, all.slice(i + 1).flat()) },
  }));
const floors = [...leansDown('core', FLOORS), ...leansDown('work', WORK_FLOORS)];

const workspaces = Object.entries(WORKSPACES).map(([name, allowed]) => ({
  name: `${name}-leans-down`,
  comment: `${name} may lean only on ${allowed.join(', ') || 'nothing of ours'}.`,
  severity: 'error',
  from: { path: `^${name}/src/` },
  to: {
    path: `^(${Object.keys(WORKSPACES).join('|')}|e2e|tools|bin)/`,
    pathNot: `^(${[name, ...allowed].join('|')})/`,
  },
}));

const doors = Object.keys(WORKSPACES).map((name) => ({
  name: `${name}-by-its-door`,
  comment: `Others reach ${name} by its package name, never by a path into its folder.`,
  severity: 'error',
  from: { path: '^(core|contract|work|server|web|e2e|tools|bin)/', pathNot: `^${name}/` },
  to: { path: `^${name}/src/`, dependencyTypesNot: ['aliased'] },
}));

module.exports = {
  forbidden: [
    ...workspaces,
    ...doors,
    ...floors,
    {
      name: 'nothing-leans-on-practice',
      comment: 'Practice makes readings from made-up truths: what judges must not know it.',
      severity: 'error',
      from: { path: '^core/src/', pathNot: '^core/src/practice/|\\.spec\\.ts$|/testing/' },
      to: { path: '^core/src/practice/' },
    },
    {
      name: 'core-without-interface',
      comment: 'The core knows no browser, no framework and no server.',
      severity: 'error',
      from: { path: '^(core|contract|work)/src/', pathNot: '\\.spec\\.ts$|/testing/' },
      to: { path: 'node_modules/(@angular|primeng|rxjs|express|sequelize|mariadb|echarts)' },
    },
    {
      name: 'ui-knows-no-screen',
      comment: 'The pieces in ui/ are used by every screen and know none; of the data layer only how a person wants figures shown.',
      severity: 'error',
      from: { path: '^web/src/app/ui/', pathNot: '\\.spec\\.ts$|/testing/' },
      to: { path: '^web/src/app/(?!ui/|data/settings)' },
    },
    {
      name: 'data-knows-no-screen',
      comment: 'The stores serve the screens.',
      severity: 'error',
      from: { path: '^web/src/app/data/', pathNot: '\\.spec\\.ts$|/testing/' },
      to: { path: '^web/src/app/(?!data/|workers/)' },
    },
    {
      name: 'controls-come-from-ui',
      comment: 'The component library is wrapped once, in ui/.',
      severity: 'error',
      from: { path: '^web/src/app/', pathNot: '^web/src/app/(ui/|app\\.config|preset)' },
      to: { path: 'node_modules/(primeng|@primeuix)' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'specs-stay-specs',
      comment: 'Nothing that is delivered leans on a spec.',
      severity: 'error',
      from: { pathNot: '\\.spec\\.ts$|/testing/' },
      to: { path: '\\.spec\\.ts$|/testing/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules/(?!@isometra))/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.arrows.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['types', 'import', 'default'],
      extensions: ['.ts', '.mts', '.js', '.mjs', '.cjs', '.json'],
    },
  },
};
