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
// nothing has a size in jsdom; a list that draws only what is in view is given room for a page of rows
Object.defineProperty(HTMLElement.prototype, 'offsetHeight', {
  configurable: true,
  get() {
    return this.tagName === 'TR' ? 26 : 800;
  },
});
Object.defineProperty(HTMLElement.prototype, 'offsetWidth', { configurable: true, get: () => 1200 });
// two parts of one list under one key: React may drop one of them
const report = console.error;
console.error = (...words) => {
  if (String(words[0]).includes('two children with the same key')) throw new Error(`two parts of a list have one key: ${words[1]}`);
  if (String(words[0]).includes('unique "key" prop')) throw new Error(`parts of a list have no key: ${words.slice(1).join(' ')}`);
  if (/cannot be a descendant|validateDOMNesting/.test(String(words[0])))
    throw new Error(`elements nested as HTML forbids: ${words.slice(1, 3).join(' in ')}`);
  report(...words);
};
// jsdom has none; documents are plain JSON
globalThis.structuredClone ??= (value) => JSON.parse(JSON.stringify(value));
// jsdom walks the whole document for each label of each field: at a station's fields that was half of a test's time
const LABELABLE = 'button, input:not([type=hidden]), meter, output, progress, select, textarea';
Object.defineProperty(HTMLLabelElement.prototype, 'control', {
  configurable: true,
  get() {
    const id = this.getAttribute('for');
    if (id === null) return this.querySelector(LABELABLE);
    const named = this.ownerDocument.getElementById(id);
    return named?.matches(LABELABLE) ? named : null;
  },
});
for (const kind of [HTMLButtonElement, HTMLInputElement, HTMLSelectElement, HTMLTextAreaElement])
  Object.defineProperty(kind.prototype, 'labels', {
    configurable: true,
    get() {
      return this.matches(LABELABLE)
        ? [...this.ownerDocument.getElementsByTagName('label')].filter(({ control }) => control === this)
        : null;
    },
  });
