/** Lines of views: by hand, against the image by brute force, and by laws. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  AT_HOME,
  boxLoop,
  circle,
  type Frame,
  levelEnd,
  moveLoop,
  type Pose,
  posed,
  poseIn,
  prismSolid,
  ringOf,
  type Solid,
  type Vec3,
} from "../../geometry";
import { newJob } from "../../job";
import { at, seededRandom } from "../../kernel";
import { lawRuns } from "../../kernel/law-runs.fixture";
import { resultsOf, smallFrame } from "../../pipeline.fixture";
import type { SeenSolid } from "./candidates";
import { verdict } from "./lines.oracle";
import { seenPieces } from "./shape-solids";
import { inView, towardsViewer, VIEW_DIRECTIONS, type ViewFrame, viewFrom } from "./view-frame";
import { viewLines } from "./view-lines";

const box = ([x, y, z]: Vec3): Solid =>
  prismSolid([ringOf(boxLoop([0, 0], [x, y]), { step: 1 })], levelEnd(0), levelEnd(z));
const standing = (solid: Solid, view: ViewFrame, { frame }: Pose = AT_HOME): SeenSolid => ({
  solid,
  frame: inView(view, frame),
  round: 0,
});
const lengthOf = (lines: ReturnType<typeof viewLines>) =>
  lines.reduce((sum, { from, to }) => sum + Math.hypot(to[0] - from[0], to[1] - from[1]), 0);
const moved = (origin: Vec3): Pose => ({ ...AT_HOME, frame: { ...AT_HOME.frame, origin } });

describe("views", () => {
  it("have width to the right and height up from the front, and depth up from above", () => {
    const front = viewFrom(VIEW_DIRECTIONS.front);
    expect([front.right, front.up]).toEqual([
      [1, 0, 0],
      [0, 0, 1],
    ]);
    const top = viewFrom(VIEW_DIRECTIONS.top);
    expect([top.right, top.up]).toEqual([
      [1, 0, 0],
      [0, 1, 0],
    ]);
    // From the right the front of the job lies on the left.
    expect(viewFrom(VIEW_DIRECTIONS.right).right).toEqual([0, 1, 0]);
    for (const direction of Object.values(VIEW_DIRECTIONS)) {
      const { right, up, towards } = viewFrom(direction);
      const cross = [
        right[1] * up[2] - right[2] * up[1],
        right[2] * up[0] - right[0] * up[2],
        right[0] * up[1] - right[1] * up[0],
      ];
      for (const i of [0, 1, 2]) expect(at(cross, i)).toBeCloseTo(at(towards, i), 12);
    }
  });
});

describe("the lines of a view", () => {
  it("of a box from the front are its four borders, from a corner the nine that are seen", () => {
    const front = viewLines([standing(box([30, 20, 10]), viewFrom(VIEW_DIRECTIONS.front))]);
    expect(front.map(({ kind }) => kind)).toEqual(Array(4).fill("outline"));
    expect(lengthOf(front)).toBeCloseTo(80, 9);
    const corner = viewLines([standing(box([30, 20, 10]), viewFrom(VIEW_DIRECTIONS.frontLeft))]);
    expect(corner.filter(({ kind }) => kind === "outline")).toHaveLength(6);
    expect(corner.filter(({ kind }) => kind === "edge")).toHaveLength(3);
    // Isometric: edges along the axes are drawn at √(2/3) of their length (ISO 5456-3, 5.2).
    expect(lengthOf(corner)).toBeCloseTo(3 * (30 + 20 + 10) * Math.sqrt(2 / 3), 9);
  });

  it("stop where another solid stands in front, and are given as hidden when asked for", () => {
    const view = viewFrom(VIEW_DIRECTIONS.front);
    // A bar 100 wide behind a post that covers from 40 to 60.
    const bar = standing(box([100, 5, 10]), view, moved([0, 50, 0]));
    const post = standing(box([20, 5, 200]), view, moved([40, 0, -50]));
    const seen = viewLines([bar, post]).filter(({ owners }) => owners.includes(0));
    const level = seen.filter(({ from, to }) => Math.abs(from[1] - to[1]) < 1e-9);
    const spans = level.map(({ from, to }) => [from[0], to[0]].sort((a, b) => a - b));
    expect(
      spans.map(([a = 0, b = 0]) => [Math.round(a), Math.round(b)]).sort((p, q) => at(p, 0) - at(q, 0)),
    ).toEqual([
      [0, 40],
      [0, 40],
      [60, 100],
      [60, 100],
    ]);
    const hidden = viewLines([bar, post], { hidden: true }).filter(({ kind }) => kind === "hidden");
    expect(lengthOf(hidden)).toBeCloseTo(2 * 20, 1);
    // Where a hidden line lies beneath one that is seen, it is not told, and what is seen is not its piece's.
    const behind = standing(box([20, 5, 200]), view, moved([40, 90, -50]));
    const both = viewLines([post, behind], { hidden: true });
    expect(both.map(({ kind }) => kind)).toEqual(Array(4).fill("outline"));
    expect(both.map(({ owners }) => owners)).toEqual(Array(4).fill([0]));
  });

  it("show the far rim and the wall of a bore that goes through, and no silhouette of it", () => {
    const outer = ringOf(boxLoop([-30, -30], [30, 30]), { step: 0.2 });
    const hole = circle(20).map((one) =>
      one.kind === "arc" ? { ...one, start: one.start + one.sweep, sweep: -one.sweep } : one,
    );
    const view = viewFrom([0.2, 0, 1]);
    const bored = prismSolid(
      [outer, ringOf(moveLoop(hole, [0, 0]), { step: 0.2, silhouettes: [Math.PI / 2, -Math.PI / 2] })],
      levelEnd(0),
      levelEnd(20),
    );
    const solid = { ...standing(bored, view), round: 2 * 20 * (1 - Math.cos(0.2)) };
    const lines = viewLines([solid]);
    const found = verdict([solid], lines, seededRandom(3), { length: 40 });
    expect([found.missing, found.withoutReason]).toEqual([[], []]);
    expect(found.changes).toBeGreaterThan(20);
    // The near rim whole, of the far one what is seen through the bore: less than the near one.
    const rims = lines.filter(({ from, to }) => Math.hypot(to[0] - from[0], to[1] - from[1]) < 10);
    expect(lengthOf(rims)).toBeGreaterThan(1.2 * 2 * Math.PI * 20 * 0.98);
    expect(lengthOf(rims)).toBeLessThan(2 * 2 * Math.PI * 20);
  });

  it.each(
    Object.entries({ ...VIEW_DIRECTIONS, odd: [0.31, -1, 0.23] as const, steep: [-0.1, 0.2, 0.9] as const }),
  )(
    "of a mitred frame with shelves, seen from %s, are where the image changes, and nowhere else",
    (_, direction) => {
      const pieces = seenPieces(resultsOf(smallFrame()).shape, viewFrom([...direction]));
      const lines = viewLines(pieces);
      const found = verdict(pieces, lines, seededRandom(11), { scans: 40, places: 300 });
      expect([found.missing, found.withoutReason]).toEqual([[], []]);
      expect(Math.min(found.changes, found.drawn)).toBeGreaterThan(5);
    },
  );

  it("of members without their roundings and bores are fewer, and have their reasons as well", () => {
    const view = viewFrom([-0.62, -1, 0.62]);
    const { shape } = resultsOf(smallFrame());
    const plain = seenPieces(shape, view, { plain: true });
    const lines = viewLines(plain);
    expect(lines.length).toBeLessThan(viewLines(seenPieces(shape, view)).length / 2);
    expect(lines.some(({ kind }) => kind === "crease")).toBe(false);
    const found = verdict(plain, lines, seededRandom(4), { scans: 40, places: 200 });
    expect([found.missing, found.withoutReason]).toEqual([[], []]);
    expect(seenPieces(shape, view, { most: 3 })).toHaveLength(3);
  });

  it("take one solid for all members of a form that stand alike, and another for every other form", () => {
    const legs = (job: ReturnType<typeof smallFrame>) => {
      const pieces = seenPieces(resultsOf(job).shape, viewFrom([-1, -1, 1]));
      const of = (record: string) => pieces.find((piece) => piece.record === record)?.solid;
      const [left, right] = [of("legLeft"), of("legRight")];
      if (!left || !right) throw new Error("A leg is missing.");
      return [left, right] as const;
    };
    const [left, right] = legs(smallFrame());
    expect(left).toBe(right);
    // One that is a little shorter has a solid of its own.
    const [long, short] = legs(smallFrame({ points: { F: ["width - 20", "20", "0.001"] } }));
    expect(short).not.toBe(long);
    const height = (solid: Solid) => Math.max(...solid.points.map(([, , z]) => z));
    expect(height(long) - height(short)).toBeCloseTo(0.001, 9);
  });

  it("of solids at random that stand apart are where the image changes, from any direction", () => {
    const solidAt = (kind: number, size: number, [x, y]: Vec3): { solid: Solid; round: number } => {
      if (kind === 0) return { solid: box([size, 30, 12]), round: 0 };
      const angle = Math.atan2(y, x);
      const silhouettes = [angle + Math.PI / 2, angle - Math.PI / 2];
      const ring = ringOf(moveLoop(circle(15), [15, 15]), { step: Math.PI / 24, silhouettes });
      return {
        solid: prismSolid([ring], levelEnd(0), levelEnd(size)),
        round: 2 * 15 * (1 - Math.cos(Math.PI / 24)),
      };
    };
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.constantFrom(0, 0, 1),
            fc.integer({ min: 20, max: 80 }),
            fc.integer({ min: 0, max: 628 }),
            fc.boolean(),
          ),
          {
            minLength: 2,
            maxLength: 7,
          },
        ),
        fc.tuple(
          fc.integer({ min: -9, max: 9 }),
          fc.integer({ min: -9, max: 9 }),
          fc.integer({ min: 1, max: 9 }),
        ),
        (scene, direction) => {
          const view = viewFrom([direction[0] + 0.123, direction[1] - 0.217, direction[2]]);
          const solids = scene.map(([kind, size, turn, mirrored], i): SeenSolid => {
            const pose = posed(
              [200 * (i % 2), 200 * ((i >> 1) % 2), 200 * (i >> 2)],
              [turn / 100, turn / 70, turn / 130],
              mirrored ? 1 : null,
            );
            const made = solidAt(kind, size, towardsViewer(view, pose));
            return { ...standing(made.solid, view, pose), round: made.round };
          });
          const lines = viewLines(solids);
          const found = verdict(solids, lines, seededRandom(1), { scans: 25, places: 80, length: 120 });
          expect([found.missing, found.withoutReason]).toEqual([[], []]);
        },
      ),
      { numRuns: lawRuns(40) },
    );
  });

  it("are the same when what is drawn is turned with its view", () => {
    const { shape } = resultsOf(smallFrame());
    const view = viewFrom([-0.7, -1, 0.4]);
    const pieces = seenPieces(shape, view);
    const turn = posed([1000, -200, 77], [0.4, 1.1, -0.3], null);
    const turnedView: ViewFrame = {
      right: turnedBy(turn.frame, view.right),
      up: turnedBy(turn.frame, view.up),
      towards: turnedBy(turn.frame, view.towards),
    };
    const again = pieces.map((piece) => {
      const own = backInJob(view, piece.frame);
      return { ...piece, frame: inView(turnedView, poseIn(turn, { frame: own, mirrored: false }).frame) };
    });
    const [one, other] = [viewLines(pieces), viewLines(again)];
    expect(other).toHaveLength(one.length);
    expect(lengthOf(other)).toBeCloseTo(lengthOf(one), 3);
  });

  it("of pieces that lie flush are drawn once, and know both", () => {
    const view = viewFrom(VIEW_DIRECTIONS.front);
    const lines = viewLines([
      standing(box([50, 10, 20]), view),
      standing(box([30, 10, 20]), view, moved([50, 0, 0])),
    ]);
    const joint = lines.filter(
      ({ from, to }) => Math.abs(from[0] - 50) < 1e-6 && Math.abs(to[0] - 50) < 1e-6,
    );
    expect(joint.map(({ owners }) => owners)).toEqual([[0, 1]]);
    // Borders that run on are one line for both.
    expect(lines.filter(({ owners }) => owners.length === 2)).toHaveLength(3);
    expect(lengthOf(lines)).toBeCloseTo(2 * 80 + 3 * 20, 6);
  });

  it("of nothing are none", () => {
    expect(viewLines([])).toEqual([]);
    const empty = newJob({ info: { code: "T", title: "T" } });
    expect(seenPieces(resultsOf(empty).shape, viewFrom([0, -1, 0]))).toEqual([]);
  });
});

function turnedBy({ x, y, z }: Frame, [a, b, c]: Vec3): Vec3 {
  const part = (i: 0 | 1 | 2) => a * x[i] + b * y[i] + c * z[i];
  return [part(0), part(1), part(2)];
}

/** A frame in the axes of a view as it stands in the job. */
function backInJob({ right, up, towards }: ViewFrame, { origin, x, y, z }: Frame): Frame {
  const back = ([a, b, c]: Vec3): Vec3 => {
    const part = (i: 0 | 1 | 2) => a * right[i] + b * up[i] + c * towards[i];
    return [part(0), part(1), part(2)];
  };
  return { origin: back(origin), x: back(x), y: back(y), z: back(z) };
}
