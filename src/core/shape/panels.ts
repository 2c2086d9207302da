/**
 * All panels of a job, those first that others follow. A panel between two others takes its length from the
 * room between their faces, its width from the stretch along which both run.
 */

import { add, cross, dot, type Frame, scale, type Vec3 } from "../geometry";
import { type Between, type Job, lengthWith, type Panel } from "../job";
import { err, ok, PARALLEL_TOLERANCE, type Result } from "../kernel";
import { type ShapeFault, textFault } from "./fault";
import type { Readers } from "./member";
import type { ShapeMemory } from "./memory";
import { cornerSeat, finishPanel, type PanelSeat, type PanelSolid } from "./panel";

type Ground = Readers & {
  readonly absent: ReadonlySet<string>;
  readonly memory: Pick<ShapeMemory, "panel">;
};
type Placed = Result<PanelSolid, ShapeFault>;

/** Every panel that is part of the design now, with its solid or the reason why it has none. */
export function placedPanels(job: Job, ground: Ground): ReadonlyMap<Panel, Placed> {
  const known = new Map<string, Placed>();
  const open = new Set<string>();
  const find = (panel: Panel): Placed => {
    const before = known.get(panel.id);
    if (before) return before;
    open.add(panel.id);
    const others = panel.between
      ? [followed(panel, panel.between.first), followed(panel, panel.between.second)]
      : [];
    // Faults are told anew each time; solids are identical while nothing changed.
    const from = others.map((other) => (other.ok ? other.value : other));
    const { sizes, stockroom, usual } = ground;
    const placed = ground.memory.panel(panel, [sizes, stockroom, usual, ...from], () => {
      const seat = panel.between ? seatBetween(panel.between, others) : cornerSeat(panel, sizes);
      return seat.ok ? finishPanel(panel, seat.value, ground) : seat;
    });
    open.delete(panel.id);
    known.set(panel.id, placed);
    return placed;
  };
  const followed = (panel: Panel, id: string): Placed => {
    const other = job.panels[id];
    if (!other || ground.absent.has(id)) return err({ kind: "followsNone" });
    if (other.assembly !== panel.assembly) return err({ kind: "followsElsewhere", name: other.name });
    if (open.has(id)) return err({ kind: "followsLoop", names: [panel.name, other.name] });
    const placed = find(other);
    return placed.ok ? placed : err({ kind: "followsFault", name: other.name });
  };
  const seatBetween = (
    between: Between,
    [first, second]: readonly Placed[],
  ): Result<PanelSeat, ShapeFault> => {
    if (!first?.ok) return first ?? err({ kind: "followsNone" });
    if (!second?.ok) return second ?? err({ kind: "followsNone" });
    return betweenSeat(between, first.value, second.value, ground);
  };
  const placed = new Map<Panel, Placed>();
  for (const panel of Object.values(job.panels))
    if (!ground.absent.has(panel.id)) placed.set(panel, find(panel));
  return placed;
}

/** How far a panel reaches along a direction, from its own corner. */
function span({ frame, length, width, thickness }: PanelSolid, along: Vec3): readonly [number, number] {
  const start = dot(frame.origin, along);
  const ends = [
    length * dot(frame.x, along),
    width * dot(frame.y, along),
    (thickness ?? 0) * dot(frame.z, along),
  ];
  return [
    start + ends.reduce((sum, end) => sum + Math.min(0, end), 0),
    start + ends.reduce((sum, end) => sum + Math.max(0, end), 0),
  ];
}

const middle = ([low, high]: readonly [number, number]) => (low + high) / 2;

function betweenSeat(
  between: Between,
  first: PanelSolid,
  second: PanelSolid,
  { sizes }: Ground,
): Result<PanelSeat, ShapeFault> {
  const values: number[] = [];
  for (const text of [
    between.reachFirst,
    between.reachSecond,
    between.distance,
    between.insetStart,
    between.insetEnd,
  ]) {
    const value = lengthWith(sizes, text);
    if (!value.ok) return err(textFault("between", value.problem));
    values.push(value.value);
  }
  const [reachFirst, reachSecond, distance, insetStart, insetEnd] = values as [
    number,
    number,
    number,
    number,
    number,
  ];
  const { x, y, z } = first.frame;
  const names = [first.panel.name, second.panel.name] as const;
  const slant = cross(z, second.frame.z);
  if (Math.hypot(...slant) > Math.sqrt(PARALLEL_TOLERANCE)) return err({ kind: "notParallel", names });
  const ahead = middle(span(second, z)) > middle(span(first, z));
  const towards: Vec3 = ahead ? z : scale(z, -1);
  const from = span(first, towards)[1];
  const to = span(second, towards)[0];
  if (to - from <= 0) return err({ kind: "noRoom", names });
  const [run, rise] = between.runs === "width" ? [y, x] : [x, y];
  const [a, b] = [span(first, run), span(second, run)];
  const low = Math.max(a[0], b[0]) + insetStart;
  const high = Math.min(a[1], b[1]) - insetEnd;
  const width = high - low;
  if (width <= 0) return err({ kind: "notFacing", names });
  // Its good face looks along the rise; so its width runs along the run, or against it.
  const across = cross(rise, towards);
  const startOfRun = dot(across, run) > 0 ? low : high;
  const level = span(first, rise)[0] + distance;
  const origin = [scale(towards, from - reachFirst), scale(run, startOfRun), scale(rise, level)].reduce(
    (sum, part) => add(sum, part),
  );
  const frame: Frame = { origin, x: towards, y: across, z: rise };
  return ok({ frame, length: to - from + reachFirst + reachSecond, width });
}
