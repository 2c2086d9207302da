// A thread that draws views of pages for the server, from the TypeScript sources: one job after the other.
import { parentPort } from "node:worker_threads";
import { fromSources } from "./sources.mjs";

const { createViewAnswering, movedWith } = await fromSources(
  "src/core/views.ts",
  "src/core/transfer/index.ts",
);
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
