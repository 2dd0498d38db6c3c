/** Debian's Chromium, quiet and offline. */
export const browserOptions = {
  viewport: { width: 1280, height: 800 },
  contextOptions: { reducedMotion: "reduce" as const },
  launchOptions: {
    executablePath: "/usr/bin/chromium",
    args: [
      "--no-sandbox",
      "--disable-gpu",
      "--disable-quic",
      "--no-first-run",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
    ],
  },
};
