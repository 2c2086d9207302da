/** `npm run demo`: installs, builds, loads the demo data into an empty database and serves the application. */
import { spawn } from "node:child_process";
import { bin, buildApplication, checkNode, installPackages, ROOT, run } from "./setup.mjs";

const port = process.env.PORT ?? "3000";
const address = `http://localhost:${port}`;

checkNode();
installPackages();
buildApplication();
run(process.execPath, [bin("tsx"), "demo/load.ts"]);

const server = spawn(process.execPath, [bin("next"), "start", "--port", port], {
  cwd: ROOT,
  stdio: ["ignore", "pipe", "inherit"],
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
});
server.stdout.on("data", (text) => process.stdout.write(text));
server.on("exit", (code) => process.exit(code ?? 1));
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));

for (let i = 0; i < 300; i++) {
  const answer = await fetch(address).catch(() => null);
  if (answer?.ok) {
    console.log(`\nRustic Tally is running: ${address}  (end it with Ctrl+C)`);
    break;
  }
  await new Promise((resolve) => setTimeout(resolve, 100));
}
