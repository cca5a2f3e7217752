/** How our scripts and tests start Debian's Chromium: headless, software WebGL, no network of its own. */
export const CHROMIUM = "/usr/bin/chromium";
export const CHROMIUM_FLAGS = [
  "--no-sandbox",
  "--use-angle=swiftshader",
  "--enable-unsafe-swiftshader",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];
