/** Views that are pulled apart: where pieces stand in them, and what is told. */
import { describe, expect, it } from "vitest";
import type { PageItem } from "./job";
import { at3, drawn, faultOf, type Kind, start, view, withItems } from "./paper-set.fixture";
import { plainSize } from "./placing";

const boxOf = (more: Partial<Kind<"view">>) => {
  const { page } = drawn(withItems(start, view("v", { from: { kind: "named", side: "front" }, ...more })));
  const ring = page.rings.get("v");
  if (!ring) throw new Error("the view is there");
  return { box: ring.drawn.box ?? { x0: 0, y0: 0, x1: 0, y1: 0 }, drawn: ring.drawn };
};

describe("a view pulled apart", () => {
  it("is the whole at the beginning of the slider, and grows along it", () => {
    const [whole, none, half, all] = [null, 0, 0.5, 1].map((apart) => boxOf({ apart }).box);
    expect(none).toEqual(whole);
    const width = (box: typeof whole) => (box ? box.x1 - box.x0 + box.y1 - box.y0 : 0);
    expect(width(half)).toBeGreaterThan(width(whole));
    expect(width(all)).toBeGreaterThan(width(half));
    // In between pieces stand half as far from their places.
    expect(width(half) - width(whole)).toBeLessThan(width(all) - width(whole));
  });

  it("has a fine line back for each piece that moved", () => {
    const { drawn: apart } = boxOf({ apart: 1 });
    const lines = new Map<string, number>();
    for (const { owners, kind } of apart.lines)
      if (kind === "crease")
        for (const owner of owners) {
          const record = apart.pieces[owner]?.record ?? "";
          lines.set(record, (lines.get(record) ?? 0) + 1);
        }
    expect(apart.pieces.length).toBeGreaterThan(boxOf({}).drawn.pieces.length);
    expect(lines.size).toBeGreaterThan(0);
  });

  it("has pieces where a hand put them", () => {
    const [record] = Object.keys(start.members);
    const { box: before } = boxOf({ apart: 1 });
    const { box: up } = boxOf({ apart: 1, apartBy: [{ record: record ?? "", by: [0, 0, 3000] }] });
    // The front view has heights upwards on paper, in mm of the design.
    expect(before.y0 - up.y0).toBeGreaterThan(1500);
    const { box: half } = boxOf({ apart: 0.5, apartBy: [{ record: record ?? "", by: [0, 0, 3000] }] });
    expect(half.y0 - up.y0).toBeCloseTo(1500, 0);
  });

  it("tells that nothing can be measured in it", () => {
    const item = view("v", { from: { kind: "named", side: "front" } });
    const [record] = Object.keys(start.members);
    const sized = plainSize({
      id: "s" as PageItem["id"],
      page: "p",
      view: "v",
      measure: "along",
      from: at3(record ?? "", "start, axis"),
      to: at3(record ?? "", "end, axis"),
      side: "own",
      out: 10,
    });
    const faultAt = (apart: number | null) => faultOf(withItems(start, { ...item, apart }, sized), "s");
    expect(faultAt(null)).toBeNull();
    expect(faultAt(1)).toEqual({ kind: "sizeInApartView" });
  });
});

describe("a view in which some pieces stand out", () => {
  const [record] = Object.keys(start.members);
  const inks = (strong: readonly string[]) => {
    const { page } = drawn(withItems(start, view("v", { strong: [...strong] })));
    const [item] = page.placed;
    return new Set(
      item?.items.flatMap((one) => (one.kind === "paths" && one.stroke ? [one.stroke.ink] : [])),
    );
  };

  it("has all others pale, and no pale line where none does", () => {
    expect(inks([])).toEqual(new Set(["ink"]));
    expect(inks([record ?? ""])).toEqual(new Set(["seam", "ink"]));
  });
});
