const { rmSync } = require('node:fs');

module.exports = () => {
  rmSync(process.env.WATTOGRAPH_TEST_FOLDER, { recursive: true, force: true });
  rmSync(process.env.WATTOGRAPH_TEST_CORE, { force: true });
};
