/**
 * Files read in a thread of its own with bounds of time and memory: whatever a stranger's file does to its reader, the server
 * goes on. The thread is kept for the next file, and ended when a file goes beyond its bounds.
 */
import path from "node:path";
import { Worker, type WorkerOptions } from "node:worker_threads";
import { err, type Problem, type Result } from "@/core/kernel";

type Bounds = {
  /** In the folder `bin`: it answers each message with what it made of it. */
  readonly script: string;
  readonly mostMs: number;
  readonly mostMemoryMb: number;
  /** What a file is called in a sentence. */
  readonly what: string;
  /** Why it is refused when it takes too long, and when its reader ends. */
  readonly tooLong: string;
  readonly unreadable: string;
};

type Answer<T> = Result<T, Problem>;

/** Threads by their scripts; they outlive a module that is loaded anew. */
const held = globalThis as { rusticTallyReaders?: Map<string, Worker> };
held.rusticTallyReaders ??= new Map();
const threads = held.rusticTallyReaders;

/** Reads one file after the other, each within `mostMs` or the bound of the thread. */
export function createThreadReader<A, T>(bounds: Bounds): (asked: A, mostMs?: number) => Promise<Answer<T>> {
  let last: Promise<unknown> = Promise.resolve();
  return (asked, mostMs = bounds.mostMs) => {
    const turn = last.then(() => readInThread<A, T>(bounds, asked, mostMs));
    last = turn.catch(() => null);
    return turn;
  };
}

async function readInThread<A, T>(bounds: Bounds, asked: A, mostMs: number): Promise<Answer<T>> {
  const before = threads.get(bounds.script);
  const read = await readBy<A, T>(before ?? startThread(bounds), bounds, asked, mostMs);
  // A thread that an earlier file had left dying says nothing of this one.
  const answer =
    read === "ended" && before ? await readBy<A, T>(startThread(bounds), bounds, asked, mostMs) : read;
  return answer === "ended" ? refused(bounds, bounds.unreadable) : answer;
}

const refused = ({ what }: Bounds, why: string) => err({ kind: "malformed", what, why } as const);

/** What a thread makes of a file; "ended": it ended before it said anything. */
function readBy<A, T>(
  worker: Worker,
  bounds: Bounds,
  asked: A,
  mostMs: number,
): Promise<Answer<T> | "ended"> {
  return new Promise((resolve) => {
    const end = (answer: Answer<T> | "ended", isBroken: boolean) => {
      clearTimeout(late);
      worker.off("message", onAnswer);
      worker.off("error", onError);
      worker.off("exit", onExit);
      if (isBroken) {
        forget(bounds, worker);
        void worker.terminate();
      }
      resolve(answer);
    };
    const onAnswer = (answer: Answer<T>) => end(answer, false);
    const onError = (fault: Error) => {
      console.error(`${bounds.script} ended:`, fault.message);
      end("ended", true);
    };
    const onExit = () => end("ended", true);
    const late = setTimeout(() => end(refused(bounds, bounds.tooLong), true), mostMs);
    worker.on("message", onAnswer);
    worker.on("error", onError);
    worker.on("exit", onExit);
    worker.postMessage(asked);
  });
}

function forget({ script }: Bounds, worker: Worker): void {
  if (threads.get(script) === worker) threads.delete(script);
}

function startThread(bounds: Bounds): Worker {
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), "bin", bounds.script);
  const options: WorkerOptions = { resourceLimits: { maxOldGenerationSizeMb: bounds.mostMemoryMb } };
  // Not written as `new Worker`: the bundler would take the file in, and it is run from the sources.
  const worker = Reflect.construct(Worker, [file, options]) as Worker;
  // A server that ends does not wait for it.
  worker.unref();
  // One that ends by itself, between two files, takes no file more.
  worker.once("exit", () => forget(bounds, worker));
  worker.on("error", () => forget(bounds, worker));
  threads.set(bounds.script, worker);
  return worker;
}
