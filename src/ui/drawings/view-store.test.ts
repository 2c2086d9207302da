/** Views from another thread: drawn one by one, the last ones kept meanwhile, and drawn here when the thread fails. */
import { describe, expect, it } from "vitest";
import {
  type Edit,
  type Job,
  NO_ASSETS,
  type Page,
  type PageItem,
  plainPage,
  plainView,
  withEdit,
} from "@/core/job";
import { asksOfPages } from "@/core/paper-set";
import { STOCK, smallFrame } from "@/core/pipeline.fixture";
import { createViewAnswering, createViews } from "@/core/views";
import { waitingThreads } from "../common/thread.fixture";
import { createViewStore } from "./view-store";

const PAGE: Page = plainPage({
  id: "p" as Page["id"],
  heading: "P",
  paper: "a4",
});
const view = (id: string, side: "front" | "top"): PageItem =>
  plainView({
    id: id as PageItem["id"],
    page: "p",
    at: [100, 80],
    from: { kind: "named", side },
  });
const done = (job: Job, edit: Edit): Job => {
  const next = withEdit(job, edit);
  if (!next.ok) throw new Error("it is done");
  return next.value;
};
const START = done(done(smallFrame(), { kind: "setPages", pages: [PAGE] }), {
  kind: "setPageItems",
  items: [view("a", "front"), view("b", "top")],
});
const inputs = (job: Job) => ({ job, stockroom: STOCK, assets: NO_ASSETS });
const asks = (job: Job) => asksOfPages(job, [PAGE], null);

const threads = () => waitingThreads(createViewAnswering);

const drawnHere = (job: Job) => {
  const draw = createViews();
  return new Map(asks(job).map((asked) => [asked.id, draw(inputs(job), asked)]));
};

describe("views from another thread", () => {
  it("come one after the other, are those that are drawn here, and stand until new ones are there", () => {
    const { start, posted, next } = threads();
    const store = createViewStore(start);
    store.want(inputs(START), asks(START));
    expect([...store.shown().waiting]).toEqual(["a", "b"]);
    next();
    expect([...store.shown().views.keys()]).toEqual(["a"]);
    next();
    expect(store.shown().waiting.size).toBe(0);
    expect(store.shown().views).toEqual(drawnHere(START));
    const first = store.shown().views.get("a");
    // An edit of the page alone asks for nothing; one of the design sends what changed since then.
    const moved = done(START, {
      kind: "setPageItems",
      items: [{ ...view("a", "front"), at: [20, 20] } as PageItem],
    });
    store.want(inputs(moved), asks(moved));
    expect(posted).toHaveLength(2);
    const wider = done(moved, { kind: "setKeySize", id: "size-width", formula: "700", variant: null });
    store.want(inputs(wider), asks(wider));
    expect(posted).toHaveLength(3);
    expect(posted[2]?.job).toBeUndefined();
    expect(posted[2]?.diff?.updated.map(({ table }) => table)).toEqual(["keySizes", "pageItems"]);
    expect([...store.shown().waiting]).toEqual(["a", "b"]);
    expect(store.shown().views.get("a")).toBe(first);
    next();
    next();
    expect(store.shown().views).toEqual(drawnHere(wider));
  });

  it("that are no longer wanted are not waited for, and what is wanted last is what stands", () => {
    const { start, posted, next } = threads();
    const store = createViewStore(start);
    store.want(inputs(START), asks(START));
    const wider = done(START, { kind: "setKeySize", id: "size-width", formula: "700", variant: null });
    const widest = done(START, { kind: "setKeySize", id: "size-width", formula: "800", variant: null });
    store.want(inputs(wider), asks(wider));
    store.want(inputs(widest), asks(widest).slice(0, 1));
    next();
    next();
    next();
    expect(store.shown().waiting.size).toBe(0);
    expect(posted).toHaveLength(2);
    expect(store.shown().views.get("a")).toEqual(drawnHere(widest).get("a"));
  });

  it("are asked for again from a new thread when the first fails, and drawn here when that fails too", async () => {
    const { start, posted, fail, next } = threads();
    const store = createViewStore(start);
    let told = 0;
    store.subscribe(() => told++);
    store.want(inputs(START), asks(START));
    fail[0]?.();
    expect(posted).toHaveLength(2);
    expect(posted[1]?.job).toBeDefined();
    fail[1]?.();
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(store.shown().views).toEqual(drawnHere(START));
    expect(told).toBeGreaterThan(1);
    next();
    expect(store.shown().waiting.size).toBe(0);
  });
});
