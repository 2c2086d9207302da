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

async function readInThread(file: Uint8Array | string, mostMs: number): Promise<ListRows> {
  const before = held.rusticTallyListReader;
  const read = await readBy(before ?? startThread(), file, mostMs);
  // A thread that an earlier file had left dying says nothing of this one.
  return read === "ended" && before
    ? orUnreadable(await readBy(startThread(), file, mostMs))
    : orUnreadable(read);
}

const orUnreadable = (read: ListRows | "ended"): ListRows => (read === "ended" ? UNREADABLE : read);

/** What a thread makes of a file; "ended": it ended before it said anything. */
function readBy(worker: Worker, file: Uint8Array | string, mostMs: number): Promise<ListRows | "ended"> {
  return new Promise((resolve) => {
    const end = (answer: ListRows | "ended", isBroken: boolean) => {
      clearTimeout(late);
      worker.off("message", onAnswer);
      worker.off("error", onError);
      worker.off("exit", onExit);
      if (isBroken) {
        forget(worker);
        void worker.terminate();
      }
      resolve(answer);
    };
    const onAnswer = (answer: ListRows) => end(answer, false);
    const onError = (fault: Error) => {
      console.error("a list could not be read:", fault.message);
      end("ended", true);
    };
    const onExit = () => end("ended", true);
    const late = setTimeout(() => end(refuse("it takes too long to read; split it"), true), mostMs);
    worker.on("message", onAnswer);
    worker.on("error", onError);
    worker.on("exit", onExit);
    worker.postMessage(file);
  });
}

function forget(worker: Worker): void {
  if (held.rusticTallyListReader === worker) held.rusticTallyListReader = undefined;
}

function startThread(): Worker {
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), "bin", "list-reader.mjs");
  const options: WorkerOptions = { resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB } };
  // Not written as `new Worker`: the bundler would take the file in, and it is run from the sources.
  const worker = Reflect.construct(Worker, [file, options]) as Worker;
  // A server that ends does not wait for it.
  worker.unref();
  // One that ends by itself, between two files, takes no file more.
  worker.once("exit", () => forget(worker));
  worker.on("error", () => forget(worker));
  held.rusticTallyListReader = worker;
  return worker;
}
