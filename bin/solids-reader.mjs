// The thread that reads the solids of STEP files for the server, from the TypeScript sources.
import { parentPort } from "node:worker_threads";
import { fromSources } from "./sources.mjs";

const { foundInStep, loadStepReader } = await fromSources(
  "src/formats/step/index.ts",
  "src/engines/step-reader.ts",
);
const reader = await loadStepReader();
parentPort.on("message", ({ name, bytes }) => parentPort.postMessage(foundInStep(name, bytes, reader)));
