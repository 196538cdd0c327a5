/**
 * What computation asks for at every step: looked up in a test's sandbox it takes longer than most of what is done with it. Number and
 * String are not among it: css-tree has constants of these names.
 */
const OFTEN = [
  ...['Math', 'Infinity', 'Object', 'Array', 'Map', 'Set', 'WeakMap', 'Float64Array', 'Int32Array'],
  ...['Uint8Array', 'Uint32Array', 'Promise', 'JSON', 'Symbol', 'Error', 'Boolean', 'Reflect'],
];

const shared = {
  transform: {
    '^.+\\.m?[jt]s$': [
      '@swc/jest',
      {
        jsc: { target: 'es2022', parser: { syntax: 'typescript', decorators: false } },
        module: { type: 'commonjs' },
      },
    ],
  },
  // packages that come as ES modules only
  transformIgnorePatterns: [
    '/node_modules/(?!(@vueuse|clipper2-ts|robust-predicates|delaunator|flatbush|flatqueue|rbush|quickselect|culori|htmlparser2|css-select|css-what|dom-serializer|domhandler|domutils|domelementtype|entities|boolbase|nth-check)/)',
  ],
  sandboxInjectedGlobals: OFTEN,
  testEnvironment: 'node',
  testRegex: '\\.test\\.ts$',
};
const IN_PAGE = '\\.page\\.test\\.ts$';
const rooms = (...names) => names.map((name) => `<rootDir>/${name}`);

export default {
  // a machine that is busy with other work must not fail a test
  testTimeout: 120_000,
  projects: [
    {
      ...shared,
      displayName: 'unit',
      roots: rooms('core', 'contracts', 'cli', 'web'),
      testPathIgnorePatterns: [IN_PAGE],
    },
    // stores and composables that live in a page
    {
      ...shared,
      displayName: 'unit',
      roots: rooms('web'),
      testRegex: IN_PAGE,
      testEnvironment: '@happy-dom/jest-environment',
      sandboxInjectedGlobals: [],
      moduleNameMapper: { '\\?worker$': '<rootDir>/web/noWorker.testing.ts' },
    },
    {
      ...shared,
      displayName: 'server',
      roots: rooms('server', 'cutter-sim'),
      setupFiles: ['<rootDir>/scripts/ownCache.cjs'],
      globalSetup: '<rootDir>/server/db/migratedOnce.testing.ts',
    },
  ],
};
