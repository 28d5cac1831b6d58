/** What the demo is made with plans it: the module of the demo is exchanged for the one that does so once for all tests of a run. */
export function resolve(specifier, context, next) {
  const isDemo = context.parentURL?.includes('/core/src/demo/');
  return next(isDemo ? specifier.replace(/^\.\/(takeFixes|sayStates)$/, '../testing/once/$1') : specifier, context);
}
