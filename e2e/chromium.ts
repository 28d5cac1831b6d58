/** How Debian's Chromium is started: with no sandbox of its own, and with nothing that calls out. */
const OPTIONS = {
  chromiumSandbox: false,
  args: [
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

/** The browser that people have: what is measured, and what pictures show. */
export const CHROMIUM = { ...OPTIONS, executablePath: '/usr/bin/chromium' };
/** The same engine without a browser's own windows and their drawing, which would take a fifth of a test's time (decision 0043). */
export const HEADLESS = { ...OPTIONS, executablePath: '/usr/bin/chromium-headless-shell' };
