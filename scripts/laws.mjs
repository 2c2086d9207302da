/** `npm run laws -- N`: the unit tests with N times the runs of the costly laws (20 where not said). */
import { bin, run } from "./setup.mjs";

const times = process.argv[2] ?? "20";
if (!/^[1-9]\d{0,3}$/.test(times)) {
  console.error("npm run laws -- N, a whole number of times");
  process.exit(2);
}
run(process.execPath, [bin("vitest"), "run", "--testTimeout=3600000", "src/core"], { env: { LAWS: times } });
