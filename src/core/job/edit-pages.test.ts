import { describe, expect, it } from "vitest";
import {
  applyDiff,
  applyEdit,
  copyOfPage,
  type Edit,
  itemsOfPage,
  type Job,
  lawFault,
  pagesInOrder,
  plainPage,
  plainView,
  reverseDiff,
} from ".";
import { edited, job as frame, refusal } from "./edit.fixture";
import type { Page } from "./page";
import type { PageItem } from "./page-item";

const page = (id: string, more: Partial<Page> = {}): Page =>
  plainPage({
    id: id as Page["id"],
    heading: id,
    ...more,
  });
type View = Extract<PageItem, { kind: "view" }>;
const view = (id: string, more: Partial<View> = {}): View =>
  plainView({
    id: id as View["id"],
    page: "one",
    at: [100, 100],
    ...more,
  });
const follower = (id: string, of: string, more: Partial<View> = {}) =>
  view(id, { from: { kind: "follower", of, side: "right", gap: 20 }, ...more });
const balloon = (id: string, of: string, onPage = "one"): PageItem => ({
  id: id as View["id"],
  page: onPage,
  kind: "balloon",
  view: of,
  pieces: [{ record: "front", way: null, spot: null }],
  stands: { kind: "ring", side: "top", step: 0 },
});
const put = (...items: PageItem[]): Edit => ({ kind: "setPageItems", items });

const job = edited(
  put(view("front"), follower("side", "front"), follower("further", "side"), balloon("b", "side")),
  edited({ kind: "setPages", pages: [page("one"), page("two", { position: 1 })] }, frame),
);

describe("pages and what stands on them", () => {
  it("a view goes with all that belongs to it and follows it, at any depth, and comes back as it was", () => {
    const diff = applyEdit(job, { kind: "removePageItems", ids: ["side"] });
    if (!diff.ok) throw new Error("it is removed");
    const after = applyDiff(job, diff.value);
    expect(Object.keys(after.pageItems)).toEqual(["front"]);
    expect(lawFault(after)).toBeNull();
    expect(applyDiff(after, reverseDiff(diff.value))).toEqual(job);
  });

  it("a page goes with what stands on it", () => {
    const after = edited({ kind: "removePages", ids: ["one"] }, job);
    expect([Object.keys(after.pages), Object.keys(after.pageItems)]).toEqual([["two"], []]);
  });

  it("nothing belongs to a view that is not there, that stands on another page, or that would follow itself", () => {
    expect(refusal(put(balloon("x", "nothing")), job)).toBe('The view "nothing" is not on the page.');
    expect(refusal(put(balloon("x", "front", "two")), job)).toBe('The view "front" stands on another page.');
    expect(refusal(put(follower("front", "further")), job)).toBe('The view "front" would follow itself.');
    expect(refusal(put(balloon("x", "b")), job)).toBe('The view "b" is not on the page.');
    expect(refusal(put(view("x", { page: "gone" })), job)).toContain("gone");
    expect(refusal(put({ ...balloon("side", "front") }), job)).toBe('The item "side" is a view.');
    expect(refusal({ kind: "removePageItems", ids: ["front", "nothing"] }, job)).toContain("nothing");
  });

  it("a copy stands after its page, holds copies of all of it, and nothing of the two is shared", () => {
    let count = 0;
    const edits = copyOfPage(job, "one", (kind) => `${kind}-${count++}`);
    const after = (edits ?? []).reduce<Job>((one, edit) => edited(edit, one), job);
    expect(pagesInOrder(after).map(({ heading }) => heading)).toEqual(["one", "one (copy)", "two"]);
    const [, copy] = pagesInOrder(after);
    const items = itemsOfPage(after, copy?.id ?? "");
    const ids = new Set<string>(items.map(({ id }) => id));
    expect(items).toHaveLength(4);
    for (const item of items) {
      if (item.kind === "balloon") expect(ids.has(item.view)).toBe(true);
      if (item.kind === "view" && item.from.kind === "follower") expect(ids.has(item.from.of)).toBe(true);
    }
    expect(itemsOfPage(after, "one")).toEqual(itemsOfPage(job, "one"));
    expect(copyOfPage(job, "gone", () => "")).toBeNull();
  });

  it("a document whose page item names what is not there breaks the laws", () => {
    const stray = { ...job, pageItems: { ...job.pageItems, b: balloon("b", "gone") } };
    expect(lawFault(stray)).toBe("page item b names gone, which is not there");
  });
});
