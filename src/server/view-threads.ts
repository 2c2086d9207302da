/**
 * The views of many pages, drawn side by side: threads take those that come next while the server draws the page before. One that is
 * needed and that no thread has begun is drawn here, and so is one whose thread ended.
 */

import { availableParallelism } from "node:os";
import path from "node:path";
import { Worker } from "node:worker_threads";
import type { DrawnView, ViewAsked } from "@/core/drawing";
import { finished } from "@/core/kernel";
import type { SentDocument } from "@/core/sent-document";
import { createReceiver } from "@/core/transfer";
import { createViews, type ViewAnswer, type ViewMessage } from "@/core/views";

/** Fewer views are drawn before a thread has started. */
const LEAST_VIEWS = 6;
const MOST_THREADS = 4;
/** So many lie before a thread, that it need not wait for the server. */
const AHEAD = 2;

export type SideBySide = {
  /** The views of one page, by their ids; pages are asked for in their order. */
  readonly views: (asked: readonly ViewAsked[]) => Promise<ReadonlyMap<string, DrawnView>>;
  /** How many views threads have drawn so far. */
  readonly byThreads: () => number;
  readonly end: () => void;
};

type Begun = { readonly drawn: Promise<DrawnView | null>; readonly tell: (view: DrawnView | null) => void };

/** Draws the views of pages; `all`: those of all pages, in the order in which they will be asked for. To be ended in any case. */
export function viewsSideBySide(
  document: SentDocument,
  all: readonly ViewAsked[],
  threads = Math.min(MOST_THREADS, availableParallelism() - 1),
): SideBySide {
  const drawHere = createViews();
  const begun = new Map<string, Begun>();
  let byThreads = 0;
  let next = 0;
  const take = (): ViewAsked | null => {
    for (; next < all.length; next++) {
      const asked = all[next];
      if (asked && !begun.has(asked.id)) return asked;
    }
    return null;
  };
  const begin = ({ id }: ViewAsked): Begun => {
    let tell: Begun["tell"] = () => {};
    const drawn = new Promise<DrawnView | null>((resolve) => {
      tell = resolve;
    });
    const one = { drawn, tell };
    begun.set(id, one);
    return one;
  };
  const ends =
    all.length < LEAST_VIEWS ? [] : Array.from({ length: threads }, () => run(document, take, begin));
  return {
    views: async (asked) => {
      const views = new Map<string, DrawnView>();
      for (const one of asked) {
        const before = begun.get(one.id);
        if (!before) begin(one);
        const drawn = await before?.drawn;
        if (drawn) byThreads++;
        views.set(one.id, drawn ?? drawHere(document, one));
        // What a page has taken is not kept.
        begun.set(one.id, GONE);
      }
      return views;
    },
    byThreads: () => byThreads,
    end: () => {
      for (const end of ends) end();
    },
  };
}

const GONE: Begun = { drawn: Promise.resolve(null), tell: () => {} };

/** Runs one thread over what is to be taken; gives what ends that. */
function run(
  document: SentDocument,
  take: () => ViewAsked | null,
  begin: (asked: ViewAsked) => Begun,
): () => void {
  const worker = idle.pop() ?? startThread();
  const receive = createReceiver();
  const waiting: Begun[] = [];
  let sent = false;
  let isOver = false;
  const more = () => {
    while (!isOver && waiting.length < AHEAD) {
      const asked = take();
      if (!asked) return;
      waiting.push(begin(asked));
      const { job, stockroom, assets } = document;
      const message: ViewMessage = { number: 0, asked, ...(sent ? {} : { job, stockroom, assets }) };
      sent = true;
      worker.postMessage(message);
    }
  };
  const onMessage = (said: "ready" | ViewAnswer) => {
    if (said !== "ready") {
      waiting.shift()?.tell(finished(receive(said.parcel)) as DrawnView);
    }
    more();
  };
  const over = () => {
    isOver = true;
    worker.off("message", onMessage);
    worker.off("error", onError);
    worker.off("exit", over);
    for (const { tell } of waiting.splice(0)) tell(null);
  };
  const onError = (fault: Error) => {
    console.error("a thread that draws views ended:", fault.message);
    over();
  };
  worker.on("message", onMessage);
  worker.on("error", onError);
  // However it ends: what it had begun is drawn by the server.
  worker.on("exit", over);
  worker.postMessage("begin");
  return () => {
    if (isOver) return;
    const isBusy = waiting.length > 0;
    over();
    if (isBusy || idle.length >= MOST_THREADS) void worker.terminate();
    else {
      worker.postMessage("forget");
      idle.push(worker);
    }
  };
}

/** Threads that wait for the next job: one takes a moment to start. */
const held = globalThis as { rusticTallyViewThreads?: Worker[] };
held.rusticTallyViewThreads ??= [];
const idle = held.rusticTallyViewThreads;

function startThread(): Worker {
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), "bin", "view-drawer.mjs");
  // Not written as `new Worker`: the bundler would take the file in, and it is run from the sources.
  const worker = Reflect.construct(Worker, [file]) as Worker;
  // A server that ends does not wait for it.
  worker.unref();
  const gone = () => {
    const place = idle.indexOf(worker);
    if (place >= 0) idle.splice(place, 1);
  };
  worker.once("exit", gone);
  // What it was drawing is told to whoever waits for that.
  worker.on("error", gone);
  return worker;
}
