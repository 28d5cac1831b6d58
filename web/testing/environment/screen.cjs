const { TestEnvironment } = require('jest-environment-jsdom');
const { withCore } = require('./withCore.cjs');

module.exports = withCore(TestEnvironment);
