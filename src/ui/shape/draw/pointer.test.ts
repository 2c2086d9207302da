import { describe, expect, it } from "vitest";
import type { Vec3 } from "@/core/geometry";
import type { SnapLine, SnapPlace } from "@/core/shape";
import { createCatcher, type Spot } from "./pointer";

const place = (at: Vec3, point: string | null): SnapPlace => ({
  at,
  point,
  texts: () => ["0", "0", "0"],
  words: () => point ?? "a place",
});

/** Seen from the front at half size; counts how often it is asked. */
function front() {
  let asked = 0;
  const project = ([x, , z]: Vec3): Spot => {
    asked++;
    return { x: x / 2, y: 300 - z / 2 };
  };
  return { project, asked: () => asked };
}

describe("what the pointer catches", () => {
  const snaps = [place([0, 0, 0], null), place([6, 0, 0], "P1"), place([200, 0, 100], "P2")];
  const lines: readonly SnapLine[] = [{ id: "l", from: [0, 0, 400], to: [400, 0, 400], words: "Rail" }];

  it("is the nearest place within reach, a point before others that are as near; nothing farther off", () => {
    const { project } = front();
    const { place: caught } = createCatcher(
      () => snaps,
      () => [],
      project,
    );
    // Half way between the two first places: the point wins. At the first one it is 3 px farther, which is as near as it counts.
    expect(caught({ x: 1.5, y: 300 })?.point).toBe("P1");
    expect(caught({ x: -3, y: 300 })?.point).toBeNull();
    expect(caught({ x: 100, y: 258 })?.point).toBe("P2");
    expect(caught({ x: 100, y: 230 })).toBeNull();
  });

  it("is a length along a line in whole steps, between its ends", () => {
    const { project } = front();
    const { onLine } = createCatcher(
      () => [],
      () => lines,
      project,
    );
    expect(onLine({ x: 61, y: 103 }, 10)).toMatchObject({ mm: 120, at: [120, 0, 400] });
    expect([onLine({ x: 61, y: 120 }, 10), onLine({ x: 199.9, y: 100 }, 10)]).toEqual([null, null]);
  });

  it("is looked for among places that were seen once in a view", () => {
    const { project, asked } = front();
    let made = 0;
    const catcher = createCatcher(
      () => {
        made++;
        return snaps;
      },
      () => lines,
      project,
    );
    expect([made, asked()]).toEqual([0, 0]);
    for (let x = 0; x < 50; x++) {
      catcher.place({ x, y: 300 });
      catcher.onLine({ x, y: 100 }, 10);
    }
    expect(asked()).toBe(snaps.length + 2 * lines.length);
  });
});
