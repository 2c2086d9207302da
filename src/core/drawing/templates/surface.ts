/**
 * The surface of a section laid flat: paper that is wrapped round a member, or rolled up in its bore. Lengths round the section are
 * taken at half the thickness of the paper, which lies on the outside and in the inside. Seen from where it is printed on, with
 * the end of the member up.
 */
import { type Loop, onArc, type Segment, type Vec2 } from "../../geometry";
import { at, err, ok, type Result } from "../../kernel";
import { type SectionShape, sectionProperties } from "../../stockroom";

export type TemplateSide = "outside" | "inside";

/** A place on the paper, and the places of the section that lie under it. */
export type SurfacePlace = {
  /** mm to the right of the left edge. */
  readonly along: number;
  /** On the surface that the paper lies on. */
  readonly on: Vec2;
  /** Square through the wall on its other surface; of solid sections the same as `on`. */
  readonly through: Vec2;
};

export type Surface = {
  readonly width: number;
  readonly places: readonly SurfacePlace[];
  /** Where the paper is folded or begins to bend, from the left. */
  readonly folds: readonly number[];
  /** Lines that stand on the middles of flat faces, or on the quarters of a round one: from the left, and their names. */
  readonly lines: readonly { readonly along: number; readonly name: string }[];
  /** Both edges meet when it is wrapped. */
  readonly closed: boolean;
  /** The section has a wall with a surface on either side. */
  readonly hasWall: boolean;
};

export type SurfaceFault = "open" | "solid";

/** Radians. No step along an arc is larger. */
const STEP = Math.PI / 360;
/** mm. Nor along a straight line, over which a saddle or a ridge may run. */
const STEP_MM = 2;

/** The wall of a tube; null: the section is no tube. */
function wallOf(shape: SectionShape): number | null {
  switch (shape.kind) {
    case "squareTube":
    case "rectangularTube":
      return shape.size[2];
    case "roundTube":
      return shape.size[1];
    default:
      return null;
  }
}

/**
 * The surface of a section laid flat. Its seam stands opposite `middle` (a direction of the section's plane, usually that of the
 * long point), in the middle of a flat face. Of angles the two outer faces, from toe to toe. `paper`: mm, its thickness.
 * Errors: `open` for sections that paper cannot be wrapped round, `solid` where there is no inside.
 */
export function surfaceOf(
  shape: SectionShape,
  { side, paper, middle }: { readonly side: TemplateSide; readonly paper: number; readonly middle: Vec2 },
): Result<Surface, SurfaceFault> {
  const { loops, sharp, isRound } = sectionProperties(shape);
  const wall = wallOf(shape);
  if (shape.kind === "equalAngle" || shape.kind === "unequalAngle")
    return side === "inside" ? err("solid") : ok(outerFaces(sharp));
  if (shape.kind === "channel" || shape.kind === "tee" || shape.kind === "beam") return err("open");
  if (side === "inside" && wall === null) return err("solid");
  const outer = at(loops, 0);
  const loop = side === "outside" ? outer : reversed(at(loops, 1));
  const more = side === "outside" ? paper / 2 : -paper / 2;
  const through = wall === null ? 0 : side === "outside" ? -wall : wall;
  const laid = laidFlat(fromSeam(loop, middle), more, through);
  const whole: Surface = {
    ...laid,
    lines: isRound ? quarters(laid.width) : laid.middles.map((along, i) => ({ along, name: String(i + 1) })),
    closed: true,
    hasWall: wall !== null,
  };
  // From inside one sees the other way round.
  return ok(side === "outside" ? whole : mirrored(whole));
}

function quarters(width: number): Surface["lines"] {
  return [180, 270, 0, 90].map((angle, i) => ({ along: (width * i) / 4, name: `${angle}°` }));
}

/** Holes run clockwise. */
function reversed(loop: Loop): Loop {
  return [...loop]
    .reverse()
    .map(
      (segment): Segment =>
        segment.kind === "line"
          ? { kind: "line", from: segment.to, to: segment.from }
          : { ...segment, start: segment.start + segment.sweep, sweep: -segment.sweep },
    );
}

/** A loop that begins opposite a direction: on a circle there, else in the middle of the flat face that is turned there most. */
function fromSeam(loop: Loop, [x, y]: Vec2): Loop {
  const [only] = loop;
  if (only?.kind === "arc" && loop.length === 1) return [{ ...only, start: Math.atan2(-y, -x) }];
  let [best, most] = [0, Number.NEGATIVE_INFINITY];
  for (const [i, segment] of loop.entries()) {
    if (segment.kind !== "line") continue;
    const [dx, dy] = [segment.to[0] - segment.from[0], segment.to[1] - segment.from[1]];
    const length = Math.hypot(dx, dy);
    if (length < 1e-9) continue;
    // Outwards lies to the right of a loop that runs anticlockwise.
    const turned = (-x * dy + y * dx) / length;
    if (turned > most + 1e-9) [best, most] = [i, turned];
  }
  const parted = at(loop, best);
  if (parted.kind !== "line") return loop;
  const half: Vec2 = [(parted.from[0] + parted.to[0]) / 2, (parted.from[1] + parted.to[1]) / 2];
  return [
    { kind: "line", from: half, to: parted.to },
    ...loop.slice(best + 1),
    ...loop.slice(0, best),
    { kind: "line", from: parted.from, to: half },
  ];
}

type Laid = Pick<Surface, "width" | "places" | "folds"> & { readonly middles: readonly number[] };

/** A loop that runs anticlockwise, laid flat; bends are longer by `more` of radius, and `through` lies so far outwards. */
function laidFlat(loop: Loop, more: number, through: number): Laid {
  const places: SurfacePlace[] = [];
  const folds: number[] = [];
  const middles: number[] = [];
  let along = 0;
  const put = (place: number, on: Vec2, [nx, ny]: Vec2) =>
    places.push({ along: place, on, through: [on[0] + nx * through, on[1] + ny * through] });
  for (const [i, segment] of loop.entries()) {
    if (segment.kind === "line") {
      const [dx, dy] = [segment.to[0] - segment.from[0], segment.to[1] - segment.from[1]];
      const length = Math.hypot(dx, dy);
      if (length < 1e-9) continue;
      const steps = Math.ceil(length / STEP_MM);
      for (let k = 0; k <= steps; k++) {
        const t = k / steps;
        put(
          along + length * t,
          [segment.from[0] + dx * t, segment.from[1] + dy * t],
          [dy / length, -dx / length],
        );
      }
      // The first and the last are halves of the face that the seam stands on.
      if (i > 0 && i < loop.length - 1) middles.push(along + length / 2);
      if (i > 0) folds.push(along);
      if (i < loop.length - 1) folds.push(along + length);
      along += length;
    } else {
      const steps = Math.ceil(Math.abs(segment.sweep) / STEP);
      const length = (segment.radius + more) * Math.abs(segment.sweep);
      for (let k = 0; k <= steps; k++) {
        const angle = segment.start + (segment.sweep * k) / steps;
        put(along + (length * k) / steps, onArc(segment, angle), [Math.cos(angle), Math.sin(angle)]);
      }
      along += length;
    }
  }
  return {
    width: along,
    places: places.filter((place, i) => i === 0 || place.along - at(places, i - 1).along > 1e-9),
    folds: [...new Set(folds.map((fold) => Math.round(fold * 1e6) / 1e6))],
    middles,
  };
}

/** Both outer faces of an angle side by side, with the heel between them. */
function outerFaces(sharp: readonly Vec2[]): Surface {
  const next = (i: number) => at(sharp, (i + 1) % sharp.length);
  const before = (i: number) => at(sharp, (i + sharp.length - 1) % sharp.length);
  const size = ([a, b]: Vec2, [c, d]: Vec2) => Math.hypot(a - c, b - d);
  const faces = (i: number) => size(before(i), at(sharp, i)) + size(at(sharp, i), next(i));
  const heel = sharp.reduce((best, _, i) => (faces(i) > faces(best) ? i : best), 0);
  const loop: Loop = [
    { kind: "line", from: before(heel), to: at(sharp, heel) },
    { kind: "line", from: at(sharp, heel), to: next(heel) },
  ];
  const { width, places } = laidFlat(loop, 0, 0);
  const first = size(before(heel), at(sharp, heel));
  return {
    width,
    places,
    folds: [first],
    lines: [
      { along: 0, name: "toe" },
      { along: first, name: "heel" },
      { along: width, name: "toe" },
    ],
    closed: false,
    hasWall: false,
  };
}

function mirrored({ width, places, folds, lines, ...rest }: Surface): Surface {
  return {
    ...rest,
    width,
    places: [...places].reverse().map((place) => ({ ...place, along: width - place.along })),
    folds: folds.map((fold) => width - fold).sort((a, b) => a - b),
    lines: lines.map(({ along, name }) => ({ along: width - along, name })),
  };
}
