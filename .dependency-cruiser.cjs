/** Arrows point one way: web, server, cli → contracts → core; the simulated cutter knows only core's language and swivel. */

/** core/ from the ground up: a folder imports from those before it only, and so there are no circles between them. */
const FLOORS = [
  ['units'],
  ['geometry', 'colour', 'stages', 'hpgl'],
  ['findings', 'swivel', 'packing'],
  ['registration'],
  ['readers'],
  ['tracing'],
  ['artwork'],
  ['films'],
  ['print'],
  ['panels'],
  ['layout', 'checks'],
  ['weeding'],
  ['toolpath'],
  ['devicelang'],
  ['calibration', 'floor'],
  ['plan'],
];
const floors = FLOORS.flatMap((rooms, i) =>
  rooms.map((room) => ({
    name: `floor-of-${room}`,
    severity: 'error',
    comment: 'folders of core import downwards only',
    from: { path: `^core/${room}/`, pathNot: '\\.test\\.ts$' },
    to: {
      path: `^core/(${FLOORS.slice(i)
        .flat()
        .filter((other) => other !== room)
        .join('|')})/`,
    },
  })),
);

module.exports = {
  forbidden: [
    ...floors,
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'core computes: no Node, no DOM library, nothing of the other rooms',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^(contracts|server|web|cutter-sim|cli|demo)/|node_modules/(vue|express|pg|pino|primevue)',
      },
    },
    {
      name: 'core-without-node',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'contracts-know-core',
      severity: 'error',
      from: { path: '^contracts/' },
      to: { path: '^(server|web|cutter-sim|cli|demo)/' },
    },
    {
      name: 'web-apart-from-server',
      severity: 'error',
      from: { path: '^web/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(server|cutter-sim|cli|demo)/' },
    },
    {
      name: 'server-apart',
      severity: 'error',
      from: { path: '^server/', pathNot: '(\\.test\\.ts|\\.testing\\.ts|main\\.ts)$' },
      to: { path: '^(web|cutter-sim|cli|demo)/' },
    },
    {
      name: 'cli-reads-files',
      severity: 'error',
      from: { path: '^cli/' },
      to: { path: '^(web|cutter-sim)/|^server/(?!files/)' },
    },
    {
      name: 'cutter-is-a-stranger',
      severity: 'error',
      from: { path: '^cutter-sim/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^(contracts|server|web|cli|demo)/|^core/(?!devicelang/answers|hpgl/|swivel/tractrix|random)',
      },
    },
    {
      name: 'one-polygon-library',
      severity: 'error',
      // its own fault is shown beside the guard against it
      from: { pathNot: '^core/geometry/(region|scanCheck\\.test)\\.ts$' },
      to: { path: 'node_modules/clipper2-ts' },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
  },
};
