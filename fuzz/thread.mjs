// The thread that takes inputs through, so that one that hangs or eats memory ends with it.
import { parentPort, workerData } from "node:worker_threads";
import { fromSources } from "../bin/sources.mjs";

const { TARGETS, seededRandom } = await fromSources("fuzz/targets.ts", "src/core/kernel/index.ts");
const { seed, from, count, harm } = workerData;

/** On purpose: whether the watch sees it. */
function doHarm() {
  if (harm === "throw") throw new Error("thrown on purpose");
  while (harm === "hang");
  const eaten = [];
  while (harm === "memory") eaten.push(new Array(100_000).fill(eaten.length));
}

for (let i = from; i < from + count; i++) {
  const target = TARGETS[i % TARGETS.length];
  const one = target.make(seededRandom(seed * 1_000_003 + i));
  parentPort.postMessage({ kind: "begun", i, name: target.name, input: one.input });
  const start = performance.now();
  try {
    doHarm();
    const end = await one.run();
    parentPort.postMessage({ kind: "done", i, name: target.name, end, ms: performance.now() - start });
  } catch (fault) {
    const why = fault instanceof Error ? (fault.stack ?? fault.message) : String(fault);
    parentPort.postMessage({
      kind: "thrown",
      i,
      name: target.name,
      why: why.slice(0, 1500),
      input: one.input,
    });
  }
}
parentPort.postMessage({ kind: "end" });
