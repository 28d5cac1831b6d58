/* eslint-disable no-undef */
window.matchMedia = (query) => ({
  matches: false,
  media: query,
  addEventListener() {},
  removeEventListener() {},
  addListener() {},
  removeListener() {},
  dispatchEvent: () => false,
  onchange: null,
});
window.ResizeObserver = class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
Element.prototype.scrollIntoView = () => {};
// jsdom has none; documents are plain JSON
globalThis.structuredClone ??= (value) => JSON.parse(JSON.stringify(value));
