/** Debian's Chromium without a GPU and without calls to the outside. */
import { existsSync } from "node:fs";

export const E2E_PORT = 3210;

/** Chromium without the windows and menus around the pages, which take a tenth of the time; the whole of it does as well. */
const SHELL = "/usr/bin/chromium-headless-shell";

export const BROWSER = {
  executablePath: process.env["CHROMIUM"] ?? (existsSync(SHELL) ? SHELL : "/usr/bin/chromium"),
  args: [
    "--no-sandbox",
    "--enable-unsafe-swiftshader",
    "--disable-quic",
    // Debian's Chromium would let the processor play a graphics card for flat pages too.
    "--disable-gpu-rasterization",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
};
