/** Sheets, scales and the places of views, against the standards that say them. */
import { describe, expect, it } from "vitest";
import { cross } from "../../geometry";
import { FOLLOWER_SIDES, type PageItem, PROJECTIONS, plainView, type ViewItem } from "../../job";
import { VIEW_DIRECTIONS, type ViewFrame, viewFrom } from "../lines";
import type { DrawnView } from "./drawn-view";
import { borderOf, lineWidths, SHEETS, sheetSize } from "./paper";
import { bestScale, offeredScales, readScale, scaleWords } from "./scales";
import { followerAxes, viewsAsked } from "./view-asked";
import { placesOfViews } from "./view-item";

describe("sheets", () => {
  it("of the A series are halves of one another with sides as 1 to the root of 2 (ISO 216: whole millimetres)", () => {
    const a = [SHEETS.a1, SHEETS.a2, SHEETS.a3, SHEETS.a4];
    for (const [i, larger] of a.slice(0, -1).entries()) {
      const smaller = a[i + 1];
      expect([smaller?.height, smaller?.width]).toEqual([larger.width, Math.floor(larger.height / 2)]);
      expect(larger.height / larger.width).toBeCloseTo(Math.SQRT2, 2);
    }
    // A0 is a square metre, A1 half of it.
    expect((SHEETS.a1.width * SHEETS.a1.height) / 1e6).toBeCloseTo(0.5, 3);
  });

  it("in inches are 8.5 × 11, 11 × 17, 17 × 22 and 22 × 34 (ANSI/ASME Y14.1)", () => {
    const inches = (["letter", "tabloid", "ansiC", "ansiD"] as const).map((paper) =>
      [SHEETS[paper].width, SHEETS[paper].height].map((mm) => Number((mm / 25.4).toFixed(6))),
    );
    expect(inches).toEqual([
      [8.5, 11],
      [11, 17],
      [17, 22],
      [22, 34],
    ]);
  });

  it("have a border of 20 mm at the left and 10 mm elsewhere (ISO 5457), lying as upright", () => {
    expect(borderOf({ paper: "a3", lying: true })).toEqual({ x0: 20, y0: 10, x1: 410, y1: 287 });
    expect(borderOf({ paper: "a4", lying: false })).toEqual({ x0: 20, y0: 10, x1: 200, y1: 287 });
    expect(sheetSize({ paper: "a4", lying: true })).toEqual({ width: 297, height: 210 });
    // Wide to narrow as 2 to 1 (ISO 128).
    for (const paper of ["a4", "a1", "ansiD"] as const)
      expect(lineWidths(paper).wide / lineWidths(paper).narrow).toBe(2);
  });
});

describe("scales", () => {
  it("are those of ISO 5455, in inches those of the foot, and each is read as it is written", () => {
    const words = offeredScales("mm").map((scale) => scaleWords(scale, "mm"));
    expect(words).toEqual([
      "50:1",
      "20:1",
      "10:1",
      "5:1",
      "2:1",
      "1:1",
      "1:2",
      "1:5",
      "1:10",
      "1:20",
      "1:50",
      "1:100",
      "1:200",
      "1:500",
      "1:1000",
    ]);
    for (const unit of ["mm", "in"] as const)
      for (const scale of offeredScales(unit)) {
        const read = readScale(scaleWords(scale, unit));
        expect(read.ok && read.value).toBeCloseTo(scale, 12);
      }
    expect(scaleWords(1 / 8, "in")).toBe("1 1/2 in = 1 ft");
    expect(scaleWords(1 / 7.5, "mm")).toBe("1:7.5");
  });

  it.each([
    ["1:8", 1 / 8],
    [" 3 / 4 ", 0.75],
    ["0.1", 0.1],
    ["1 1/2\" = 1'", 1 / 8],
    ["3/4 in = 1 ft", 1 / 16],
    ["1 = 1 ft", 1 / 12],
  ])("%s is read", (text, value) => {
    const read = readScale(text);
    expect(read.ok && read.value).toBeCloseTo(value, 12);
  });

  it.each(["0", "1:0", "-1:2", "a:b", "1:1000000", "1000000", "", "1:2:3"])("%s is refused", (text) => {
    expect(readScale(text).ok).toBe(false);
  });

  it("the best is the largest at which all fits", () => {
    expect(bestScale({ width: 1400, height: 900 }, { width: 150, height: 100 }, "mm")).toBe(0.1);
    expect(bestScale({ width: 1501, height: 900 }, { width: 150, height: 100 }, "mm")).toBe(0.05);
    expect(bestScale({ width: 9e6, height: 1 }, { width: 150, height: 100 }, "mm")).toBe(0.001);
  });
});

const front = viewFrom(VIEW_DIRECTIONS.front);
const same = (a: ViewFrame, b: ViewFrame) => {
  for (const axis of ["right", "up", "towards"] as const)
    for (const i of [0, 1, 2] as const) expect(a[axis][i]).toBeCloseTo(b[axis][i], 12);
};

describe("followers", () => {
  it("of the front show what ISO 5456-2 puts there: first angle the far side, third angle the near one", () => {
    // First angle: the view from the left stands right, that from above stands below. Third angle: the other way round.
    for (const [side, first, third] of [
      ["right", "left", "right"],
      ["left", "right", "left"],
      ["below", "top", "bottom"],
      ["above", "bottom", "top"],
    ] as const) {
      same(followerAxes(front, side, "first"), viewFrom(VIEW_DIRECTIONS[first]));
      same(followerAxes(front, side, "third"), viewFrom(VIEW_DIRECTIONS[third]));
    }
  });

  it("have square right-handed axes, and share the one along which they are in line", () => {
    for (const start of [front, viewFrom([1, -2, 0.7])])
      for (const projection of PROJECTIONS)
        for (const side of FOLLOWER_SIDES) {
          const axes = followerAxes(start, side, projection);
          const towards = cross(axes.right, axes.up);
          for (const i of [0, 1, 2] as const) expect(towards[i]).toBeCloseTo(axes.towards[i], 12);
          if (side === "left" || side === "right") expect(axes.up).toEqual(start.up);
          else expect(axes.right).toEqual(start.right);
        }
  });

  const view = (id: string, from: ViewItem["from"], more: Partial<ViewItem> = {}): ViewItem =>
    plainView({
      id: id as ViewItem["id"],
      page: "p",
      at: [100, 80],
      from,
      ...more,
    });
  const drawn = (x0: number, y0: number, x1: number, y1: number): DrawnView => ({
    pieces: [],
    lines: [],
    paths: { outline: [], edge: [], crease: [], hidden: [] },
    box: { x0, y0, x1, y1 },
    parts: [],
    grid: null,
    features: new Map(),
    tints: [],
    held: [],
    coming: null,
    loose: [],
    offsets: new Map(),
    origin: [0, 0],
    sections: [],
  });
  const follows = (of: string, side: (typeof FOLLOWER_SIDES)[number]) =>
    ({ kind: "follower", of, side, gap: 15 }) as const;

  it("stand beside their view at their gap, in line with it by heights or widths of the design", () => {
    const items: readonly PageItem[] = [
      view("side", follows("front", "right")),
      view("front", { kind: "named", side: "front" }),
      view("plan", follows("front", "below"), { at: [0, 0] }),
    ];
    const views = new Map([
      ["front", drawn(0, -900, 1400, 0)],
      // Something of it is hidden: it is less tall, and would be beside its place if middles were put in line.
      ["side", drawn(-600, -700, 0, 0)],
      ["plan", drawn(100, 0, 1400, 600)],
    ]);
    const places = placesOfViews({ scale: 0.1 }, items, views);
    const on = (id: string, at: readonly [number, number]) => {
      const place = places.get(id);
      const [x, y] = place?.onPaper(at) ?? [0, 0];
      return [(place?.at[0] ?? 0) + x, (place?.at[1] ?? 0) + y];
    };
    // The same height of the design, and the same width, lie on one line.
    expect(on("side", [0, -500])[1]).toBeCloseTo(on("front", [0, -500])[1] ?? 0, 9);
    expect(on("plan", [777, 0])[0]).toBeCloseTo(on("front", [777, 0])[0] ?? 0, 9);
    expect((on("side", [-600, 0])[0] ?? 0) - (on("front", [1400, 0])[0] ?? 0)).toBeCloseTo(15, 9);
    expect((on("plan", [0, 0])[1] ?? 0) - (on("front", [0, 0])[1] ?? 0)).toBeCloseTo(15, 9);
  });

  it("of a view that is gone stand nowhere and ask for nothing", () => {
    const items = [view("side", follows("gone", "right"))];
    expect(placesOfViews({ scale: 1 }, items, new Map()).size).toBe(0);
    expect(viewsAsked({ projection: "first" }, items, null, () => null)).toEqual([]);
  });
});
