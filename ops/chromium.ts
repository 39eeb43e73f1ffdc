/** The browser of Debian’s packages, as browser tests, benchmarks and screenshots start it: quiet, off the network. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
}
