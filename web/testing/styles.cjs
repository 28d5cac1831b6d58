module.exports = new Proxy({}, { get: (_target, name) => (name === '__esModule' ? false : String(name)) });
