/**
 * The worked cases of 2a-twins.md that need no cope (each decided by brute force over all rigid motions)
 * and an independent brute-force oracle for members: corner points in space under all rotations.
 */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  type CopeEnd,
  type End,
  type EndFace,
  endOfTwoPlanes,
  kindOf,
  lengthsBetween,
  type PlaneEnd,
} from "../ends";
import { planeEnd } from "../ends/ends.fixture";
import type { Vec2 } from "../geometry";
import { toNm } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { type SectionShape, sectionProperties } from "../stockroom";
import type { GrooveForm, MemberForm, PanelForm } from "./forms";
import { memberDistance, TWIN_TOLERANCE } from "./member-twins";
import { panelDistance } from "./panel-twins";

const t45 = 1;
const t30 = Math.tan(Math.PI / 6);
const shapes = {
  square: { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
  rectangular: { kind: "rectangularTube", size: [60, 40, 3], corners: "coldFormed" },
  beam: { kind: "beam", size: [100, 55, 4.1, 5.7] },
  flat: { kind: "flat", size: [40, 5] },
  angle: { kind: "equalAngle", size: [30, 30, 3], rootRadius: 5 },
  unequal: { kind: "unequalAngle", size: [40, 20, 4], rootRadius: 4 },
  channel: { kind: "channel", size: [80, 45, 6, 8] },
  tee: { kind: "tee", size: [50, 50, 6, 6] },
  round: { kind: "roundTube", size: [33.7, 3.2] },
} as const satisfies Record<string, SectionShape>;

/** A member whose ends cross its axis 500 apart. */
function ended(shape: SectionShape, ...ends: readonly [End, End]): MemberForm {
  const lengths = lengthsBetween(shape, 500, ...ends);
  return {
    kind: "member",
    shape,
    ends,
    holes: [],
    notches: [],
    centreNm: toNm(lengths.centre),
    cutNm: toNm(lengths.cut),
    longestNm: toNm(lengths.longestEdge),
    shortestNm: toNm(lengths.shortestEdge),
  };
}

const member = (shape: SectionShape, start: Vec2, end: Vec2) => ended(shape, planeEnd(start), planeEnd(end));

type Answer = "twin" | "opposite" | "different";
const answer = (a: MemberForm, b: MemberForm): Answer =>
  memberDistance(a, b, "proper", TWIN_TOLERANCE) <= 1
    ? "twin"
    : memberDistance(a, b, "mirrored", TWIN_TOLERANCE) <= 1
      ? "opposite"
      : "different";

const turned = (size: number, degrees: number): Vec2 => [
  size * Math.cos((degrees * Math.PI) / 180),
  size * Math.sin((degrees * Math.PI) / 180),
];
const O: Vec2 = [0, 0];
const x: Vec2 = [1, 0];
const y: Vec2 = [0, 1];
const nx: Vec2 = [-1, 0];
const ny: Vec2 = [0, -1];
/** "Parallel" leans one way at P and the other at Q; heel long of an angle points away from both legs. */
type Ends = readonly [Vec2, Vec2];
const S = shapes;
const cases: readonly (readonly [string, SectionShape, Ends, Ends, Answer])[] = [
  ["opposed x / opposed y", S.square, [x, x], [y, y], "twin"],
  ["opposed / parallel", S.square, [x, x], [x, nx], "different"],
  ["parallel / reversed lean, square", S.square, [x, nx], [nx, x], "twin"],
  ["parallel / reversed lean, rectangular", S.rectangular, [x, nx], [nx, x], "twin"],
  ["parallel / reversed lean, beam", S.beam, [y, ny], [ny, y], "twin"],
  ["(x|y) / (x|-y), square", S.square, [x, y], [x, ny], "opposite"],
  ["(x|y) / (x|-y), rectangular", S.rectangular, [x, y], [x, ny], "opposite"],
  [
    "45/30 turned +90 / 30/45 turned +90",
    S.square,
    [turned(t45, 0), turned(t30, 90)],
    [turned(t30, 0), turned(t45, 90)],
    "twin",
  ],
  ["compound (45,30) at P / (30,45) at P", S.square, [[t45, t30], O], [[t30, t45], O], "opposite"],
  ["(45,30) at P / (45,30) at Q", S.square, [[t45, t30], O], [O, [t45, t30]], "opposite"],
  ["(45,30) at P / (45,-30) at Q", S.square, [[t45, t30], O], [O, [t45, -t30]], "twin"],
  ["(45,45) at P / (45,-45) at P, square", S.square, [[1, 1], O], [[1, -1], O], "twin"],
  ["(45,45) at P / (45,-45) at P, rectangular", S.rectangular, [[1, 1], O], [[1, -1], O], "opposite"],
  ["opposed across 60 / across 40", S.rectangular, [x, x], [y, y], "different"],
  ["rectangular (x|y) / (y|x)", S.rectangular, [x, y], [y, x], "opposite"],
  ["rectangular (x|y) / (y|-x)", S.rectangular, [x, y], [y, nx], "twin"],
  ["flat (x|0) / (-x|0)", S.flat, [x, O], [nx, O], "twin"],
  ["equal angle leg A at P / leg B at P", S.angle, [x, O], [y, O], "opposite"],
  ["equal angle leg A at P / leg B at Q", S.angle, [x, O], [O, y], "twin"],
  ["equal angle leg A at P / leg A at Q", S.angle, [x, O], [O, x], "opposite"],
  ["equal angle heel long / toe long", S.angle, [nx, O], [x, O], "different"],
  ["equal angle opposed on A / opposed on B", S.angle, [x, x], [y, y], "twin"],
  ["equal angle parallel on A / reversed", S.angle, [x, nx], [nx, x], "opposite"],
  ["equal angle parallel on A / on B same", S.angle, [x, nx], [y, ny], "opposite"],
  ["equal angle parallel on A / on B reversed", S.angle, [x, nx], [ny, y], "twin"],
  ["unequal angle long leg at P / at Q", S.unequal, [x, O], [O, x], "opposite"],
  ["unequal angle opposed on long / on short leg", S.unequal, [x, x], [y, y], "different"],
  ["channel parallel in the web plane / reversed", S.channel, [y, ny], [ny, y], "opposite"],
  ["channel opposed in the web plane / reversed", S.channel, [y, y], [ny, ny], "twin"],
  ["channel parallel in the flange plane / reversed", S.channel, [x, nx], [nx, x], "twin"],
  ["channel opposed, long at the web / at the toes", S.channel, [nx, nx], [x, x], "different"],
  ["channel (y|0) / (-y|0)", S.channel, [y, O], [ny, O], "opposite"],
  ["channel (y|0) / (0|-y)", S.channel, [y, O], [O, ny], "twin"],
  ["tee parallel in the stem plane / reversed", S.tee, [y, ny], [ny, y], "twin"],
  ["tee parallel in the flange plane / reversed", S.tee, [x, nx], [nx, x], "opposite"],
  ["round 45/45 turned +90 / -90", S.round, [x, turned(1, 90)], [x, turned(1, -90)], "opposite"],
  [
    "round 45/30 turned 60 / 30/45 turned 60",
    S.round,
    [x, turned(t30, 60)],
    [turned(t30, 0), turned(1, 60)],
    "twin",
  ],
  [
    "round 45/30 turned 60 / 30/45 turned -60",
    S.round,
    [x, turned(t30, 60)],
    [turned(t30, 0), turned(1, -60)],
    "opposite",
  ],
];

describe("worked cases for members", () => {
  it.each(cases)("%s", (_, shape, a, b, expected) => {
    expect(answer(member(shape, ...a), member(shape, ...b))).toBe(expected);
    expect(answer(member(shape, ...b), member(shape, ...a))).toBe(expected);
  });
});

/**
 * Points of the two cut ends in space, centred between where they cross the axis (500 apart in all forms here): the
 * corners, and where ridges leave the section.
 */
function cutPoints({ shape, ends }: MemberForm): readonly (readonly [number, number, number])[] {
  const sharp = shape ? sectionProperties(shape).sharp : [];
  return ends.flatMap((one, i) => {
    const out = i === 0 ? -1 : 1;
    const points = [...sharp, ...crossings(sharp, one)];
    return points.map(([px, py]) => [px, py, out * (250 + heightOf(one, [px, py]))] as const);
  });
}

/** Height of an end over a point, from its definition. */
function heightOf(end: End, [px, py]: Vec2): number {
  if (end.kind === "plane") return end.slope[0] * px + end.slope[1] * py;
  if (end.kind !== "twoPlanes") throw new Error("saddles are looked at below");
  return Math.min(...end.faces.map(({ slope, beyond }) => beyond + slope[0] * px + slope[1] * py));
}

function crossings(sharp: readonly Vec2[], end: End): readonly Vec2[] {
  if (end.kind !== "twoPlanes") return [];
  const [a, b] = end.faces;
  const apart = ([px, py]: Vec2) =>
    a.beyond - b.beyond + (a.slope[0] - b.slope[0]) * px + (a.slope[1] - b.slope[1]) * py;
  return sharp.flatMap((p, i) => {
    const q = sharp[(i + 1) % sharp.length] ?? p;
    const [u, v] = [apart(p), apart(q)];
    if (u * v >= 0) return [];
    const share = u / (u - v);
    return [[p[0] + (q[0] - p[0]) * share, p[1] + (q[1] - p[1]) * share] as Vec2];
  });
}

/** All signed permutations of the axes that keep z on ±z: a superset of every motion of these sections. */
function oracle(a: MemberForm, b: MemberForm): Answer {
  const [from, to] = [cutPoints(a), cutPoints(b)];
  const found = new Set<number>();
  for (const swap of [false, true])
    for (const sx of [1, -1])
      for (const sy of [1, -1])
        for (const sz of [1, -1]) {
          const image = from.map(([px, py, pz]): readonly [number, number, number] =>
            swap ? [sx * py, sy * px, sz * pz] : [sx * px, sy * py, sz * pz],
          );
          const fits = image.every((p) =>
            to.some((q) => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) < 0.05),
          );
          if (fits) found.add((swap ? -1 : 1) * sx * sy * sz);
        }
  return found.has(1) ? "twin" : found.has(-1) ? "opposite" : "different";
}

describe("members against a brute-force oracle in space", () => {
  const slope = fc.constantFrom(-1, -t30, 0, t30, 1);
  const end = fc.tuple(slope, slope);
  const shape = fc.constantFrom<SectionShape>(
    S.square,
    S.rectangular,
    S.beam,
    S.flat,
    S.angle,
    S.unequal,
    S.channel,
    S.tee,
  );
  it("agrees on random pairs of ends", () => {
    fc.assert(
      fc.property(shape, end, end, end, end, (section, a, b, c, d) => {
        const [left, right] = [member(section, a, b), member(section, c, d)];
        expect(answer(left, right)).toBe(oracle(left, right));
      }),
      { numRuns: lawRuns(4000) },
    );
  });

  it("agrees on ends of two planes, beside plane ones", () => {
    const face = fc.record({ slope: end, beyond: fc.constantFrom(0, 3) });
    const any = fc.tuple(shape, fc.oneof(end.map(planeEnd), fc.tuple(face, face)));
    const made = ([section, one]: readonly [SectionShape, PlaneEnd | readonly [EndFace, EndFace]]) =>
      "kind" in one ? one : endOfTwoPlanes(section, ...one).form;
    fc.assert(
      fc.property(
        shape,
        fc.array(any, { minLength: 4, maxLength: 4 }),
        fc.boolean(),
        (section, ends, like) => {
          const [a, b, c, d] = ends.map(([, one]) => made([section, one]));
          if (!a || !b || !c || !d) return;
          const left = ended(section, a, b);
          // Half of the pairs are made of the same two ends, turned, exchanged or mirrored.
          const right = like ? ended(section, ...moved([a, b], c, d)) : ended(section, c, d);
          expect(answer(left, right)).toBe(oracle(left, right));
        },
      ),
      { numRuns: lawRuns(4000) },
    );
  });
});

/** Two ends after a motion that is picked by two others, so that runs repeat. */
function moved([a, b]: readonly [End, End], c: End, d: End): readonly [End, End] {
  const sign = (one: End) => (slopesOf(one)[0]?.[0] ?? 0) < 0;
  const rows = [
    [sign(c) ? -1 : 1, 0],
    [0, sign(d) ? -1 : 1],
  ] as const;
  const turn = (one: End): End => kindOf(one).turned(one, rows);
  return slopesOf(c).length > slopesOf(d).length ? [turn(b), turn(a)] : [turn(a), turn(b)];
}
const slopesOf = (end: End) => kindOf(end).slopes(end);

const nm = (mm: number) => toNm(mm);
const groove = (face: "good" | "other", x0: number, x1: number, y0: number, y1: number): GrooveForm => ({
  face,
  x0: nm(x0),
  x1: nm(x1),
  y0: nm(y0),
  y1: nm(y1),
  depthNm: nm(6),
});
const panel = (
  more: Partial<PanelForm> & { edged?: readonly string[] },
  length = 600,
  width = 400,
): PanelForm => ({
  kind: "panel",
  lengthNm: nm(length),
  widthNm: nm(width),
  thicknessNm: nm(18),
  grain: true,
  goodFace: false,
  grooves: [],
  holes: [],
  cutOuts: [],
  notches: [],
  outline: null,
  edging: Object.fromEntries(
    ["front", "back", "left", "right"].map((e) => [e, more.edged?.includes(e) ? "band" : null]),
  ) as PanelForm["edging"],
  ...more,
});
const panelAnswer = (a: PanelForm, b: PanelForm): Answer =>
  panelDistance(a, b, "proper", TWIN_TOLERANCE) <= 1
    ? "twin"
    : panelDistance(a, b, "mirrored", TWIN_TOLERANCE) <= 1
      ? "opposite"
      : "different";

const nearFront = groove("good", 0, 600, 20, 30);
const nearBack = groove("good", 0, 600, 370, 380);
const openLeft = (face: "good" | "other") => groove(face, 0, 500, 20, 30);
const openRight = (face: "good" | "other") => groove(face, 100, 600, 20, 30);
const midLeft = groove("good", 0, 500, 195, 205);
const midRight = groove("good", 100, 600, 195, 205);
const crossLeft = groove("good", 20, 30, 0, 400);
const crossRight = groove("good", 570, 580, 0, 400);
type Parts = Parameters<typeof panel>[0];
const panelCases: readonly (readonly [string, Parts, Parts, Answer, Answer])[] = [
  ["band front / back", { edged: ["front"] }, { edged: ["back"] }, "twin", "twin"],
  [
    "bands front + left / front + right",
    { edged: ["front", "left"] },
    { edged: ["front", "right"] },
    "twin",
    "opposite",
  ],
  [
    "band front, groove near front on face 1 / face 2",
    { edged: ["front"], grooves: [nearFront] },
    { edged: ["front"], grooves: [{ ...nearFront, face: "other" }] },
    "twin",
    "different",
  ],
  [
    "band front, groove near front / near back",
    { edged: ["front"], grooves: [nearFront] },
    { edged: ["front"], grooves: [nearBack] },
    "different",
    "different",
  ],
  [
    "stopped groove near front, open at left / right",
    { grooves: [openLeft("good")] },
    { grooves: [openRight("good")] },
    "opposite",
    "opposite",
  ],
  [
    "the same / open at right, other face",
    { grooves: [openLeft("good")] },
    { grooves: [openRight("other")] },
    "twin",
    "different",
  ],
  [
    "the same / same place, other face",
    { grooves: [openLeft("good")] },
    { grooves: [openLeft("other")] },
    "opposite",
    "different",
  ],
  [
    "stopped groove at mid-width, open at left / right",
    { grooves: [midLeft] },
    { grooves: [midRight] },
    "twin",
    "twin",
  ],
  [
    "the same plus band front",
    { edged: ["front"], grooves: [midLeft] },
    { edged: ["front"], grooves: [midRight] },
    "opposite",
    "opposite",
  ],
  [
    "band front, cross groove near left / right",
    { edged: ["front"], grooves: [crossLeft] },
    { edged: ["front"], grooves: [crossRight] },
    "opposite",
    "opposite",
  ],
];

describe("worked cases for panels 600 x 400 x 18", () => {
  it.each(panelCases)("%s", (_, a, b, plain, good) => {
    expect(panelAnswer(panel(a), panel(b))).toBe(plain);
    expect(panelAnswer(panel({ ...a, goodFace: true }), panel({ ...b, goodFace: true }))).toBe(good);
  });

  it("600 x 400 / 400 x 600: different with grain, twin without", () => {
    for (const goodFace of [false, true]) {
      expect(panelAnswer(panel({ goodFace }), panel({ goodFace }, 400, 600))).toBe("different");
      expect(
        panelAnswer(panel({ goodFace, grain: false }), panel({ goodFace, grain: false }, 400, 600)),
      ).toBe("twin");
    }
  });

  it("400 x 400, band front / left: different with grain, twin without", () => {
    const square = (grain: boolean, edged: string) => panel({ grain, edged: [edged] }, 400, 400);
    expect(panelAnswer(square(true, "front"), square(true, "left"))).toBe("different");
    expect(panelAnswer(square(false, "front"), square(false, "left"))).toBe("twin");
  });
});

/** A saddle whose φ = 0 lies at `direction` degrees, the axes at θ, the member's axis e beside the other. */
const saddle = (theta: number, direction: number, e = 0): CopeEnd => {
  const [u, v] = [turned(1, direction), turned(1, direction + 90)];
  const cos = theta === 90 ? 0 : Math.cos((theta * Math.PI) / 180);
  return {
    kind: "cope",
    u,
    offset: [e * v[0], e * v[1]],
    cos,
    sin: Math.sqrt(1 - cos ** 2),
    radius: 24.15,
    curve: "surface",
  };
};
const coped = (first: End | null, second: End | null): MemberForm => ({
  ...member(S.round, O, O),
  ends: [first ?? planeEnd(O), second ?? planeEnd(O)],
});

describe("worked cases for coped round members", () => {
  it.each([
    [
      "two 90° saddles turned +90 / -90",
      coped(saddle(90, 0), saddle(90, 90)),
      coped(saddle(90, 0), saddle(90, -90)),
      "twin",
    ],
    [
      "two 90° saddles turned 0 / 90",
      coped(saddle(90, 0), saddle(90, 0)),
      coped(saddle(90, 0), saddle(90, 90)),
      "different",
    ],
    [
      "two 90° saddles turned +45 / -45",
      coped(saddle(90, 0), saddle(90, 45)),
      coped(saddle(90, 0), saddle(90, -45)),
      "opposite",
    ],
    [
      "two 60° saddles turned +90 / -90",
      coped(saddle(60, 0), saddle(60, 90)),
      coped(saddle(60, 0), saddle(60, -90)),
      "opposite",
    ],
    [
      "two 60° saddles turned 0 / 180",
      coped(saddle(60, 0), saddle(60, 0)),
      coped(saddle(60, 0), saddle(60, 180)),
      "different",
    ],
    ["60° saddle, e = +5 / -5", coped(saddle(60, 0, 5), null), coped(saddle(60, 0, -5), null), "opposite"],
    ["90° saddle, e = +5 / -5", coped(saddle(90, 0, 5), null), coped(saddle(90, 0, -5), null), "twin"],
    ["60° saddle / square", coped(saddle(60, 0), null), coped(null, null), "different"],
    [
      "60° saddle / the 30° plane of its lean",
      coped(saddle(60, 0), null),
      coped(planeEnd([-1 / Math.tan(Math.PI / 3), 0]), null),
      "different",
    ],
    ["a saddle at P / the same at Q", coped(saddle(60, 0), null), coped(null, saddle(60, 0)), "twin"],
    [
      "60° saddle with offset at P / its half-turn at Q",
      coped(saddle(60, 0, 5), null),
      coped(null, saddle(60, 0, -5)),
      "twin",
    ],
  ] satisfies readonly (readonly [string, MemberForm, MemberForm, Answer])[])("%s", (_, a, b, expected) => {
    expect(answer(a, b)).toBe(expected);
    expect(answer(b, a)).toBe(expected);
  });

  it("a roll changes nothing, a mirror image is a twin or the opposite hand", () => {
    const angle = fc.integer({ min: 0, max: 359 });
    fc.assert(
      fc.property(
        fc.constantFrom(45, 60, 90),
        fc.constantFrom(45, 60, 90),
        angle,
        angle,
        angle,
        fc.integer({ min: -6, max: 6 }),
        (t1, t2, d1, d2, roll, e) => {
          const first = coped(saddle(t1, d1, e), saddle(t2, d2));
          const rolled = coped(saddle(t1, d1 + roll, e), saddle(t2, d2 + roll));
          expect(answer(first, rolled)).toBe("twin");
          const mirror = (cope: CopeEnd): CopeEnd => ({
            ...cope,
            u: [cope.u[0], -cope.u[1]],
            offset: [cope.offset[0], -cope.offset[1]],
          });
          const mirrored = coped(mirror(saddle(t1, d1, e)), mirror(saddle(t2, d2)));
          expect(answer(first, mirrored)).not.toBe("different");
        },
      ),
    );
  });
});
