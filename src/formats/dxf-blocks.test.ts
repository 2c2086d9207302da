/** Pieces that stand in blocks of a drawing: put anywhere, turned, mirrored, in grids and within one another. */
import { describe, expect, it } from "vitest";
import { sentence } from "@/core/kernel";
import { readOutline, readPieces } from "./dxf-in";

type Pairs = readonly (readonly [number, string | number])[];
const section = (name: string, ...parts: readonly Pairs[]): Pairs => [
  [0, "SECTION"],
  [2, name],
  ...parts.flat(),
  [0, "ENDSEC"],
];
const block = (name: string, base: readonly [number, number], ...drawn: readonly Pairs[]): Pairs => [
  [0, "BLOCK"],
  [8, "0"],
  [2, name],
  [70, 0],
  [10, base[0]],
  [20, base[1]],
  ...drawn.flat(),
  [0, "ENDBLK"],
];
const insert = (
  name: string,
  [x, y]: readonly [number, number],
  more: Pairs = [],
  layer = "PLY 12",
): Pairs => [[0, "INSERT"], [8, layer], [2, name], [10, x], [20, y], ...more];
/** 120 x 80, one corner cut off round by 30, on layer 0, with a hole of 12 near its low corner on a layer of its own. */
const plate: readonly Pairs[] = [
  [
    [0, "LWPOLYLINE"],
    [8, "0"],
    [90, 5],
    [70, 1],
    ...[
      [0, 0, 0],
      [120, 0, 0],
      [120, 50, Math.tan(Math.PI / 8)],
      [90, 80, 0],
      [0, 80, 0],
    ].flatMap(([x = 0, y = 0, bulge = 0]) => [[10, x] as const, [20, y] as const, [42, bulge] as const]),
  ],
  [
    [0, "CIRCLE"],
    [8, "HOLES"],
    [10, 15],
    [20, 25],
    [40, 6],
  ],
];
const drawing = (blocks: readonly Pairs[], ...entities: readonly Pairs[]): string =>
  [
    ...section("HEADER", [
      [9, "$INSUNITS"],
      [70, 4],
    ]),
    ...section("BLOCKS", ...blocks),
    ...section("ENTITIES", ...entities),
    [0, "EOF"] as const,
  ]
    .map(([code, value]) => `${code}\n${value}\n`)
    .join("");

const pieces = (text: string) => {
  const read = readPieces("blocks.dxf", text);
  if (!read.ok) throw new Error(sentence(read.problem));
  return read.value.pieces;
};
const why = (text: string) => {
  const read = readPieces("blocks.dxf", text);
  return read.ok ? null : sentence(read.problem);
};
const tenth = (value: number) => Math.round(value * 1e6) / 1e6 + 0;

describe("blocks of a drawing", () => {
  const plates = [block("*Model_Space", [0, 0]), block("PLATE", [10, 20], ...plate)];

  it("are taken apart where they are put, from their base point, on the layer that they are put on", () => {
    const [piece] = pieces(drawing(plates, insert("PLATE", [1000, 500])));
    expect(piece?.layer).toBe("PLY 12");
    expect(piece?.low.map(tenth)).toEqual([990, 480]);
    expect(piece?.outline).toMatchObject({ length: 120, width: 80 });
    expect(piece?.outline.corners.map(({ x, y, radius }) => [x, y, tenth(radius)].map(tenth))).toContainEqual(
      [120, 80, 30],
    );
    expect(piece?.outline.holes.map(({ x, y, diameter }) => [x, y, diameter].map(tenth))).toEqual([
      [15, 25, 12],
    ]);
  });

  it("turned, mirrored and larger: arcs and holes go along", () => {
    const turned = pieces(drawing(plates, insert("PLATE", [0, 0], [[50, 90]])))[0];
    expect([turned?.outline.length, turned?.outline.width].map((one) => tenth(one ?? 0))).toEqual([80, 120]);
    // Anticlockwise by a quarter: what was 25 from the front is 80 - 25 from the left.
    expect(turned?.outline.holes.map(({ x, y }) => [x, y].map(tenth))).toEqual([[55, 15]]);
    const mirrored = pieces(
      drawing(
        plates,
        insert(
          "PLATE",
          [0, 0],
          [
            [41, -2],
            [42, 2],
          ],
        ),
      ),
    )[0];
    expect([mirrored?.outline.length, mirrored?.outline.width].map((one) => tenth(one ?? 0))).toEqual([
      240, 160,
    ]);
    expect(mirrored?.outline.holes.map(({ x, y, diameter }) => [x, y, diameter].map(tenth))).toEqual([
      [210, 50, 24],
    ]);
    expect(mirrored?.outline.corners.map(({ x, y, radius }) => [x, y, radius].map(tenth))).toContainEqual([
      0, 160, 60,
    ]);
    // Drawn on the back of the plane: mirrored as well.
    const back = pieces(
      drawing(
        plates,
        insert(
          "PLATE",
          [0, 0],
          [
            [210, 0],
            [220, 0],
            [230, -1],
          ],
        ),
      ),
    )[0];
    expect(back?.outline.holes.map(({ x, y }) => [x, y].map(tenth))).toEqual([[105, 25]]);
  });

  it("in a grid, and within blocks", () => {
    const grid = pieces(
      drawing(
        plates,
        insert(
          "PLATE",
          [0, 0],
          [
            [70, 3],
            [71, 2],
            [44, 200],
            [45, 150],
          ],
        ),
      ),
    );
    expect(grid.map(({ low }) => low.map(tenth)).toSorted()).toEqual(
      [0, 200, 400].flatMap((x) => [0, 150].map((y) => [x - 10, y - 20])).toSorted(),
    );
    const within = [
      ...plates,
      block("PAIR", [0, 0], insert("PLATE", [0, 0], [], "0"), insert("PLATE", [0, 300], [], "TOP 18")),
    ];
    expect(
      pieces(drawing(within, insert("PAIR", [50, 0])))
        .map(({ layer }) => layer)
        .toSorted(),
    ).toEqual(["PLY 12", "TOP 18"]);
  });

  it("one alone is the outline of a piece", () => {
    const read = readOutline("one.dxf", drawing(plates, insert("PLATE", [7, 7])));
    expect(read.ok && read.value.length).toBeCloseTo(120, 9);
  });

  it("what cannot be taken apart is a sentence: missing, in itself, stretched with arcs, more than anybody draws", () => {
    expect(why(drawing(plates, insert("LUG", [0, 0])))).toContain("a block that is not in it, LUG");
    expect(why(drawing([block("A", [0, 0], insert("A", [0, 0]))], insert("A", [0, 0])))).toContain("levels");
    expect(why(drawing(plates, insert("PLATE", [0, 0], [[41, 2]])))).toContain("stretched one way");
    expect(
      why(
        drawing(
          plates,
          insert(
            "PLATE",
            [0, 0],
            [
              [70, 30000],
              [71, 30000],
            ],
          ),
        ),
      ),
    ).toContain("more than 4000");
    const levels = Array.from({ length: 7 }, (_, i) =>
      block(
        `L${i}`,
        [0, 0],
        ...Array.from({ length: 60 }, () => insert(i === 0 ? "PLATE" : `L${i - 1}`, [0, 0])),
      ),
    );
    expect(why(drawing([...plates, ...levels], insert("L6", [0, 0])))).toContain("more than 4000");
    const empty = levels.map((one) =>
      one.map(([code, value]) => [code, value === "PLATE" ? "NONE" : value] as const),
    );
    expect(why(drawing([block("NONE", [0, 0]), ...empty], insert("L6", [0, 0])))).toBeNull();
    expect(why(drawing(plates, insert("PLATE", [0, 0])).replace("ENDBLK", "ENDBLOCK"))).toContain(
      "does not end",
    );
  });
});
