const { mkdtempSync } = require('node:fs');
const { tmpdir } = require('node:os');
const { join } = require('node:path');

/** A folder for what the tests of a run make once. */
module.exports = () => {
  process.env.WATTOGRAPH_TEST_FOLDER = mkdtempSync(join(tmpdir(), 'wattograph-run-'));
};
