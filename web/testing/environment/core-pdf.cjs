/* eslint-disable no-undef */
module.exports = wattographCore.pdf;
