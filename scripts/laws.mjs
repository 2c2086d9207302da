/** `npm run laws -- N`: the unit tests with N times the usual runs of their laws (20 where not said); the gate takes a share of them. */
import { bin, run } from "./setup.mjs";

const times = process.argv[2] ?? "20";
if (!/^[1-9]\d{0,3}$/.test(times)) {
  console.error("npm run laws -- N, a whole number of times");
  process.exit(2);
}
run(process.execPath, [bin("vitest"), "run", "--testTimeout=3600000", "src/core", "src/formats"], {
  env: { LAWS: times },
});
