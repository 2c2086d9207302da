/** Debian's Chromium without a GPU and without calls to the outside. */
export const E2E_PORT = 3210;

export const BROWSER = {
  executablePath: process.env["CHROMIUM"] ?? "/usr/bin/chromium",
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
