/** Curves that no line, circle or ellipse says: quintic Hermite pieces as one B-spline. */
import { add, distance, scale, type Vec3 } from "../geometry";
import { at } from "../kernel";

/**
 * A B-spline of degree 5 along the edge, with its second derivative continuous: knots 0 to `pieces`, six times at either end and
 * three times between. An even number of pieces.
 */
export type BrepSpline = {
  readonly kind: "spline";
  readonly pieces: number;
  readonly poles: readonly Vec3[];
};

/** A place on a curve with its first and second derivative by the curve's own parameter. */
export type CurvePlace = readonly [place: Vec3, first: Vec3, second: Vec3];

const DEGREE = 5;
/** Of one edge; a curve that needs more turns too sharply to be said. */
const MOST_PIECES = 256;

/**
 * The spline that comes within `tolerance` (mm) of a curve over a range of its parameter; null: none with so many pieces does.
 * Hermite pieces of degree 5 meet in place, slope and bend (C. de Boor, A Practical Guide to Splines, chapter IV); poles by their
 * blossoms (L. Ramshaw, 1987).
 */
export function splineAlong(
  curve: (parameter: number) => CurvePlace,
  [from, to]: readonly [number, number],
  tolerance: number,
): BrepSpline | null {
  for (let pieces = 4; pieces <= MOST_PIECES; pieces *= 2) {
    const step = (to - from) / pieces;
    const places = Array.from({ length: pieces + 1 }, (_, i) => curve(from + step * i));
    const parts = places.slice(1).map((end, i) => bezierOf(at(places, i), end, step));
    // Between the knots the error of a Hermite piece is greatest in its middle.
    const isNear = parts.every((part, i) => {
      const [place] = curve(from + step * (i + 0.5));
      return distance(blossom(part, Array(DEGREE).fill(0.5)), place) <= tolerance;
    });
    if (!isNear) continue;
    const knots = knotsOf(pieces);
    const poles = Array.from({ length: 3 * pieces + 3 }, (_, j): Vec3 => {
      const own = knots.slice(j + 1, j + 1 + DEGREE);
      const part = Math.min(pieces - 1, at(own, 2));
      return blossom(
        at(parts, part),
        own.map((knot) => knot - part),
      );
    });
    return { kind: "spline", pieces, poles };
  }
  return null;
}

/** All knots of a spline of so many pieces, each as often as it counts. */
const knotsOf = (pieces: number): readonly number[] =>
  Array.from({ length: pieces + 1 }, (_, i) =>
    Array(i === 0 || i === pieces ? DEGREE + 1 : 3).fill(i),
  ).flat();

/** The Bézier points of a piece between two places, `step` of the parameter apart. */
function bezierOf([p, p1, p2]: CurvePlace, [q, q1, q2]: CurvePlace, step: number): readonly Vec3[] {
  const [one, two] = [step / DEGREE, (step * step) / (DEGREE * (DEGREE - 1))];
  const b1 = add(p, scale(p1, one));
  const b4 = add(q, scale(q1, -one));
  return [
    p,
    b1,
    add(add(scale(b1, 2), scale(p, -1)), scale(p2, two)),
    add(add(scale(b4, 2), scale(q, -1)), scale(q2, two)),
    b4,
    q,
  ];
}

/** De Casteljau's scheme with a parameter of its own for each step. */
function blossom(points: readonly Vec3[], parameters: readonly number[]): Vec3 {
  return at(
    parameters.reduce<readonly Vec3[]>(
      (row, t) => row.slice(1).map((next, i) => add(scale(at(row, i), 1 - t), scale(next, t))),
      points,
    ),
    0,
  );
}

/** Where a spline is at a parameter between 0 and its pieces (de Boor). */
export function onSpline({ pieces, poles }: BrepSpline, parameter: number): Vec3 {
  const knots = knotsOf(pieces);
  const piece = Math.min(pieces - 1, Math.max(0, Math.floor(parameter)));
  // The last knot that is no greater than the parameter.
  const last = DEGREE + 3 * piece;
  let row: readonly Vec3[] = poles.slice(last - DEGREE, last + 1);
  for (let level = 1; level <= DEGREE; level++)
    row = row.slice(1).map((next, i) => {
      const low = at(knots, last - DEGREE + level + i);
      const high = at(knots, last + 1 + i);
      const share = (parameter - low) / (high - low);
      return add(scale(at(row, i), 1 - share), scale(next, share));
    });
  return at(row, 0);
}
