// A thread that draws views of pages for the server, straight from the TypeScript sources: one job after the other.
import { parentPort } from "node:worker_threads";
import { tsImport } from "tsx/esm/api";

const { createViewAnswering } = await tsImport("../src/core/views.ts", import.meta.url);
const { movedWith } = await tsImport("../src/core/transfer/index.ts", import.meta.url);
let answered = null;
parentPort.on("message", (message) => {
  if (message === "begin" || message === "forget") {
    // What was remembered of the job before goes.
    answered = message === "begin" ? createViewAnswering() : null;
    if (message === "begin") parentPort.postMessage("ready");
    return;
  }
  const answer = answered(message);
  parentPort.postMessage(answer, movedWith(answer.parcel));
});
