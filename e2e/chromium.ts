/** How Debian's Chromium is started: with no sandbox of its own, and with nothing that calls out. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
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
