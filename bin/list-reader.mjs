// The thread that reads list files for the server, straight from the TypeScript sources.
import { parentPort } from "node:worker_threads";
import { tsImport } from "tsx/esm/api";

const { listRows } = await tsImport("../src/formats/csv.ts", import.meta.url);
const { isZip, xlsxRows } = await tsImport("../src/formats/xlsx-in.ts", import.meta.url);
parentPort.on("message", async (file) => {
  parentPort.postMessage(typeof file !== "string" && isZip(file) ? await xlsxRows(file) : listRows(file));
});
