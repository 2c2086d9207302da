/** Which pieces the pages place, from another thread: the newest design is checked, questions go first, and failures are told. */
import { describe, expect, it } from "vitest";
import { type Edit, type Job, NO_ASSETS, type Page, plainPage, plainView, withEdit } from "@/core/job";
import { STOCK, smallFrame } from "@/core/pipeline.fixture";
import { createPlacingAnswering, createPlacings, type PlacingInputs } from "@/core/placings";
import { waitingThreads } from "../common/thread.fixture";
import { createPlacingStore } from "./placing-store";

const done = (job: Job, edit: Edit): Job => {
  const next = withEdit(job, edit);
  if (!next.ok) throw new Error("it is done");
  return next.value;
};
const START = done(
  done(smallFrame(), {
    kind: "setPages",
    pages: [plainPage({ id: "p" as Page["id"], heading: "P", paper: "a3" })],
  }),
  {
    kind: "setPageItems",
    items: [
      plainView({ id: "front" as never, page: "p", at: [100, 80] }),
      plainView({ id: "top" as never, page: "p", at: [100, 200], from: { kind: "named", side: "top" } }),
    ],
  },
);
const WIDER = done(START, { kind: "setKeySize", id: "size-width", formula: "700", variant: null });
const inputs = (job: Job): PlacingInputs => ({ job, stockroom: STOCK, assets: NO_ASSETS, variant: null });
const threads = () => waitingThreads(createPlacingAnswering);

describe("which pieces are placed, from another thread", () => {
  it("is what is found here, of the newest design, and the last report stands meanwhile", () => {
    const { start, posted, next } = threads();
    const store = createPlacingStore(start);
    store.want(inputs(START));
    expect(store.shown()).toEqual({ report: null, isOld: true, hasFailed: false });
    next();
    const first = store.shown().report;
    expect(first).toEqual(createPlacings().check(inputs(START)));
    expect(first?.loose.length).toBeGreaterThan(0);
    expect(first?.confirmed).toBe(true);
    store.want(inputs(WIDER));
    expect(store.shown()).toEqual({ report: first, isOld: true, hasFailed: false });
    next();
    expect(store.shown()).toEqual({
      report: createPlacings().check(inputs(WIDER)),
      isOld: false,
      hasFailed: false,
    });
    expect(posted[1]?.job).toBeUndefined();
    // Nothing changed: nothing is asked.
    store.want(inputs(WIDER));
    expect(posted).toHaveLength(2);
  });

  it("answers questions before the next check, with the sizes that would place what is loose", async () => {
    const { start, posted, next } = threads();
    const store = createPlacingStore(start);
    store.want(inputs(START));
    store.want(inputs(WIDER));
    const asked = store.ask({ kind: "propose", page: "p", only: null });
    next();
    expect(posted.map(({ question }) => question.kind)).toEqual(["check", "propose"]);
    next();
    const proposed = await asked;
    expect(proposed).toEqual(createPlacings().propose(inputs(WIDER), "p", null));
    expect(Array.isArray(proposed) && proposed.length).toBeGreaterThan(2);
    const how = store.ask({ kind: "how", record: "nobody" });
    next();
    next();
    next();
    expect(await how).toBeNull();
  });

  it("waits with the check, not with questions, while there is more to be drawn", () => {
    const { start, posted } = threads();
    const store = createPlacingStore(start);
    store.want(inputs(START), false);
    expect(posted).toHaveLength(0);
    void store.ask({ kind: "propose", page: "p", only: null });
    expect(posted.map(({ question }) => question.kind)).toEqual(["propose"]);
    store.want(inputs(START), true);
    expect(store.shown().isOld).toBe(true);
  });

  it("starts anew once, then says that nothing can be checked, and leaves no question without an answer", async () => {
    const { start, posted, fail, next } = threads();
    const store = createPlacingStore(start);
    store.want(inputs(START));
    fail[0]?.();
    expect(posted[1]?.job).toBeDefined();
    const asked = store.ask({ kind: "how", record: "nobody" });
    fail[1]?.();
    expect(await asked).toBeNull();
    expect(store.shown().hasFailed).toBe(true);
    expect(await store.ask({ kind: "check" })).toBeNull();
    next();
    expect(store.shown().report).toBeNull();
  });
});
