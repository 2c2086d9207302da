/** `npm run demo`: installs, builds, loads the demo data into an empty database and serves the application. */
import { buildApplication, checkNode, installPackages, run } from "./setup.mjs";

checkNode();
installPackages();
buildApplication();
// Only now: they stand on packages that were just installed.
run(process.execPath, ["scripts/run.mjs", "demo/load.ts"]);
const { serve } = await import("./serve.mjs");
await serve(process.argv.slice(2));
