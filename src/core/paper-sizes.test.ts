/** Sizes on the pages of a job: what they say, where they stand, and what becomes of them when the design changes. */
import { describe, expect, it } from "vitest";
import { overallSizes } from "./drawing";
import { toWorld } from "./geometry";
import { itemsOfPage, type Job, NO_ASSETS, type PageItem } from "./job";
import { at, seededRandom } from "./kernel";
import { asksOfPages } from "./paper-set";
import {
  at3,
  done,
  drawn,
  faultOf,
  type Kind,
  PAGE,
  placed,
  start,
  textsOf,
  view,
  withItems,
} from "./paper-set.fixture";
import { resultsOf, smallFrame } from "./pipeline.fixture";
import { featuresOf } from "./shape";

const size = (id: string, more: Partial<Kind<"size">>): Kind<"size"> => ({
  id: id as PageItem["id"],
  page: "p",
  kind: "size",
  view: "v",
  measure: "horizontal",
  from: { record: "left", way: null, place: "start, corner 1" },
  to: { record: "right", way: null, place: "start, corner 1" },
  between: [],
  side: "bottom",
  out: 10,
  typed: null,
  brackets: false,
  ...more,
});

describe("sizes", () => {
  const front = view("v", { from: { kind: "named", side: "front" } });
  const textOf = (job: Job, id: string) =>
    placed(job, id).items.flatMap((item) => (item.kind === "text" ? [item.text] : []));
  const ends = {
    // The long points of the mitred front rail, over all, and the feet of its legs.
    from: at3("front", "start, long point"),
    to: at3("front", "end, long point"),
  };

  it("say what is measured in the design, and follow it", () => {
    const job = withItems(
      start,
      front,
      size("width", ends),
      size("height", {
        measure: "vertical",
        from: at3("legLeft", "start, axis"),
        to: at3("shelfLow", "other face, front left"),
        side: "left",
      }),
      size("leg", {
        measure: "along",
        from: at3("legLeft", "start, axis"),
        to: at3("legLeft", "end, axis"),
        side: "own",
      }),
    );
    expect([textOf(job, "width"), textOf(job, "height"), textOf(job, "leg")]).toEqual([
      ["600"],
      ["100"],
      ["430"],
    ]);
    const wider = done(job, { kind: "setKeySize", id: "size-width", formula: "725", variant: null });
    expect(textOf(wider, "width")).toEqual(["725"]);
  });

  it("are written as their page says, its scale as well", () => {
    const job = withItems(start, front, size("width", ends));
    const style = { unit: "in", format: { kind: "fraction", denominator: 16 } } as const;
    const inches = done(job, { kind: "setPages", pages: [{ ...PAGE, lengths: style }] });
    // 600 mm are 23.622 in: 23 10/16, which is 23 5/8, or 600.075 mm.
    expect(textOf(inches, "width").join(" ")).toMatch(/^≈?23 5 8$/);
    expect(textsOf(inches)).toContain("1:5");
  });

  it("of pairs of places are as far apart as the places of the solids are, by themselves", () => {
    const { shape } = resultsOf(start);
    const all = [
      ...shape.members.map(({ member }) => member.id),
      ...shape.panels.map(({ panel }) => panel.id),
    ];
    const random = seededRandom(3);
    const pick = () => {
      const record = at(all, random.below(all.length));
      const found = featuresOf(shape, record);
      if (!found) throw new Error("it stands somewhere");
      const [name, local] = at([...found.places], random.below(found.places.size));
      return { feature: at3(record, name), world: toWorld(found.frame, local) };
    };
    for (let i = 0; i < 15; i++) {
      const [a, b] = [pick(), pick()];
      // From the front width runs right and height up; what lies behind one another falls together.
      const apart = Math.abs(a.world[0] - b.world[0]);
      const job = withItems(start, front, size("one", { from: a.feature, to: b.feature }));
      const one = placed(job, "one");
      if (apart < 0.01) expect(one.fault).toEqual({ kind: "placesTogether" });
      else {
        const text = one.items.flatMap((item) => (item.kind === "text" ? [item.text] : []))[0] ?? "";
        expect(Number(text.replace("≈", ""))).toBeCloseTo(apart, 1);
      }
    }
  });

  it("of fractions stand with the fraction stacked, those typed over carry an asterisk, references brackets", () => {
    const axes = { from: at3("legLeft", "start, axis"), to: at3("legRight", "start, axis") };
    const inch = done(start, {
      kind: "changeInfo",
      set: { format: { kind: "fraction", denominator: 16 } },
    });
    const job = withItems(
      { ...inch, info: { job: { ...inch.info.job, unit: "in" } } },
      front,
      size("one", axes),
    );
    // 560 in between the axes, as the formulas of that job say now; three quarters more have a fraction.
    expect(textOf(job, "one").join("|")).not.toContain("/");
    const half = done(job, { kind: "setKeySize", id: "size-width", formula: "620 3/4", variant: null });
    expect(textOf(half, "one")).toEqual(["580", "3", "4"]);
    expect(textOf(withItems(job, size("one", { ...ends, typed: "about 600" })), "one")).toEqual([
      "about 600 *",
    ]);
    expect(textOf(withItems(start, front, size("one", { ...ends, brackets: true })), "one")).toEqual([
      "(600)",
    ]);
  });

  it("of angles and holes read what is there", () => {
    const drilled = smallFrame({
      members: { brace: { name: "Brace", from: "E", to: "B", section: "lath" } },
    });
    const job = withItems(
      done(drilled, { kind: "setPages", pages: [PAGE] }),
      front,
      size("one", {
        measure: "angle",
        from: at3("legLeft", "axis"),
        to: at3("brace", "axis"),
        side: "own",
        out: 20,
      }),
    );
    // 560 wide, 450 high between the points: the brace leans by atan(560 / 450) from the leg.
    expect(textOf(job, "one")).toEqual([`${((Math.atan(560 / 450) * 180) / Math.PI).toFixed(2)}°`]);
    expect(faultOf(withItems(job, size("one", { measure: "diameter", ...ends })), "one")).toEqual({
      kind: "sizeWants",
      what: "hole",
    });
    expect(faultOf(withItems(job, size("one", { measure: "radius", ...ends, to: null })), "one")).toEqual({
      kind: "sizeWants",
      what: "rounding",
    });
  });

  it("of rounded corners stand outwards from the corner that is rounded", () => {
    const corner = (id: string, fromX: "left" | "right", radius: string) => ({
      id,
      x: "0",
      y: "0",
      fromX,
      fromY: "front" as const,
      radius,
    });
    const plate = smallFrame({
      panels: {
        plate: {
          name: "Plate",
          board: "ply",
          origin: ["0", "0", "0"],
          lengthAxis: ["1", "0", "0"],
          faceAxis: ["0", "-1", "0"],
          length: "300",
          width: "200",
          outline: [
            corner("a", "left", "0"),
            corner("b", "right", "60"),
            { ...corner("c", "right", "0"), fromY: "back" as const },
            { ...corner("d", "left", "0"), fromY: "back" as const },
          ],
        },
      },
    });
    const job = withItems(
      done(plate, { kind: "setPages", pages: [PAGE] }),
      view("v", { of: { kind: "pieces", records: ["plate"] }, from: { kind: "named", side: "front" } }),
      size("one", {
        measure: "radius",
        from: at3("plate", "rounding b, middle on the good face"),
        to: null,
        side: "own",
        out: 8,
      }),
    );
    expect(textOf(job, "one")).toEqual(["R 60"]);
    const { way, box } = placed(job, "one");
    // Its corner is the right one at the foot of the view, 300 × 200 to a scale of 1:5.
    expect(way?.[0]).toBeCloseTo(Math.SQRT1_2, 6);
    expect(way?.[1]).toBeCloseTo(Math.SQRT1_2, 6);
    expect(box.x0).toBeGreaterThan(18);
    expect(box.x1).toBeGreaterThan(30);
    expect(
      faultOf(
        withItems(
          job,
          size("one", { measure: "radius", from: at3("plate", "good face, corner a"), to: null }),
        ),
        "one",
      ),
    ).toEqual({ kind: "sizeWants", what: "rounding" });
  });

  it("that have lost what they measure stay and say so, also in a view at an angle", () => {
    const job = withItems(start, front, size("one", ends));
    const gone = done(job, { kind: "remove", ids: ["front"] });
    expect(faultOf(gone, "one")).toEqual({ kind: "sizeLost" });
    expect(textOf(gone, "one")).toEqual(["lost: pick again"]);
    expect(faultOf(withItems(job, view("v")), "one")).toEqual({ kind: "sizeSeenAtAngle" });
    const same = size("one", { from: ends.from, to: ends.from });
    expect(faultOf(withItems(job, same), "one")).toEqual({ kind: "placesTogether" });
  });

  it("over all are as large as the view, in rows beyond those that are there", () => {
    const job = withItems(start, front, size("one", { ...ends, out: 10 }));
    const { page, results } = drawn(job);
    const [asked, ring] = [at(asksOfPages(job, [PAGE], null), 0), page.rings.get("v")];
    if (!ring) throw new Error("the view is there");
    const ground = { shape: results.shape, asked, assets: NO_ASSETS, drawn: ring.drawn, place: ring.place };
    const there = itemsOfPage(job, "p").flatMap((item) => (item.kind === "size" ? [item] : []));
    const made = overallSizes(ground, there);
    expect(made.map(({ measure, side, out }) => [measure, side, out])).toEqual([
      ["horizontal", "bottom", 17],
      ["vertical", "left", 10],
    ]);
    const with2 = withItems(job, ...made.map((one, i) => size(`new${i}`, one)));
    expect([textOf(with2, "new0"), textOf(with2, "new1")]).toEqual([["600"], ["470"]]);
  });
});
