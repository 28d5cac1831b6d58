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
// React notes where each element was made, for its tools: a stack for every one of them, a tenth of a test's time
const { __CLIENT_INTERNALS_DO_NOT_USE_OR_WARN_USERS_THEY_CANNOT_UPGRADE: internals } = require('react');
Object.defineProperty(internals, 'recentlyCreatedOwnerStacks', { get: () => Infinity, set() {} });
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
      if (!this.matches(LABELABLE)) return null;
      // a list that stays as it is: one that is alive is asked for each of its parts by name
      const labels = Array.from(this.ownerDocument.querySelectorAll('label'));
      return labels.filter((label) => {
        const id = label.getAttribute('for');
        return (id === null ? label.contains(this) : id === this.id) && label.control === this;
      });
    },
  });
// no style sheet is loaded here, so what is shown hangs on attributes and inline styles alone; jsdom asks every rule of its own for every element
const NEVER_SHOWN = new Set(['HEAD', 'LINK', 'META', 'NOSCRIPT', 'SCRIPT', 'STYLE', 'TEMPLATE', 'TITLE']);
const SHOWN = { display: toDisplay, visibility: toVisibility };
function toDisplay(element) {
  if (element.hidden || NEVER_SHOWN.has(element.tagName)) return 'none';
  return element.style.display || (element.tagName === 'DIALOG' && !element.open ? 'none' : 'block');
}
function toVisibility(element) {
  for (let one = element; one; one = one.parentElement) if (one.style?.visibility) return one.style.visibility;
  return 'visible';
}
window.getComputedStyle = (element) =>
  new Proxy(element.style, {
    get(style, name) {
      if (name === 'getPropertyValue') return (property) => SHOWN[property]?.(element) ?? style.getPropertyValue(property);
      const value = SHOWN[name]?.(element) ?? style[name];
      return typeof value === 'function' ? value.bind(style) : value;
    },
  });
