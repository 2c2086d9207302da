import { describe, expect, it } from "vitest";
import type { SavedLayout } from "@/core/layout";
import { type History, type LayoutStep, NO_HISTORY, offered, stepped, withStep } from "./history";

const saved = (taskId: string, revision: number, releasedAt: number | null = null): SavedLayout =>
  ({ taskId, revision, releasedAt }) as unknown as SavedLayout;
const layout = (taskId: string, revision: number): LayoutStep => ({
  kind: "layout",
  variant: null,
  name: taskId,
  before: saved(taskId, revision),
  after: saved(taskId, revision + 1),
});
const EDIT = { kind: "edit" } as const;
const SERVER = { undo: "Move a point", redo: "Rename" };

const words = (
  history: History,
  which: "undo" | "redo",
  layouts: readonly SavedLayout[] = [],
  server = SERVER,
) => offered(history, which, server, layouts)?.words ?? null;

/** Takes what is offered, as often as there is something; the words in their order. */
function all(history: History, which: "undo" | "redo"): readonly [readonly string[], History] {
  const said: string[] = [];
  let now = history;
  for (let i = 0; i < 10; i++) {
    const next = offered(now, which, SERVER, []);
    if (!next) break;
    said.push(next.words);
    now = stepped(now, which, next.step);
    // What the server holds from before has no end here.
    if (now.past.length === 0 && which === "undo") break;
  }
  return [said, now];
}

describe("one history of edits and layouts", () => {
  it("takes back the newest first, whatever it was, and does it again in the same order", () => {
    const done = [EDIT, layout("ply", 1), EDIT, layout("tube", 4)].reduce(withStep, NO_HISTORY);
    const [undone, empty] = all(done, "undo");
    expect(undone).toEqual(["layout of tube", "Move a point", "layout of ply", "Move a point"]);
    const [again, back] = all(empty, "redo");
    expect(again.slice(0, 4)).toEqual(["Rename", "layout of ply", "Rename", "layout of tube"]);
    expect(back.past).toHaveLength(4);
  });

  it("goes on to what the server holds from an earlier sitting", () => {
    expect(words(NO_HISTORY, "undo")).toBe("Move a point");
    expect(words(NO_HISTORY, "redo")).toBe("Rename");
    const after = stepped(NO_HISTORY, "undo", EDIT);
    expect(after.future).toEqual([EDIT]);
    expect(words(after, "redo")).toBe("Rename");
    expect(words(NO_HISTORY, "undo", [], { undo: null as never, redo: null as never })).toBeNull();
  });

  it("offers nothing to do again once a layout was changed after an undo", () => {
    const undone = stepped(withStep(NO_HISTORY, EDIT), "undo", EDIT);
    expect(words(undone, "redo")).toBe("Rename");
    const changed = withStep(undone, layout("ply", 2));
    expect(words(changed, "redo")).toBeNull();
    expect(words(changed, "undo")).toBe("layout of ply");
  });

  it("passes over changes of a layout that has been released", () => {
    const history = [EDIT, layout("ply", 1)].reduce(withStep, NO_HISTORY);
    const released = [saved("ply", 2, 123)];
    const next = offered(history, "undo", SERVER, released);
    expect(next?.words).toBe("Move a point");
    expect(stepped(history, "undo", next?.step ?? EDIT).past).toEqual([]);
  });
});
