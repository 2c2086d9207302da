/** Sizes that are no lengths between two places: diameters, radii, angles. */
import type { Vec2 } from "../../geometry";
import type { SizeItem } from "../../job";
import { LENGTH_TOLERANCE_MM } from "../../kernel";
import { formatDegrees, formatLength, toDegrees } from "../../measure";
import type { DrawItem, Stroke } from "../display";
import type { SizeFault } from "./item-fault";
import { boxOf, endStroke, line, type Made, type SizeGround, sizeText, widthOf, written } from "./size-parts";
import type { SeenPlace } from "./view-places";

type Round = {
  readonly sign: "⌀" | "R";
  readonly length: number;
  readonly radius: number;
  /** Where its leader goes; null: up to the right. */
  readonly towards: SeenPlace | null;
};

/** A leader from the edge of a hole to its diameter, or from a rounded corner outwards to its radius. */
export function roundSize(item: SizeItem, middle: SeenPlace, round: Round, ground: SizeGround): Made {
  const [x, y] = ground.place.onPaper([middle[0], middle[1]]);
  const radius = round.radius * ground.place.scale;
  const reach = radius + Math.max(3, Math.abs(item.out));
  const [tx, ty] = round.towards
    ? ground.place.onPaper([round.towards[0], round.towards[1]])
    : [x + Math.SQRT1_2, y - Math.SQRT1_2];
  const far = Math.hypot(tx - x, ty - y) || 1;
  const [c, s] = [(tx - x) / far, (ty - y) / far];
  const right = c < 0 ? -1 : 1;
  const [edge, knee]: [Vec2, Vec2] = [
    [x + c * radius, y + s * radius],
    [x + c * reach, y + s * reach],
  ];
  const text = sizeText(
    item,
    `${round.sign} ${formatLength(round.length, ground.style, LENGTH_TOLERANCE_MM)}`,
  );
  const { letters, narrow } = ground.widths;
  const value = { text, typed: item.typed !== null, letters };
  const width = widthOf(value);
  const stroke: Stroke = { ink: "ink", width: narrow };
  const items = [
    line(edge, knee, stroke),
    line(knee, [knee[0] + right * (width + 2), knee[1]], stroke),
    ...written(value, [knee[0] + right * (1 + width / 2), knee[1] - letters / 2 - 1], 0),
  ];
  return { items, box: boxOf(items), way: [c, s], grip: [knee, [knee[0] + right * (width + 2), knee[1]]] };
}

/** The angle between the lines of two members, about the place where they would meet. */
export function angleSize(
  item: SizeItem,
  first: readonly [SeenPlace, SeenPlace],
  second: readonly [SeenPlace, SeenPlace],
  ground: SizeGround,
): Made | { readonly fault: SizeFault } {
  const flat = ([x, y]: SeenPlace): Vec2 => ground.place.onPaper([x, y]);
  const [a, b, c, d] = [flat(first[0]), flat(first[1]), flat(second[0]), flat(second[1])];
  const [u, w]: [Vec2, Vec2] = [
    [b[0] - a[0], b[1] - a[1]],
    [d[0] - c[0], d[1] - c[1]],
  ];
  const det = u[0] * w[1] - u[1] * w[0];
  const sizes = Math.hypot(...u) * Math.hypot(...w);
  if (sizes === 0 || Math.abs(det) < 1e-4 * sizes) return { fault: { kind: "linesParallel" } };
  const t = ((c[0] - a[0]) * w[1] - (c[1] - a[1]) * w[0]) / det;
  const meet: Vec2 = [a[0] + u[0] * t, a[1] + u[1] * t];
  // From where they meet towards the end that is farther off.
  const away = (p: Vec2, q: Vec2): number => {
    const far =
      Math.hypot(p[0] - meet[0], p[1] - meet[1]) > Math.hypot(q[0] - meet[0], q[1] - meet[1]) ? p : q;
    return Math.atan2(far[1] - meet[1], far[0] - meet[0]);
  };
  const [from, raw] = [away(a, b), away(c, d)];
  const turn = Math.atan2(Math.sin(raw - from), Math.cos(raw - from));
  const value = trueAngle(first, second, Math.abs(turn));
  const radius = Math.max(6, Math.abs(item.out));
  const on = (angle: number, r = radius): Vec2 => [
    meet[0] + r * Math.cos(angle),
    meet[1] + r * Math.sin(angle),
  ];
  const stroke: Stroke = { ink: "ink", width: ground.widths.narrow };
  const text = sizeText(item, `${formatDegrees(toDegrees(value))}°`);
  const shown = { text, typed: item.typed !== null, letters: ground.widths.letters };
  const middle = from + turn / 2;
  const tangent = (angle: number): Vec2 => [-Math.sin(angle), Math.cos(angle)];
  const items: DrawItem[] = [
    {
      kind: "paths",
      paths: [
        {
          from: on(from),
          segments: [
            { kind: "ellipse", centre: meet, u: [radius, 0], v: [0, radius], from, to: from + turn },
          ],
          closed: false,
        },
      ],
      stroke,
      fill: null,
      layer: "SIZES",
    },
    endStroke(on(from), tangent(from), stroke),
    endStroke(on(from + turn), tangent(from + turn), stroke),
    ...written(shown, on(middle, radius + 2 + widthOf(shown) / 2), 0),
  ];
  return {
    items,
    box: boxOf(items),
    way: [Math.cos(middle), Math.sin(middle)],
    grip: [on(from), on(from + turn)],
  };
}

/** The angle between two lines as they stand in the design, on the side of the one that is seen. */
function trueAngle(
  [a, b]: readonly [SeenPlace, SeenPlace],
  [c, d]: readonly [SeenPlace, SeenPlace],
  seen: number,
): number {
  const [u, w] = [b.map((one, i) => one - (a[i] ?? 0)), d.map((one, i) => one - (c[i] ?? 0))];
  const dot = u.reduce((sum, one, i) => sum + one * (w[i] ?? 0), 0);
  const sharp = Math.acos(Math.min(1, Math.abs(dot) / (Math.hypot(...u) * Math.hypot(...w))));
  return seen > Math.PI / 2 + 1e-9 ? Math.PI - sharp : sharp;
}
