// A thread that draws views of pages for the server, straight from the TypeScript sources.
import { parentPort } from "node:worker_threads";
import { tsImport } from "tsx/esm/api";

const { createViewAnswering } = await tsImport("../src/core/views.ts", import.meta.url);
const { movedWith } = await tsImport("../src/core/transfer/index.ts", import.meta.url);
const answered = createViewAnswering();
parentPort.on("message", (message) => {
  const answer = answered(message);
  parentPort.postMessage(answer, movedWith(answer.parcel));
});
// Nothing is taken before all is there to draw it.
parentPort.postMessage("ready");
