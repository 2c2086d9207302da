/**
 * Where assemblies stand: each placement taken as often as it counts, nested ones multiplied through, from the
 * job inwards. Counting and drawing both go by these instances, so that they cannot differ.
 */
import { AT_HOME, add, type Pose, posed, poseIn, scale, type Vec3 } from "../geometry";
import {
  type Assembly,
  type Check,
  findAssembly,
  type Home,
  type Job,
  lengthWith,
  MIRROR_AXES,
  numberWith,
  type Placement,
  plainCheck,
  type Sizes,
} from "../job";
import { addTo, err, ok, type Problem, type Result } from "../kernel";
import { toRadians } from "../measure";
import { faultWords, type ShapeFault, type TextField, textFault } from "./fault";

/** Whether pieces that stand there count in the lists; `within`: inside something that is bought as a whole. */
export type Counted = "listed" | "leftOut" | "guide" | "within";

export type Instance = {
  /** Placement ids with their place in the repeat, from the job inwards; empty for the job itself. */
  readonly key: string;
  readonly path: readonly string[];
  readonly pose: Pose;
  readonly counted: Counted;
  /** The assembly is bought as a whole: it counts as one piece, and what is in it does not. */
  readonly boughtWhole: boolean;
};

/** Of all instances of a home the one whose axes are its own: as it is drawn, not as in a mirror, where it stands so anywhere. */
export const asDrawn = (instances: readonly Instance[]): Instance | undefined =>
  instances.find(({ pose }) => !pose.mirrored) ?? instances[0];

export type Places = ReadonlyMap<Home, readonly Instance[]>;

const HERE: Instance = { key: "", path: [], pose: AT_HOME, counted: "listed", boughtWhole: false };
const MOST_REPEATS = 10_000;
const MOST_INSTANCES = 20_000;

/** All instances by home. Placements that cannot be computed stand nowhere and are told. */
export function instancesOf(job: Job, sizes: Sizes, absent: ReadonlySet<string>, checks: Check[]): Places {
  const places = new Map<Home, Instance[]>([[null, [HERE]]]);
  const inside = new Map<Home, Resolved[]>();
  for (const placement of Object.values(job.placements)) {
    if (absent.has(placement.id)) continue;
    const assembly = findAssembly(job, placement.assembly);
    if (!assembly) continue;
    const read = readPlacement(placement, assembly, sizes);
    if (read.ok) addTo(inside, placement.into, read.value);
    else
      checks.push(
        plainCheck("placement", "error", `${assembly.name}: ${faultWords(read.problem, sizes.style)}.`, [
          placement.id,
        ]),
      );
  }
  let total = 0;
  let told = false;
  const expand = (outer: Instance, home: Home, around: readonly Home[]): void => {
    for (const resolved of inside.get(home) ?? []) {
      const { placement, assembly, count } = resolved;
      // The edits keep an assembly from standing in itself; a file may come from elsewhere.
      if (around.includes(assembly.id)) {
        const words = `${assembly.name} contains itself. Delete one placement.`;
        checks.push(plainCheck("placement", "error", words, [placement.id]));
        continue;
      }
      total += count;
      if (total > MOST_INSTANCES) {
        const words = `${assembly.name} and others would stand there more than ${MOST_INSTANCES} times; the rest is not counted. Lower a count.`;
        if (!told) checks.push(plainCheck("placement", "error", words, [placement.id]));
        told = true;
        return;
      }
      for (let i = 0; i < count; i++) {
        const instance = instanceIn(outer, resolved, i);
        addTo(places, assembly.id, instance);
        expand(instance, assembly.id, [...around, assembly.id]);
      }
    }
  };
  expand(HERE, null, []);
  checks.push(...unplaced(job, places));
  return places;
}

/** Where something stands in its home, and how far from it each further one: millimetres, turns in radians. */
export type Standing = { readonly at: Vec3; readonly turn: Vec3; readonly step: Vec3 };

type Resolved = Standing & {
  readonly placement: Placement;
  readonly assembly: Assembly;
  readonly count: number;
};

function instanceIn(outer: Instance, resolved: Resolved, i: number): Instance {
  const { placement, assembly } = resolved;
  const mirror = placement.mirror === null ? null : (MIRROR_AXES.indexOf(placement.mirror) as 0 | 1 | 2);
  const own = poseOf(resolved, i, mirror);
  const within = outer.boughtWhole ? "within" : outer.counted;
  const counted: Counted =
    within !== "listed"
      ? within
      : assembly.role === "guide"
        ? "guide"
        : placement.leftOut || placement.without.includes(i + 1)
          ? "leftOut"
          : "listed";
  return {
    key: `${outer.key}${placement.id}:${i}/`,
    path: [...outer.path, placement.id],
    pose: poseIn(outer.pose, own),
    counted,
    boughtWhole: assembly.role === "bought",
  };
}

function readPlacement(placement: Placement, assembly: Assembly, sizes: Sizes): Result<Resolved, ShapeFault> {
  const standing = readStanding(placement, sizes);
  if (!standing.ok) return standing;
  const count = wholeCount(sizes, placement.count, MOST_REPEATS);
  if (!count.ok) return count;
  return ok({ ...standing.value, placement, assembly, count: count.value });
}

/** The lengths and turns (in degrees) that place something, by value or formula. */
export function readStanding(
  texts: Pick<Placement, "at" | "turn" | "step">,
  sizes: Sizes,
): Result<Standing, ShapeFault> {
  const length = (text: string) => lengthWith(sizes, text);
  const at = threeNumbers(texts.at, length, "place");
  if (!at.ok) return at;
  const step = threeNumbers(texts.step, length, "step");
  if (!step.ok) return step;
  const turn = threeNumbers(texts.turn, (text) => numberWith(sizes, text), "turn");
  if (!turn.ok) return turn;
  const [a, b, c] = turn.value;
  return ok({ at: at.value, step: step.value, turn: [toRadians(a), toRadians(b), toRadians(c)] });
}

/** The pose of the i-th (from nought) of those that stand one step apart. */
export function poseOf({ at, turn, step }: Standing, i: number, mirror: 0 | 1 | 2 | null): Pose {
  return posed(add(at, scale(step, i)), turn, mirror);
}

/** Three texts read one by one; the error says which of them cannot be computed. */
export function threeNumbers(
  texts: readonly [string, string, string],
  read: (text: string) => Result<number, Problem>,
  what: TextField,
): Result<Vec3, ShapeFault> {
  const values: number[] = [];
  for (const text of texts) {
    const value = read(text);
    if (!value.ok) return err(textFault(what, value.problem));
    values.push(value.value);
  }
  const [x, y, z] = values;
  return ok([x ?? 0, y ?? 0, z ?? 0]);
}

/** A count by value or formula: a whole number from 0 to `most`. */
export function wholeCount(
  sizes: Sizes,
  text: string,
  most: number,
  field: TextField = "other",
): Result<number, ShapeFault> {
  const read = numberWith(sizes, text);
  if (!read.ok) return err(textFault(field, read.problem));
  if (read.value < 0 || Math.abs(read.value - Math.round(read.value)) > 1e-9 || read.value > most)
    return err({ kind: "badCount", field, count: read.value, most });
  return ok(Math.round(read.value));
}

/** Assemblies that hold something and stand nowhere: their pieces are in no list, which must be said. */
function unplaced(job: Job, places: Places): readonly Check[] {
  const placed = new Set(Object.values(job.placements).map((placement) => placement.assembly as string));
  return Object.values(job.assemblies).flatMap((assembly) =>
    placed.has(assembly.id) || places.has(assembly.id)
      ? []
      : [
          plainCheck(
            "placement",
            "warning",
            `${assembly.name} is not placed anywhere, so nothing of it is in the lists; place it or remove it.`,
            [assembly.id],
          ),
        ],
  );
}
