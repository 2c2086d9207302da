// The thread that reads list files for the server, from the TypeScript sources.
import { parentPort } from "node:worker_threads";
import { fromSources } from "./sources.mjs";

const { isZip, listRows, xlsxRows } = await fromSources("src/formats/csv.ts", "src/formats/xlsx-in.ts");
parentPort.on("message", async (file) => {
  parentPort.postMessage(typeof file !== "string" && isZip(file) ? await xlsxRows(file) : listRows(file));
});
