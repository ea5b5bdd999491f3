/** Debian's Chromium with the flags it needs where there is no network and no user namespace. */
export const CHROMIUM = {
  executablePath: process.env["FISCALON_CHROMIUM"] ?? "/usr/bin/chromium",
  args: [
    "--no-sandbox",
    "--disable-quic",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
  ],
};
