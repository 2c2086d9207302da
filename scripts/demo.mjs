/** `npm run demo`: installs, builds, loads the demo data into an empty database and serves the application. */
import { bin, buildApplication, checkNode, installPackages, run } from "./setup.mjs";

checkNode();
installPackages();
buildApplication();
run(process.execPath, [bin("tsx"), "demo/load.ts"]);
// Only now: it stands on packages that were just installed.
const { serve } = await import("./serve.mjs");
await serve(process.argv.slice(2));
