/**
 * Outlines as rings of points: what runs on from each point, and what kind of line a solid over the outline has there.
 * Only for drawing; areas and reaches are taken from the outline itself.
 */
import { at } from "../kernel";
import { endOf, type Loop, onArc, type Segment, startOf } from "./outline";
import { cross2, dot2, norm2, subtract2, type Vec2 } from "./vector";

/**
 * A line of a solid: `sharp` where two faces meet at an angle, `smooth` where one runs on into the other and only a
 * silhouette is seen, `crease` along the middle of a rounded corner, where the flats on either side would meet (an
 * imaginary intersection of ISO 128).
 */
export type LineKind = "sharp" | "smooth" | "crease";

export type RingPoint = {
  readonly at: Vec2;
  /** The segment of the outline that runs on from here to the next point. */
  readonly segment: number;
  /** Of the line that stands on this point; null: none, the outline runs straight on. */
  readonly kind: LineKind | null;
};

/** A ring of points, and the outline whose segments they lie on. */
export type Ring = { readonly loop: Loop; readonly points: readonly RingPoint[] };

export type Fineness = {
  /** Radians. No step along an arc is larger. */
  readonly step: number;
  /** Angles at which every arc that reaches them has a point: where its tangent runs along a direction of view. */
  readonly silhouettes?: readonly number[];
  /** Whether rounded corners have a crease. */
  readonly creases?: boolean;
};

/** Arcs that turn by more than this (radians) are no rounded corners. */
const MOST_CORNER = 3;
/** Directions nearer than this are one: an arc runs on into a straight line. */
const SMOOTH = 1e-6;
/** mm. Between arcs that run on into one another rounded numbers leave specks of lines, in any direction. */
const SPECK = 1e-4;

/** The outline with points on its arcs at even steps, the middle of each arc among them. */
export function ringOf(loop: Loop, { step, silhouettes = [], creases = false }: Fineness): Ring {
  const runs = loop.flatMap((segment, index) => (lengthOf(segment) < SPECK ? [] : [{ segment, index }]));
  const points = runs.flatMap(({ segment, index }, i): readonly RingPoint[] => {
    const before = at(runs, (i + runs.length - 1) % runs.length).segment;
    const first = { at: startOf(segment), segment: index, kind: jointKind(before, segment) };
    if (segment.kind === "line") return [first];
    const turn = Math.abs(segment.sweep);
    const corner = creases && turn < MOST_CORNER;
    const steps = 2 * Math.ceil(turn / step / 2 - 1e-9);
    const even = Array.from({ length: steps - 1 }, (_, k): { share: number; kind: LineKind } => ({
      share: (k + 1) / steps,
      kind: corner && 2 * (k + 1) === steps ? "crease" : "smooth",
    }));
    const inner = [...even];
    for (const angle of silhouettes) {
      const share = shareOf(segment, angle);
      const isNew = [0, ...inner.map((one) => one.share)].every((one) => Math.abs(one - share) * turn > 1e-9);
      if (isNew && (1 - share) * turn > 1e-9) inner.push({ share, kind: "smooth" });
    }
    inner.sort((a, b) => a.share - b.share);
    return [
      first,
      ...inner.map(({ share, kind }) => ({
        at: onArc(segment, segment.start + segment.sweep * share),
        segment: index,
        kind,
      })),
    ];
  });
  return { loop, points };
}

/** The outline with its corners sharp, where their tangents cross; one with rounder arcs at steps of 32 a turn. */
export function sharpRing(loop: Loop): Ring {
  if (loop.some((segment) => segment.kind === "arc" && Math.abs(segment.sweep) > MOST_CORNER))
    return ringOf(loop, { step: Math.PI / 16 });
  const points = loop.flatMap((segment, i): readonly RingPoint[] => {
    const next = (i + 1) % loop.length;
    if (segment.kind === "arc") {
      const round = { centre: segment.centre, radius: segment.radius / Math.cos(segment.sweep / 2) };
      return [{ at: onArc(round, segment.start + segment.sweep / 2), segment: next, kind: "sharp" }];
    }
    return at(loop, next).kind === "line" ? [{ at: segment.to, segment: next, kind: "sharp" }] : [];
  });
  return { loop, points };
}

/** How far along an arc (0 to 1) an angle lies; beyond 1 where the arc does not reach it. */
function shareOf({ start, sweep }: Extract<Segment, { kind: "arc" }>, angle: number): number {
  const turn = sweep > 0 ? angle - start : start - angle;
  const full = 2 * Math.PI;
  return (((turn % full) + full) % full) / Math.abs(sweep);
}

const lengthOf = (segment: Segment) =>
  segment.kind === "line"
    ? norm2(subtract2(segment.to, segment.from))
    : Math.abs(segment.sweep) * segment.radius;

/** Whether an outline turns between two segments that follow one another. */
function jointKind(before: Segment, after: Segment): LineKind | null {
  const [a, b] = [directionAt(before, "end"), directionAt(after, "start")];
  if (Math.abs(cross2(a, b)) > SMOOTH || dot2(a, b) < 0) return "sharp";
  return before.kind === "line" && after.kind === "line" ? null : "smooth";
}

function directionAt(segment: Segment, which: "start" | "end"): Vec2 {
  if (segment.kind === "line") {
    const [x, y] = subtract2(segment.to, segment.from);
    const size = Math.hypot(x, y);
    return [x / size, y / size];
  }
  const [x, y] = subtract2(which === "start" ? startOf(segment) : endOf(segment), segment.centre);
  const way = Math.sign(segment.sweep) / segment.radius;
  return [-y * way, x * way];
}
