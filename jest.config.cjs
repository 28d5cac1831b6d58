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
  '^wattograph-core$': '<rootDir>/core/src/index.ts',
  '^wattograph-core/pdf$': '<rootDir>/core/src/draw/toPdf.ts',
  '^wattograph-core/xlsx$': '<rootDir>/core/src/exchange/xlsx.ts',
  '^wattograph-core/demo$': '<rootDir>/core/src/demo/index.ts',
  // what the demo is made with plans it: once for all tests of a run
  '^\\./(takeFixes|sayStates)$': '<rootDir>/core/src/testing/once/$1.ts',
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
    { displayName: 'node', testEnvironment: 'node', testMatch: ['<rootDir>/**/*.test.ts'], ...shared },
    {
      displayName: 'screen',
      testEnvironment: 'jsdom',
      testMatch: ['<rootDir>/**/*.test.tsx'],
      setupFiles: ['<rootDir>/web/testing/setup.cjs'],
      ...shared,
    },
  ],
};
