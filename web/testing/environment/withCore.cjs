/* eslint-disable no-undef */
/**
 * The core as the machine runs it, loaded once in each worker of Jest: in its sandbox every file of tests would load its thousand modules anew and
 * run each of them cold. The core's own tests see to it (decision 0043).
 */
exports.withCore = (Environment) =>
  class extends Environment {
    async setup() {
      await super.setup();
      // what goes to and fro is of one kind: a document that is copied, an error that is told by its class
      Object.assign(this.global, { JSON, RangeError, structuredClone });
      // fast-deep-equal knows a plain object by these
      const { prototype } = this.global.Object;
      for (const name of ['toString', 'valueOf']) Object.defineProperty(prototype, name, { value: Object.prototype[name] });
      this.global.wattographCore = require(process.env.WATTOGRAPH_TEST_CORE);
    }
  };
