/**
 * A check of shape layouts that shares nothing with the search or the product's own check: outlines are walked along their
 * true arcs in short steps, places are turned with complex numbers, and each step of one shape is compared with each edge of
 * the other. Written for the tests alone.
 */
import type { NestingLayout, NestingProblem, ShapePlacement } from "./problem";

type Complex = { readonly re: number; readonly im: number };
/** Chords of a hollow arc lie outside of it: with so many steps by less than a micron. */
const STEPS = 120;
const EPS = 4e-3;

/** Corners and steps along the arcs of a shape where it lies, in order. */
function walked(problem: NestingProblem, one: ShapePlacement): readonly Complex[] {
  const shape = problem.shapes[one.shape];
  if (!shape) throw new Error("a placement names no shape");
  const turn = { re: Math.cos((one.angle * Math.PI) / 180), im: Math.sin((one.angle * Math.PI) / 180) };
  const lies = ({ re, im }: Complex): Complex => {
    const [x, y] = [one.mirrored ? -re : re, im];
    return { re: x * turn.re - y * turn.im + one.x, im: x * turn.im + y * turn.re + one.y };
  };
  const { outline } = shape;
  return outline.flatMap(([x, y, bulge = 0], i) => {
    const [toX, toY] = outline[(i + 1) % outline.length] ?? [x, y];
    if (bulge === 0) return [lies({ re: x, im: y })];
    // The sagitta of an arc is its bulge times half its chord; three points give its circle.
    const [mx, my] = [(x + toX) / 2, (y + toY) / 2];
    const [nx, ny] = [(toY - y) / 2, -(toX - x) / 2];
    const half = Math.hypot(nx, ny);
    const depth = bulge * half;
    const radius = (half ** 2 + depth ** 2) / (2 * Math.abs(depth));
    const centre = (depth - Math.sign(depth) * radius) / half;
    const [cx, cy] = [mx + nx * centre, my + ny * centre];
    const start = Math.atan2(y - cy, x - cx);
    const sweep = 4 * Math.atan(bulge);
    return Array.from({ length: STEPS }, (_, k) => {
      const angle = start + (sweep * k) / STEPS;
      return lies({ re: cx + radius * Math.cos(angle), im: cy + radius * Math.sin(angle) });
    });
  });
}

function apart(p: Complex, a: Complex, b: Complex): number {
  const [dx, dy] = [b.re - a.re, b.im - a.im];
  const whole = dx * dx + dy * dy || 1;
  const share = Math.min(1, Math.max(0, ((p.re - a.re) * dx + (p.im - a.im) * dy) / whole));
  return Math.hypot(p.re - a.re - share * dx, p.im - a.im - share * dy);
}

/** How often a closed walk winds round a point; not zero: it is inside. */
function winding(walk: readonly Complex[], p: Complex): number {
  let sum = 0;
  walk.forEach((a, i) => {
    const b = walk[(i + 1) % walk.length] ?? a;
    const [from, to] = [Math.atan2(a.im - p.im, a.re - p.re), Math.atan2(b.im - p.im, b.re - p.re)];
    const step = to - from;
    sum += step > Math.PI ? step - 2 * Math.PI : step < -Math.PI ? step + 2 * Math.PI : step;
  });
  return Math.round(sum / (2 * Math.PI));
}

function nearest(a: readonly Complex[], b: readonly Complex[]): number {
  const toB = (p: Complex) => Math.min(...b.map((q, i) => apart(p, q, b[(i + 1) % b.length] ?? q)));
  // Places inside the one, near its corners: inside the other as well, they are told from touching.
  const within = a.flatMap((p, i): readonly Complex[] => {
    const [q, r] = [a[(i + 1) % a.length] ?? p, a[(i + 2) % a.length] ?? p];
    const middle = { re: (p.re + q.re + r.re) / 3, im: (p.im + q.im + r.im) / 3 };
    return winding(a, middle) === 0 ? [] : [middle];
  });
  if (within.some((p) => winding(b, p) !== 0 && toB(p) > 10 * EPS)) return -1;
  return Math.min(...a.map(toB));
}

/** null, or what is wrong with a layout. */
export function nestingFaultOf(problem: NestingProblem, layout: NestingLayout): string | null {
  const lain = new Map<number, { plain: number; mirrored: number; waiting: number }>();
  const countOf = (shape: number) => {
    const known = lain.get(shape) ?? { plain: 0, mirrored: 0, waiting: 0 };
    lain.set(shape, known);
    return known;
  };
  for (const [i, sheet] of layout.sheets.entries()) {
    const stock = problem.stock[sheet.stock];
    if (!stock) return `sheet ${i} is of no stock`;
    const walks = sheet.placements.map((one) => walked(problem, one));
    for (const [k, one] of sheet.placements.entries()) {
      countOf(one.shape)[one.mirrored ? "mirrored" : "plain"]++;
      const walk = walks[k] ?? [];
      const { margin, gap } = problem;
      const off = walk.some(
        ({ re, im }) =>
          re < margin - EPS ||
          im < margin - EPS ||
          re > stock.length - margin + EPS ||
          im > stock.width - margin + EPS,
      );
      if (off) return `sheet ${i}: shape ${k} is off it`;
      const along = stock.grain === "length" ? [0, 180, 360] : [90, 270];
      if (problem.shapes[one.shape]?.grain && !one.against && !along.includes(one.angle))
        return `sheet ${i}: shape ${k} lies across the grain`;
      for (const [other, walkOfOther] of walks.slice(0, k).entries())
        if (Math.min(nearest(walk, walkOfOther), nearest(walkOfOther, walk)) < gap - EPS)
          return `sheet ${i}: shapes ${other} and ${k} are too near`;
      for (const rest of sheet.offcuts)
        if (walk.some(({ re }) => re > rest.x - gap + EPS)) return `sheet ${i}: a rest has shape ${k} in it`;
    }
  }
  for (const { shape, qty } of layout.unplaced) countOf(shape).waiting += qty;
  for (const [shape, { qty, opposite }] of problem.shapes.entries()) {
    const { plain, mirrored, waiting } = countOf(shape);
    if (plain + mirrored + waiting !== qty) return `shape ${shape}: ${plain + mirrored + waiting} of ${qty}`;
    if (opposite !== null && (mirrored > opposite || plain > qty - opposite))
      return `shape ${shape}: ${mirrored} mirrored of ${opposite}`;
  }
  for (const [i, { count }] of problem.stock.entries())
    if (count !== null && layout.sheets.filter((sheet) => sheet.stock === i).length > count)
      return `stock ${i} is used too often`;
  for (const { stock, placements } of problem.fixed) {
    const kept = layout.sheets.some(
      (sheet) =>
        sheet.stock === stock &&
        placements.every((want) =>
          sheet.placements.some(
            (one) =>
              one.shape === want.shape &&
              Math.hypot(one.x - want.x, one.y - want.y) < EPS &&
              one.angle === want.angle &&
              (one.mirrored ?? false) === want.mirrored,
          ),
        ),
    );
    if (!kept) return "a lock was let go";
  }
  return null;
}
