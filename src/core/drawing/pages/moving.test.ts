import { describe, expect, it } from "vitest";
import { type PageItem, plainView } from "../../job";
import { caught, freePlace, movedItem } from "./moving";

const view: PageItem = plainView({
  id: "v" as PageItem["id"],
  page: "p",
  at: [100, 80],
});
const box = { x0: -10, y0: -5, x1: 10, y1: 5 };

describe("moving", () => {
  it("changes the place of what stands by itself, and the gap alone of what follows", () => {
    expect(movedItem({ item: view, box }, [3, -4])).toMatchObject({ at: [103, 76] });
    for (const [side, gap] of [
      ["right", 23],
      ["left", 17],
      ["above", 24],
      ["below", 16],
    ] as const) {
      const follower = { ...view, from: { kind: "follower", of: "x", side, gap: 20 } } as const;
      expect(movedItem({ item: follower, box }, [3, -4])).toMatchObject({ at: [100, 80], from: { gap } });
    }
  });

  it("takes a balloon off its ring to where it was put, and a size farther off along its own way", () => {
    const balloon: PageItem = {
      id: "b" as PageItem["id"],
      page: "p",
      kind: "balloon",
      view: "v",
      pieces: [{ record: "one", way: null, spot: null }],
      stands: { kind: "ring", side: "top", step: 0 },
    };
    const at = { x0: 40, y0: 20, x1: 49, y1: 29 };
    expect(movedItem({ item: balloon, box: at }, [1, 1])).toMatchObject({
      stands: { kind: "hand", at: [45.5, 25.5] },
    });
    const feature = { record: "one", way: null, place: "start, axis" };
    const size: PageItem = {
      id: "s" as PageItem["id"],
      page: "p",
      kind: "size",
      view: "v",
      measure: "horizontal",
      from: feature,
      to: feature,
      between: [],
      side: "top",
      out: 10,
      typed: null,
      brackets: false,
    };
    expect(movedItem({ item: size, box, way: [0, -1] }, [50, -4])).toMatchObject({ out: 14 });
  });

  it("catches edges and middles of others within reach, the nearest of them, and says along which lines", () => {
    const other = { x0: 50, y0: 100, x1: 90, y1: 140 };
    // Its left edge would come to 49: caught on 50; its middle to 119: caught on 120.
    expect(caught({ x0: 0, y0: 0, x1: 20, y1: 10 }, [49, 114], [other], 1.6)).toEqual({
      by: [50, 115],
      lines: [
        { axis: "x", at: 50 },
        { axis: "y", at: 120 },
      ],
    });
    expect(caught({ x0: 0, y0: 0, x1: 20, y1: 10 }, [45, 80], [other], 1.6)).toEqual({
      by: [45, 80],
      lines: [],
    });
  });

  it("finds a free room, clear of all that is taken, and the middle of the page where there is none", () => {
    const page = { paper: "a4", lying: true, titleBlock: false } as const;
    const taken = [{ x0: 0, y0: 0, x1: 150, y1: 210 }];
    const [x, y] = freePlace(page, taken, { width: 60, height: 40 });
    expect(x - 30).toBeGreaterThanOrEqual(156);
    expect([x + 30 <= 287, y - 20 >= 10]).toEqual([true, true]);
    expect(freePlace(page, taken, { width: 200, height: 40 })).toEqual([153.5, 105]);
  });
});
