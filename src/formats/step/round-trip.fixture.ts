/** Random jobs of one piece each that this product can draw, for the way out as STEP and back. */
import {
  type Job,
  type MemberWork,
  newJob,
  newMember,
  newPanel,
  newPoint,
  type OutlineCorner,
  type Work,
} from "@/core/job";
import { type Random, seededRandom } from "@/core/kernel";
import { type SectionShape, type Stockroom, sectionText, stockroomOf } from "@/core/stockroom";

const SHAPES: readonly SectionShape[] = [
  { kind: "squareTube", size: [40, 40, 3], corners: "coldFormed" },
  { kind: "squareTube", size: [100, 100, 8], corners: "hotFinished" },
  { kind: "rectangularTube", size: [80, 40, 4], corners: "coldFormed" },
  { kind: "roundTube", size: [48.3, 3.2] },
  { kind: "roundBar", size: [20] },
  { kind: "equalAngle", size: [50, 50, 5], rootRadius: 7 },
  { kind: "unequalAngle", size: [60, 40, 5], rootRadius: 6 },
  { kind: "channel", size: [100, 50, 6, 8.5] },
  { kind: "tee", size: [50, 50, 6, 6] },
  { kind: "beam", size: [100, 55, 4.1, 5.7] },
  { kind: "flat", size: [60, 8] },
  { kind: "squareBar", size: [25, 25] },
  { kind: "timber", size: [95, 45] },
  { kind: "roundTube", size: [60.3, 4] },
  { kind: "beam", size: [100, 55, 4.1, 5.7], rootRadius: 7 },
  { kind: "channel", size: [100, 55, 4.5, 7.5], rootRadius: 10 },
  { kind: "tee", size: [60, 60, 7, 7], rootRadius: 7 },
  { kind: "channel", size: [100, 50, 6, 8.5], rootRadius: 8.5, taper: { percent: 8, toeRadius: 4.5 } },
  { kind: "beam", size: [100, 50, 4.5, 6.8], rootRadius: 4.5, taper: { percent: 14, toeRadius: 2.7 } },
];

export const STOCKROOM: Stockroom = stockroomOf({
  currency: "EUR",
  sections: SHAPES.map((shape, i) => ({
    id: `section${i}`,
    name: sectionText(shape, String, " x "),
    shape,
    material: shape.kind === "timber" ? "Larch" : "S235",
    densityKgM3: null,
    massKgPerM: null,
    source: "",
    stock: [],
    kerf: 0,
    trimStart: 0,
    trimEnd: 0,
  })),
  boards: [
    {
      id: "ply",
      name: "Ply 18",
      material: "Birch",
      thickness: 18,
      grain: null,
      densityKgM3: null,
      stock: [],
      kerf: 0,
      trim: 0,
      stages: null,
    },
    {
      id: "plate",
      name: "Plate 6",
      material: "S235",
      thickness: 6,
      grain: null,
      densityKgM3: null,
      stock: [],
      kerf: 0,
      trim: 0,
      stages: null,
    },
  ],
  edging: [],
  bought: [],
});

const EMPTY = { info: { code: "R", title: "Random pieces" } } as const;
const around = (random: Random, most: number) => (random.next() * 2 - 1) * most;
const text = (value: number, places = 3) => String(Number(value.toFixed(places)));

/** A job of so many pieces that stand anywhere, turned anyhow. */
export function randomPieces(random: Random, count: number): Job {
  const job = newJob(EMPTY);
  const [points, lines, members, panels]: [Job["points"], Job["lines"], Job["members"], Job["panels"]] = [
    {},
    {},
    {},
    {},
  ] as never;
  const put = <R extends { readonly id: string }>(table: object, record: R) =>
    Object.assign(table, { [record.id]: record });
  for (let i = 0; i < count; i++) {
    const at = [around(random, 5000), around(random, 5000), around(random, 2000)] as const;
    const way = [around(random, 1), around(random, 1), around(random, 1)] as const;
    if (random.next() < 0.7) {
      const section = Math.floor(random.next() * SHAPES.length);
      const length = 400 + random.next() * 1500;
      const size = Math.hypot(...way) || 1;
      const to = at.map((value, k) => value + ((way[k] ?? 0) / size) * length);
      put(points, newPoint(`p${i}a`, `p${i}a`, at.map((value) => text(value)) as [string, string, string]));
      put(points, newPoint(`p${i}b`, `p${i}b`, to.map((value) => text(value)) as [string, string, string]));
      put(lines, { id: `l${i}`, from: `p${i}a`, to: `p${i}b` });
      const [roll, cardinal] = [text(random.next() * 360), 1 + Math.floor(random.next() * 10)];
      const [start, end] = [randomEnd(random), randomEnd(random)];
      put(
        members,
        newMember(`m${i}`, `l${i}`, {
          name: `Piece ${i}`,
          from: "",
          to: "",
          section: `section${section}`,
          roll,
          cardinal,
          start,
          end,
          work: [
            ...(HOLED.has(section) ? [throughFace(random, `m${i}h`, section !== FLAT)] : []),
            // A notch may leave only one of two planes that stand anyhow: the same solid, said in another way.
            ...(NOTCHED.has(section) ? notches(random, `m${i}n`, section) : []).filter(
              (one) => one.kind !== "notch" || { start, end }[one.end].kind !== "twoAngles",
            ),
          ],
        }),
      );
    } else put(panels, randomPanel(random, `w${i}`, `Piece ${i}`, at, way));
  }
  return { ...job, points, lines, members, panels };
}

/** Round sections, tubes and a bar, of which each fits round itself and round wider ones. */
const ROUND = [3, 4, 13] as const;

/** Pairs of round members far from one another, the second coped round the first, at any angle and beside its axis where there is room. */
export function randomCopes(random: Random, count: number): Job {
  const points: Record<string, readonly [string, string, string]> = {};
  const members: Record<string, object> = {};
  for (let i = 0; i < count; i++) {
    const [a, b] = [random.next(), random.next()].map((value) => ROUND[Math.floor(value * 3)] ?? 3);
    const size = (section: number) => SHAPES[section]?.size[0] ?? 0;
    const [header, branch] = size(a ?? 3) >= size(b ?? 3) ? [a, b] : [b, a];
    const room = (size(header ?? 3) - size(branch ?? 3)) / 2;
    const beside = random.next() < 0.5 ? 0 : around(random, 0.8 * room);
    const angle = ((30 + random.next() * 120) * Math.PI) / 180;
    const turn = random.next() * 2 * Math.PI;
    const at = [3000 * i, around(random, 500), around(random, 500)] as const;
    // Along a direction of its own, so that nothing stands square to an axis.
    const way = [Math.cos(turn) * 0.8, Math.sin(turn) * 0.8, 0.6] as const;
    const side = [-Math.sin(turn), Math.cos(turn), 0] as const;
    const up = [-Math.cos(turn) * 0.6, -Math.sin(turn) * 0.6, 0.8] as const;
    const on = (along: number, across: number, above: number) =>
      at.map((value, k) =>
        text(value + way[k as 0] * along + side[k as 0] * across + up[k as 0] * above, 9),
      ) as [string, string, string];
    Object.assign(points, {
      [`h${i}a`]: on(-600, 0, 0),
      [`h${i}b`]: on(600, 0, 0),
      [`b${i}a`]: on(0, 0, beside),
      [`b${i}b`]: on(700 * Math.cos(angle), 700 * Math.sin(angle), beside),
    });
    Object.assign(members, {
      [`header${i}`]: { name: `Header ${i}`, from: `h${i}a`, to: `h${i}b`, section: `section${header}` },
      [`branch${i}`]: {
        name: `Branch ${i}`,
        from: `b${i}a`,
        to: `b${i}b`,
        section: `section${branch}`,
        start: { kind: "cope", neighbour: `header${i}`, gap: "0", curve: "surface" },
      },
    });
  }
  return newJob({ ...EMPTY, points, members } as Parameters<typeof newJob>[0]);
}

/** Sections with flats that a hole goes square through: square and rectangular tubes, and a flat. */
const FLAT = 10;
const HOLED: ReadonlySet<number> = new Set([0, 1, 2, FLAT]);

/** Tubes, a channel, a flat, a square bar, a timber, and a beam with root radii. */
const NOTCHED: ReadonlySet<number> = new Set([0, 1, 2, 7, FLAT, 11, 12, 14]);

/** None, one or two at either end, across any side, never as deep as the section together. */
function notches(random: Random, id: string, section: number): readonly MemberWork[] {
  const size = SHAPES[section]?.size ?? [];
  return (["start", "end"] as const).flatMap((end) => {
    if (random.next() < 0.5) return [];
    const faces = random.next() < 0.5 ? (["top", "bottom"] as const) : (["left", "right"] as const);
    const across = Math.min(...size.slice(0, 2));
    return faces.slice(0, random.next() < 0.4 ? 2 : 1).map(
      (face): MemberWork => ({
        id: `${id}${end}${face}`,
        kind: "notch",
        face,
        end,
        depth: text((0.1 + 0.3 * random.next()) * across),
        length: text(90 + random.next() * 60),
      }),
    );
  });
}

/** Measured from the tip of the start, wherever its angles put that. */
const throughFace = (random: Random, id: string, isTube: boolean): MemberWork => ({
  id,
  kind: "hole",
  face: random.next() < 0.5 ? "top" : "bottom",
  from: "start",
  along: text(180 + random.next() * 40),
  across: text(around(random, 4)),
  diameter: "6",
  slot: random.next() < 0.4 ? "18" : "0",
  walls: isTube && random.next() < 0.5 ? "one" : "all",
  count: "1",
  step: "0",
});

function randomEnd(random: Random) {
  const pick = random.next();
  if (pick < 0.35) return { kind: "square" as const, offset: "0", past: null };
  const angle = () => text(around(random, 50));
  if (pick > 0.9)
    return {
      kind: "twoAngles" as const,
      acrossWidth: angle(),
      acrossHeight: angle(),
      offset: "0",
      secondAcrossWidth: angle(),
      secondAcrossHeight: angle(),
      secondOffset: text(around(random, 8)),
    };
  if (pick > 0.85) {
    const [first, second] = [text(10 + random.next() * 50), text(10 + random.next() * 50)];
    const across = random.next() < 0.5 ? ("width" as const) : ("height" as const);
    return { kind: "pointed" as const, across, first, second, offset: "0" };
  }
  return {
    kind: "angled" as const,
    acrossWidth: angle(),
    acrossHeight: pick < 0.7 ? "0" : angle(),
    offset: "0",
  };
}

type CornerMaker = (
  k: number,
  fromX: "left" | "right",
  x: number,
  fromY: "front" | "back",
  y: number,
  radius: number,
) => OutlineCorner;

/** Of every second panel: a rectangle, rounded, a slot or a triangle, clear of the holes. It draws on chance of its own, by its id. */
function randomCutOut(id: string, corner: CornerMaker): Work | null {
  const random = seededRandom([...id].reduce((sum, sign) => sum * 31 + sign.charCodeAt(0), 7) % 1e9);
  if (random.next() < 0.5) return null;
  const [x, y] = [220 + random.next() * 5, 30 + random.next() * 10];
  const [length, width] = [30 + random.next() * 15, 30];
  const pick = random.next();
  const radius = pick < 0.3 ? 0 : pick < 0.6 ? 6 : 15;
  const corners = [
    corner(10, "left", x, "front", y, radius),
    corner(11, "left", x + length, "front", y, radius),
    corner(12, "left", x + length, "front", y + width, radius),
    corner(13, "left", x, "front", y + width, radius),
  ];
  const isTriangle = radius === 0 && pick < 0.15;
  return { id: `${id}o`, kind: "cutOut", corners: isTriangle ? corners.slice(0, 3) : corners };
}

function randomPanel(
  random: Random,
  id: string,
  name: string,
  at: readonly number[],
  way: readonly number[],
) {
  const [length, width] = [300 + random.next() * 900, 150 + random.next() * 140];
  const isPly = random.next() < 0.5;
  const works: Work[] = [];
  const hole = (x: number, depth: string | null): Work => ({
    id: `${id}h${works.length}`,
    kind: "hole",
    face: random.next() < 0.5 ? "good" : "other",
    x: text(x),
    y: text(40 + random.next() * (width - 80)),
    diameter: text(5 + random.next() * 20, 1),
    depth,
    count: "1",
    step: "0",
    along: "length",
  });
  if (random.next() < 0.6) works.push(hole(40, null));
  if (random.next() < 0.5) works.push(hole(90, isPly ? "9" : "3"));
  if (random.next() < 0.4)
    works.push({
      id: `${id}g`,
      kind: "groove",
      face: random.next() < 0.5 ? "good" : "other",
      from: "left",
      distance: text(150 + random.next() * 40),
      width: "18",
      depth: isPly ? "6" : "2",
      stopAtStart: "0",
      stopAtEnd: random.next() < 0.5 ? "0" : "20",
    });
  const corner: CornerMaker = (k, fromX, x, fromY, y, radius) => ({
    id: `${id}c${k}`,
    fromX,
    x: text(x),
    fromY,
    y: text(y),
    radius: text(radius),
  });
  const cutOut = randomCutOut(id, corner);
  const hasOutline = random.next() < 0.5;
  const outline = hasOutline
    ? [
        corner(0, "left", 0, "front", 0, random.next() < 0.5 ? 12 : 0),
        corner(1, "right", 0, "front", 0, 0),
        corner(2, "right", 0, "back", 0, random.next() < 0.5 ? 20 : 0),
        corner(3, "right", 100, "back", 0, 0),
        corner(4, "right", 140, "back", 20, 0),
        corner(5, "left", 0, "back", 0, 8),
      ]
    : null;
  const along = way as [number, number, number];
  return newPanel(id, {
    name,
    board: isPly ? "ply" : "plate",
    origin: at.map((value) => text(value)) as [string, string, string],
    lengthAxis: along.map((value) => text(value, 6)) as [string, string, string],
    faceAxis: [text(along[1] + 0.3, 6), text(-along[0], 6), text(along[2] + 0.7, 6)],
    length: text(length),
    width: text(width),
    grain: "any",
    work: cutOut ? [...works, cutOut] : works,
    outline,
  });
}
