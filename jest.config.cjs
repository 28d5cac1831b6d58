const transform = {
  '^.+\\.(t|j)sx?$': [
    '@swc/jest',
    {
      jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true }, transform: { react: { runtime: 'automatic' } } },
      module: { type: 'commonjs' },
    },
  ],
};
const moduleNameMapper = {
  '^wattograph-core$': '<rootDir>/web/testing/environment/core-index.cjs',
  '^wattograph-core/(pdf|dxf|xlsx|demo)$': '<rootDir>/web/testing/environment/core-$1.cjs',
  '\\.module\\.css$': '<rootDir>/web/testing/styles.cjs',
};
const shared = {
  transform,
  moduleNameMapper,
  // Jest looks up every global of a test through the sandbox's interceptors, which makes loops that name one many times slower
  sandboxInjectedGlobals: [
    ...['Array', 'Boolean', 'Error', 'Float64Array', 'Function', 'Infinity', 'Int32Array', 'JSON', 'Map', 'Math', 'Number', 'Object'],
    ...['Proxy', 'RangeError', 'Reflect', 'RegExp', 'Set', 'String', 'Symbol', 'TypeError', 'Uint8Array', 'Uint16Array'],
    ...['Uint32Array', 'WeakMap', 'WeakSet', 'isFinite', 'isNaN', 'parseFloat', 'parseInt'],
  ],
  transformIgnorePatterns: ['/node_modules/(?!(d3-hierarchy|qr|linear-sum-assignment|ml-[a-z-]+|cheminfo-types|is-any-array)/)'],
  testPathIgnorePatterns: ['/node_modules/', '/.next/', '/e2e/'],
  modulePathIgnorePatterns: ['/.next/'],
  setupFilesAfterEnv: ['<rootDir>/web/testing/patience.cjs', '<rootDir>/web/testing/stream.cjs'],
};

module.exports = {
  globalSetup: '<rootDir>/web/testing/startRun.cjs',
  globalTeardown: '<rootDir>/web/testing/endRun.cjs',
  projects: [
    {
      // in bare Node.js, its modules loaded once in each worker: in Jest's own sandbox the sums take two to three times as long (decision 0043)
      displayName: 'core',
      runner: 'jest-light-runner',
      testMatch: ['<rootDir>/core/**/*.test.ts', '<rootDir>/scripts/**/*.test.mjs'],
      testPathIgnorePatterns: [...shared.testPathIgnorePatterns, '\\.alone\\.test\\.ts$'],
      setupFiles: ['<rootDir>/core/src/testing/once/load.mjs'],
    },
    {
      displayName: 'node',
      testEnvironment: '<rootDir>/web/testing/environment/bare.cjs',
      testMatch: ['<rootDir>/web/**/*.test.ts', '<rootDir>/core/**/*.alone.test.ts'],
      ...shared,
    },
    {
      displayName: 'screen',
      testEnvironment: '<rootDir>/web/testing/environment/screen.cjs',
      testMatch: ['<rootDir>/**/*.test.tsx'],
      setupFiles: ['<rootDir>/web/testing/setup.cjs'],
      ...shared,
    },
  ],
};
