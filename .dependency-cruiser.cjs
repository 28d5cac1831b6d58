/** No import circles, type-only ones included: what two files need of each other belongs in a third. */
module.exports = {
  forbidden: [
    {
      name: 'no-circles',
      severity: 'error',
      comment: 'what two files need of each other belongs in a third',
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(node_modules|\\.next|test-results)/' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'] },
  },
};
