/** How this project starts Debian's Chromium, for tests and for encoding the demo media. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-quic',
    '--no-first-run',
    '--autoplay-policy=no-user-gesture-required',
  ],
};
