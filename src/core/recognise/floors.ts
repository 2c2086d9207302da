/** Floors of grooves and rebates as rectangles. */
import type { Vec2 } from "../geometry";
import { at } from "../kernel";

/** mm. */
const SAME = 0.01;
const rounded = (value: number) => Math.round(value * 10_000) / 10_000;

type Rectangle = { readonly x0: number; readonly x1: number; readonly y0: number; readonly y1: number };

/** Cells of a grid over the corners of a floor; more of them come from something that is no groove. */
const MOST_CELLS = 900;

/** The rectangles that a floor is of: grooves that cross or stand apart on one level. Null: it has other borders than theirs. */
export function rectanglesOf(triangles: readonly (readonly Vec2[])[]): readonly Rectangle[] | null {
  const stops = (axis: 0 | 1) =>
    [...new Set(triangles.flat().map((place) => rounded(place[axis])))]
      .sort((a, b) => a - b)
      .filter((value, i, all) => i === 0 || value - at(all, i - 1) > SAME);
  const [xs, ys] = [stops(0), stops(1)];
  const [columns, rows] = [xs.length - 1, ys.length - 1];
  if (columns * rows > MOST_CELLS || columns < 1 || rows < 1) return null;
  const has = Array.from({ length: columns }, (_, i) =>
    Array.from({ length: rows }, (_, k) => {
      const middle: Vec2 = [(at(xs, i) + at(xs, i + 1)) / 2, (at(ys, k) + at(ys, k + 1)) / 2];
      return triangles.some((corners) => holds(corners, middle));
    }),
  );
  const cells = (i: number, k: number) => (at(xs, i + 1) - at(xs, i)) * (at(ys, k + 1) - at(ys, k));
  const area = has.reduce(
    (sum, column, i) => sum + column.reduce((all, is, k) => all + (is ? cells(i, k) : 0), 0),
    0,
  );
  const real = triangles.reduce((sum, [a, b, c]) => {
    if (!a || !b || !c) return sum;
    return sum + Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / 2;
  }, 0);
  // A floor that ends at a slant is no rectangle, however little it slants.
  if (Math.abs(area - real) > 1e-5 * real + 0.01) return null;
  const left = has.map((column) => [...column]);
  const found: Rectangle[] = [];
  for (;;) {
    let best: {
      readonly from: Vec2;
      readonly to: Vec2;
      readonly fresh: number;
      readonly whole: number;
    } | null = null;
    for (let i = 0; i < columns; i++)
      for (let k = 0; k < rows; k++) {
        let most = rows;
        for (let i1 = i; i1 < columns; i1++) {
          let k1 = k;
          while (k1 < most && at(at(has, i1), k1)) k1++;
          most = Math.min(most, k1);
          if (most <= k) break;
          let fresh = 0;
          for (let a = i; a <= i1; a++)
            for (let b = k; b < most; b++) if (at(at(left, a), b)) fresh += cells(a, b);
          const whole = (at(xs, i1 + 1) - at(xs, i)) * (at(ys, most) - at(ys, k));
          const more = fresh - (best?.fresh ?? 0);
          // Of two that take as much it is the one that runs on through what another took: mirrored panels part alike.
          if (more > 1e-9 || (fresh > 0 && more > -1e-9 && whole > (best?.whole ?? 0) + 1e-9))
            best = { from: [i, k], to: [i1, most - 1], fresh, whole };
        }
      }
    if (!best) return found;
    const [i0, k0] = best.from;
    const [i1, k1] = best.to;
    for (let a = i0; a <= i1; a++) for (let b = k0; b <= k1; b++) (left[a] ?? [])[b] = false;
    found.push({ x0: at(xs, i0), x1: at(xs, i1 + 1), y0: at(ys, k0), y1: at(ys, k1 + 1) });
  }
}

function holds(corners: readonly Vec2[], [x, y]: Vec2): boolean {
  const sides = corners.map(([ax, ay], i) => {
    const [bx, by] = at(corners, (i + 1) % corners.length);
    return (bx - ax) * (y - ay) - (by - ay) * (x - ax);
  });
  return sides.every((side) => side >= 0) || sides.every((side) => side <= 0);
}
