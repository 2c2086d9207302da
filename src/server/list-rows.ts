/**
 * Rows of a list file, read in a thread of its own with bounds of time and memory: whatever a stranger's file does to its
 * reader, the server goes on. The thread is kept for the next file, and ended when a file goes beyond its bounds.
 */
import path from "node:path";
import { Worker, type WorkerOptions } from "node:worker_threads";
import { err, type Problem, type Result } from "@/core/kernel";

export type ListRows = Result<readonly (readonly string[])[], Problem>;

const MOST_MS = 20_000;
const MOST_MEMORY_MB = 512;

const refuse = (why: string): ListRows => err({ kind: "malformed", what: "The list", why });

const UNREADABLE = refuse("it cannot be read; save it again, as CSV or XLSX");

const held = globalThis as { rusticTallyListReader?: Worker | undefined };
let last: Promise<unknown> = Promise.resolve();

/** Reads one file after the other. */
export function readListRows(file: Uint8Array | string, mostMs = MOST_MS): Promise<ListRows> {
  const turn = last.then(() => readInThread(file, mostMs));
  last = turn.catch(() => null);
  return turn;
}

function readInThread(file: Uint8Array | string, mostMs: number): Promise<ListRows> {
  held.rusticTallyListReader ??= startThread();
  const worker = held.rusticTallyListReader;
  return new Promise((resolve) => {
    const end = (answer: ListRows, isBroken: boolean) => {
      clearTimeout(late);
      worker.off("message", onAnswer);
      worker.off("error", onError);
      worker.off("exit", onExit);
      if (isBroken) {
        held.rusticTallyListReader = undefined;
        void worker.terminate();
      }
      resolve(answer);
    };
    const onAnswer = (answer: ListRows) => end(answer, false);
    const onError = (fault: Error) => {
      console.error("a list could not be read:", fault.message);
      end(UNREADABLE, true);
    };
    const onExit = () => end(UNREADABLE, true);
    const late = setTimeout(() => end(refuse("it takes too long to read; split it"), true), mostMs);
    worker.on("message", onAnswer);
    worker.on("error", onError);
    worker.on("exit", onExit);
    worker.postMessage(file);
  });
}

function startThread(): Worker {
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), "bin", "list-reader.mjs");
  const options: WorkerOptions = { resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB } };
  // Not written as `new Worker`: the bundler would take the file in, and it is run from the sources.
  const worker = Reflect.construct(Worker, [file, options]) as Worker;
  // A server that ends does not wait for it.
  worker.unref();
  return worker;
}
