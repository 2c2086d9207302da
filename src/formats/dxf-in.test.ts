import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { circlePath, pathOfCorners } from "@/core/drawing/path";
import { bulgedCorners, filletCorners, loopArea, reach, roundedPolygon, type Vec2 } from "@/core/geometry";
import { newPanel, panelFromDrawing } from "@/core/job";
import { at, sentence } from "@/core/kernel";
import { drawingToDxf } from "./dxf";
import { readOutline } from "./dxf-in";

/** Groups of a DXF file, as the DXF reference has them: code and value on lines of their own. */
const dxf = (entities: readonly (readonly (readonly [number, string | number])[])[], insunits = 4) =>
  [
    [0, "SECTION"],
    [2, "HEADER"],
    [9, "$INSUNITS"],
    [70, insunits],
    [0, "ENDSEC"],
    [0, "SECTION"],
    [2, "ENTITIES"],
    ...entities.flat(),
    [0, "ENDSEC"],
    [0, "EOF"],
  ]
    .map(([code, value]) => `${code}\n${value}`)
    .join("\n");
const line = (x: number, y: number, toX: number, toY: number) =>
  [
    [0, "LINE"],
    [8, "0"],
    [10, x],
    [20, y],
    [30, 0],
    [11, toX],
    [21, toY],
    [31, 0],
  ] as const;
const arc = (x: number, y: number, radius: number, from: number, to: number) =>
  [
    [0, "ARC"],
    [8, "0"],
    [10, x],
    [20, y],
    [30, 0],
    [40, radius],
    [50, from],
    [51, to],
  ] as const;
const circle = (x: number, y: number, radius: number) =>
  [
    [0, "CIRCLE"],
    [8, "0"],
    [10, x],
    [20, y],
    [30, 0],
    [40, radius],
  ] as const;

/** A lug of 40 × 55 whose end is half a circle, in no order and partly backwards, away from the origin. */
const LUG = [
  line(140, 200, 100, 200),
  arc(120, 235, 20, 0, 180),
  line(140, 200, 140, 235),
  line(100, 235, 100, 200),
  circle(120, 235, 5.5),
];
const read = (text: string) => {
  const found = readOutline("lug.dxf", text);
  if (!found.ok) throw new Error(sentence(found.problem));
  return found.value;
};
const areaOf = ({ corners }: ReturnType<typeof read>) =>
  loopArea(roundedPolygon(corners.map(({ x, y, radius }) => ({ at: [x, y] as Vec2, radius }))));
const why = (text: string) => {
  const found = readOutline("part.dxf", text);
  return found.ok ? null : sentence(found.problem);
};

describe("the outline of a piece from a DXF file", () => {
  it("is joined from lines and arcs in any order; its size, area and holes are those drawn", () => {
    const lug = read(dxf(LUG));
    expect([lug.length, lug.width]).toEqual([expect.closeTo(40, 9), expect.closeTo(55, 9)]);
    expect(areaOf(lug)).toBeWithinMm(40 * 35 + (Math.PI * 20 ** 2) / 2, 1e-6);
    expect(lug.holes).toEqual([{ x: expect.closeTo(20, 9), y: expect.closeTo(35, 9), diameter: 11 }]);
  });

  it("is read in inches, and from the back of its plane as it is seen there", () => {
    expect(read(dxf(LUG, 1)).length).toBeWithinMm(40 * 25.4, 1e-6);
    const back = read(
      dxf([
        [
          [0, "LWPOLYLINE"],
          [8, "0"],
          [90, 3],
          [70, 1],
          [10, 0],
          [20, 0],
          [10, 100],
          [20, 0],
          [10, 0],
          [20, 50],
          [210, 0],
          [220, 0],
          [230, -1],
        ],
      ]),
    );
    // Mirrored: the right angle stands at the right.
    expect(back.corners.some(({ x, y }) => Math.abs(x - 100) < 1e-9 && Math.abs(y - 50) < 1e-9)).toBe(true);
  });

  it("may be round itself, with a hole in it", () => {
    const disc = read(dxf([circle(50, 50, 40), circle(50, 50, 10)]));
    expect(disc.length).toBeWithinMm(80, 1e-9);
    expect(areaOf(disc)).toBeWithinMm(Math.PI * 1600, 1e-6);
    expect(disc.holes).toHaveLength(1);
  });

  it("may be a spline with weights: an ellipse as ezdxf 1.4 writes one", () => {
    const half = Math.SQRT1_2;
    const corners = [
      [190, 60, 1],
      [190, 105, half],
      [100, 105, 1],
      [10, 105, half],
      [10, 60, 1],
      [10, 15, half],
      [100, 15, 1],
      [190, 15, half],
      [190, 60, 1],
    ] as const;
    const knots = [0, 0, 0, 0.25, 0.25, 0.5, 0.5, 0.75, 0.75, 1, 1, 1].map((knot) => [40, knot] as const);
    const oval = read(
      dxf([
        [
          [0, "SPLINE"],
          [8, "0"],
          [70, 4],
          [71, 2],
          [72, 12],
          [73, 9],
          [74, 0],
          ...knots,
          ...corners.map(([, , weight]) => [41, weight] as const),
          ...corners.flatMap(([x, y]) => [[10, x] as const, [20, y] as const, [30, 0] as const]),
        ],
      ]),
    );
    expect(oval.length).toBeWithinMm(180, 0.01);
    expect(oval.width).toBeWithinMm(90, 0.01);
    expect(Math.abs(areaOf(oval) - Math.PI * 90 * 45)).toBeLessThan(0.01 * 450);
  });

  it("may have cut-outs: a triangle, a slot of lines and arcs", () => {
    const slot = [
      line(10, 20, 30, 20),
      arc(30, 25, 5, -90, 90),
      line(30, 30, 10, 30),
      arc(10, 25, 5, 90, 270),
    ];
    const triangle = [line(-5, -5, 5, -5), line(5, -5, 0, 5), line(0, 5, -5, -5)];
    const disc = read(dxf([circle(0, 0, 50), ...triangle, ...slot]));
    expect(disc.holes).toEqual([]);
    const areas = disc.cutOuts.map((corners) =>
      loopArea(roundedPolygon(corners.map(({ x, y, radius }) => ({ at: [x, y] as Vec2, radius })))),
    );
    expect(areas.toSorted((a, b) => a - b)).toEqual([
      expect.closeTo(50, 6),
      expect.closeTo(200 + Math.PI * 25, 6),
    ]);
  });

  it.each([
    ["no DXF", "PNG", "no pairs of code and value"],
    ["an open chain", dxf([line(0, 0, 10, 0), line(10, 0, 10, 10)]), "do not close"],
    ["two pieces", dxf([circle(0, 0, 10), circle(100, 0, 5)]), "more than one piece"],
    [
      "a piece in a hole of another",
      dxf([circle(0, 0, 50), circle(0, 0, 20), circle(0, 0, 5)]),
      "more than one",
    ],
    [
      "a spline",
      dxf([
        [
          [0, "SPLINE"],
          [8, "0"],
          [71, 3],
        ],
      ]),
      "a spline",
    ],
    ["nothing", dxf([]), "no closed outline"],
    ["an unknown unit", dxf(LUG, 19), "its unit"],
  ])("%s is told in a sentence", (_, text, words) => {
    expect(why(text)).toContain(words);
  });

  it.each(["mm", "in", "ft"] as const)("comes back from our own file as it left, of a job in %s", (unit) => {
    const corners = roundedPolygon([
      { at: [0, 0], radius: 12 },
      { at: [160, 0], radius: 0 },
      { at: [160, 40], radius: 8 },
      { at: [60, 40], radius: 15 },
      { at: [60, 120], radius: 0 },
      { at: [0, 120], radius: 20 },
    ]);
    const stroke = { ink: "ink", width: 0.25 } as const;
    const flip = ([x, y]: Vec2): Vec2 => [x, 200 - y];
    const text = drawingToDxf(
      {
        width: 200,
        height: 200,
        items: [
          {
            kind: "paths",
            layer: "PANELS",
            paths: [pathOfCorners(bulgedCorners(corners), flip)],
            stroke,
            fill: null,
          },
          { kind: "paths", layer: "HOLES", paths: [circlePath(flip([30, 60]), 6)], stroke, fill: null },
          {
            kind: "text",
            layer: "LABELS",
            at: [10, 190],
            size: 8,
            text: "A",
            face: "text",
            align: "left",
            ink: "ink",
          },
        ],
      },
      unit,
    );
    expect(text).toMatch(new RegExp(`\\$INSUNITS\\s+70\\s+${unit === "mm" ? 4 : 1}\\s`));
    const back = read(text);
    expect(back.length).toBeWithinMm(160, 1e-6);
    expect(back.width).toBeWithinMm(120, 1e-6);
    expect(areaOf(back)).toBeWithinMm(loopArea(corners), 1e-6);
    expect(
      back.corners
        .filter(({ radius }) => radius > 0)
        .map(({ radius }) => Math.round(radius))
        .sort(),
    ).toEqual([12, 15, 20, 8]);
  });

  it("sets size, corners and holes of a panel in the job's unit; its grooves stay", () => {
    const groove = {
      id: "g",
      kind: "groove",
      face: "good",
      from: "front",
      distance: "1",
      width: "1",
      depth: "1",
      stopAtStart: "0",
      stopAtEnd: "0",
    } as const;
    const panel = newPanel("p", { name: "P", board: null, work: [groove] });
    let id = 0;
    const set = panelFromDrawing(read(dxf(LUG, 1)), panel, "in", () => `n${id++}`);
    expect([set.length, set.width]).toEqual(["40", "55"]);
    expect(set.work?.map(({ kind }) => kind)).toEqual(["groove", "hole"]);
    expect(newPanel("p", { name: "P", board: null, ...set })).toMatchObject({ length: "40" });
    const follows = panelFromDrawing(
      read(dxf(LUG)),
      { ...panel, between: {} as never },
      "mm",
      () => `n${id++}`,
    );
    expect(follows.length).toBeUndefined();
  });
});

describe("arcs as rounded corners", () => {
  it("any rounded outline comes back with its area and its reach", () => {
    const star = fc.array(fc.tuple(fc.integer({ min: 60, max: 200 }), fc.integer({ min: 0, max: 12 })), {
      minLength: 3,
      maxLength: 9,
    });
    fc.assert(
      fc.property(star, (points) => {
        const loop = roundedPolygon(
          points.map(([distance, radius], i) => {
            const angle = (2 * Math.PI * i) / points.length;
            return { at: [distance * Math.cos(angle), distance * Math.sin(angle)], radius };
          }),
        );
        const again = roundedPolygon(filletCorners(bulgedCorners(loop)));
        expect(loopArea(again) / loopArea(loop)).toBeWithinMm(1, 1e-9);
        for (const way of [
          [1, 0],
          [0, 1],
          [-0.6, 0.8],
        ] as const)
          expect(reach(again, way)).toBeWithinMm(reach(loop, way), 1e-6);
      }),
      { numRuns: 60 },
    );
  });

  it("one that meets its edges at an angle keeps its ends", () => {
    // A chord of 60 with an arc of 20 height over it: radius (30² + 20²) / 40 = 32.5.
    const bulge = 20 / 30;
    const corners = filletCorners([
      [0, 0],
      [60, 0, bulge],
      [0, 0.0001],
    ]);
    expect(corners.some(({ radius }) => Math.abs(radius - 32.5) < 1e-3)).toBe(true);
    expect(at(corners, 0)).toEqual({ at: [0, 0], radius: 0 });
  });

  // Each of these sent the reader round for ever, or threw in it.
  it.each([
    ["without its end", (good: string) => good.slice(0, -"0\nEOF".length), "its end is missing"],
    [
      "cut off in the middle of a pair",
      (good: string) => good.slice(0, good.length / 2),
      /pairs|its end|should be/,
    ],
    [
      "with text where a place should be",
      (good: string) => good.replace("\n10\n", "\n10\nERTEX\n"),
      /pairs|should be/,
    ],
    [
      "with a polyline that never ends",
      () =>
        dxf([
          [
            [0, "POLYLINE"],
            [66, 1],
            [0, "VERTEX"],
            [10, 1],
            [20, 1],
          ],
        ]),
      "does not end",
    ],
    [
      "with a section that never ends",
      (good: string) => good.replace("0\nENDSEC\n0\nSECTION", "0\nSECTION"),
      "does not end",
    ],
    ["without entities", () => "0\nSECTION\n2\nHEADER\n0\nENDSEC\n0\nEOF", "no section of entities"],
    ["with a place a thousand kilometres away", () => dxf([line(0, 0, 1e9, 0)]), "more than 100 m away"],
    ["with numbers that are none", () => dxf([line(0, 0, Number.NaN, 0)]), "should be a number"],
  ] as const)("a file %s is told at once", (_, made, words) => {
    const start = performance.now();
    expect(why(made(dxf(LUG)))).toMatch(words);
    expect(performance.now() - start).toBeLessThan(2_000);
  });
});
