/** Throws a number of malformed inputs at every way in, and tells what threw, hung or ate memory. */
import { Worker } from "node:worker_threads";

/** Longer than any single input may take. */
const MOST_MS = 5_000;
const MOST_MEMORY_MB = 1_500;

export type Fault = {
  readonly target: string;
  readonly number: number;
  readonly why: string;
  readonly input: string;
};
export type Outcome = {
  readonly taken: number;
  readonly refused: number;
  readonly slowest: { readonly name: string; readonly ms: number };
  readonly faults: readonly Fault[];
};

type Said =
  | { readonly kind: "begun"; readonly i: number; readonly name: string; readonly input: string | Uint8Array }
  | {
      readonly kind: "done";
      readonly i: number;
      readonly name: string;
      readonly end: "taken" | "refused";
      readonly ms: number;
    }
  | {
      readonly kind: "thrown";
      readonly i: number;
      readonly name: string;
      readonly why: string;
      readonly input: string | Uint8Array;
    }
  | { readonly kind: "end" };

const shown = (input: string | Uint8Array) =>
  (typeof input === "string" ? input : Buffer.from(input).toString("base64")).slice(0, 4_000);

export type FuzzOptions = {
  readonly from?: number;
  /** How much slower the machine may be just now. */
  readonly slack?: number;
  /** What every input does on purpose, to see that it is told. */
  readonly harm?: "throw" | "hang" | "memory";
};

/** Inputs `from` to `from + count` of a seed. */
export async function fuzz(seed: number, count: number, options: FuzzOptions = {}): Promise<Outcome> {
  const { from = 0, slack = 1, harm = null } = options;
  let [taken, refused] = [0, 0];
  let slowest = { name: "", ms: 0 };
  const faults: Fault[] = [];
  const last = from + count;
  for (let next = from; next < last && faults.length < 20; ) {
    const begun = await new Promise<number>((resolve) => {
      let now: Extract<Said, { kind: "begun" }> | null = null;
      const worker = new Worker(new URL("./thread.mjs", import.meta.url), {
        workerData: { seed, from: next, count: last - next, harm },
        resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
      });
      let timer: ReturnType<typeof setTimeout> | undefined;
      const stop = (why: string | null) => {
        clearTimeout(timer);
        worker.removeAllListeners();
        if (why !== null && now)
          faults.push({ target: now.name, number: now.i, why, input: shown(now.input) });
        void worker.terminate();
        resolve(now ? now.i + 1 : last);
      };
      worker.on("message", (said: Said) => {
        clearTimeout(timer);
        if (said.kind === "end") {
          now = null;
          return stop(null);
        }
        if (said.kind === "begun") {
          now = said;
          timer = setTimeout(() => stop(`it hangs: more than ${MOST_MS * slack} ms`), MOST_MS * slack);
        } else if (said.kind === "thrown")
          faults.push({ target: said.name, number: said.i, why: said.why, input: shown(said.input) });
        else {
          if (said.end === "taken") taken++;
          else refused++;
          if (said.ms > slowest.ms) slowest = { name: said.name, ms: said.ms };
        }
        return undefined;
      });
      worker.on("error", (fault) => stop(`it ended the thread: ${fault.message}`));
    });
    next = begun;
  }
  return { taken, refused, slowest, faults };
}
