// The thread that reads the solids of STEP files for the server, straight from the TypeScript sources.
import { parentPort } from "node:worker_threads";
import { tsImport } from "tsx/esm/api";

const { foundInStep } = await tsImport("../src/formats/step/index.ts", import.meta.url);
const { loadStepReader } = await tsImport("../src/engines/step-reader.ts", import.meta.url);
const reader = await loadStepReader();
parentPort.on("message", ({ name, bytes }) => parentPort.postMessage(foundInStep(name, bytes, reader)));
