const { TestEnvironment } = require('jest-environment-node');
const { withCore } = require('./withCore.cjs');

module.exports = withCore(TestEnvironment);
