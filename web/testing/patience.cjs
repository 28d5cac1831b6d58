/* eslint-disable no-undef */
// a machine at half its speed is slow, not wrong: how long something takes is measured by the bench and never asserted
jest.setTimeout(300_000);
if (typeof window !== 'undefined') require('@testing-library/dom').configure({ asyncUtilTimeout: 15_000, defaultHidden: true });
