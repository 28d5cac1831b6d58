export * from './catalogue';
export * from './check';
export * from './make';
export * from './model';
export * from './plan';
export * from './units';
