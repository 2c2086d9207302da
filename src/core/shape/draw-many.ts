/** Several members drawn in one go: round a rectangle, in a run of equal spaces, down from points. Each is drawn as by itself. */
import { type NewId, type PlaceText, plus, refused, termOf, textOf, times } from "../job";
import { SAME_PLACE_MM } from "../kernel";
import { type DrawGround, type DrawPlace, type DrawSettings, drawPairs, whereIs } from "./draw";

type Pair = readonly [from: DrawPlace, to: DrawPlace];

const placeOf = (texts: PlaceText): DrawPlace => ({ point: null, texts });

/** Four members round the rectangle between two opposite corners, which differ in two of the three directions. */
export function drawRectangle(
  ground: DrawGround,
  from: DrawPlace,
  to: DrawPlace,
  settings: DrawSettings,
  newId: NewId,
) {
  const [a, b] = [whereIs(ground.sizes, from), whereIs(ground.sizes, to)];
  if (!a.ok) return a;
  if (!b.ok) return b;
  const differ = ([0, 1, 2] as const).filter((i) => Math.abs(a.value[i] - b.value[i]) > SAME_PLACE_MM);
  const [first, second] = differ;
  if (differ.length !== 2 || first === undefined || second === undefined)
    return refused(
      "The opposite corner",
      to.texts.join("; "),
      "must differ from the first one in two of width, depth and height, and in those alone",
    );
  const corner = (...from1: readonly number[]): DrawPlace => {
    const part = (i: 0 | 1 | 2) => (from1.includes(i) ? to.texts[i] : from.texts[i]);
    return placeOf([part(0), part(1), part(2)]);
  };
  const round = [from, corner(first), to, corner(second)];
  const pairs = round.map((one, i): Pair => [one, round[(i + 1) % round.length] ?? from]);
  return drawPairs(ground, pairs, settings, newId, `Draw a rectangle of ${settings.name}`);
}

export type Run = {
  readonly count: number /** From one to the next: width; depth; height. */;
  readonly step: PlaceText;
};

/** A run of members beside one another, each a step further. */
export function drawRun(
  ground: DrawGround,
  from: DrawPlace,
  to: DrawPlace,
  { count, step }: Run,
  settings: DrawSettings,
  newId: NewId,
) {
  const { unit } = ground.job.info.job;
  const moved = (place: DrawPlace, n: number): DrawPlace => {
    if (n === 0) return place;
    const part = (i: 0 | 1 | 2) =>
      textOf(plus(termOf(place.texts[i], unit), times(termOf(step[i], unit), n)));
    return placeOf([part(0), part(1), part(2)]);
  };
  if (!Number.isInteger(count) || count < 2 || count > 200)
    return refused("The number in a run", String(count), "must be a whole number from 2 to 200");
  const pairs = Array.from({ length: count }, (_, n): Pair => [moved(from, n), moved(to, n)]);
  return drawPairs(ground, pairs, settings, newId, `Draw ${count} × ${settings.name}`);
}

/** A member from each of some points straight down, or up, to a height. */
export function drawLegs(
  ground: DrawGround,
  points: readonly string[],
  height: string,
  settings: DrawSettings,
  newId: NewId,
) {
  const pairs = points.flatMap((id): Pair[] => {
    const point = ground.job.points[id];
    if (!point) return [];
    const [x, y] = point.at;
    return [[placeOf([x, y, height]), { point: point.id, texts: point.at }]];
  });
  return drawPairs(ground, pairs, settings, newId, `Draw ${pairs.length} × ${settings.name}`);
}
