/** Copies of pieces, moved, repeated or mirrored, as one edit that inserts them. */
import { err, ok, type Problem, type Result } from "../kernel";
import type { InsertEdit } from "./edit-geometry";
import type { Line, Point } from "./frame";
import type { Job } from "./job";
import { against, type EndCut, type Member, neighbourOf, SQUARE_END } from "./member";
import type { Groove, Panel, PanelEdge } from "./panel";
import { mirrored, movedPlace, type PlaceText, plus, termOf, textOf, times } from "./place-text";
import { refused } from "./records";

export type NewId = (kind: string) => string;
export type Axis = 0 | 1 | 2;
export type CopyRule =
  | { readonly kind: "move"; readonly by: PlaceText; readonly times: number }
  | { readonly kind: "mirror"; readonly axis: Axis; readonly plane: string };

const AXIS_WORDS = ["width", "depth", "height"] as const;
const MOST_COPIES = 500;

/**
 * The edit that inserts copies of members, panels and bought parts. Points and lines go along; end cuts
 * between copied members hold between their copies. Bought parts that are only counted are not copied.
 */
export function copyOfPieces(
  job: Job,
  ids: readonly string[],
  rule: CopyRule,
  newId: NewId,
): Result<InsertEdit, Problem> {
  const count = rule.kind === "move" ? rule.times : 1;
  if (!Number.isInteger(count) || count < 1 || count > MOST_COPIES)
    return refused("The number of copies", String(count), `must be a whole number from 1 to ${MOST_COPIES}`);
  const parts: { points: Point[]; lines: Line[]; members: Member[]; panels: Panel[] } = {
    points: [],
    lines: [],
    members: [],
    panels: [],
  };
  for (let i = 1; i <= count; i++) {
    const copier = new Copier(job, new Set(ids), rule, i, newId);
    const copied = copier.copy();
    if (!copied.ok) return copied;
    for (const name of ["points", "lines", "members", "panels"] as const)
      (parts[name] as unknown[]).push(...copied.value[name]);
  }
  if (parts.members.length + parts.panels.length === 0)
    return err({ kind: "emptyText", what: "The selection of members and panels" });
  const what =
    rule.kind === "mirror"
      ? `Mirror across the ${AXIS_WORDS[rule.axis]}`
      : count === 1
        ? "Copy"
        : `Repeat ${count} times`;
  return ok({ kind: "insert", what, ...parts, boughtParts: [] });
}

class Copier {
  private readonly points = new Map<string, Point>();
  private readonly lines = new Map<string, Line>();
  private readonly memberIds = new Map<string, string>();
  private readonly job: Job;
  private readonly ids: ReadonlySet<string>;
  private readonly rule: CopyRule;
  private readonly step: number;
  private readonly newId: NewId;

  constructor(job: Job, ids: ReadonlySet<string>, rule: CopyRule, step: number, newId: NewId) {
    this.job = job;
    this.ids = ids;
    this.rule = rule;
    this.step = step;
    this.newId = newId;
  }

  copy(): Result<Pick<InsertEdit, "points" | "lines" | "members" | "panels">, Problem> {
    const own = Object.values(this.job.members).filter((member) => this.ids.has(member.id));
    for (const member of own) this.memberIds.set(member.id, this.newId("member"));
    const members = own.map((member) => this.member(member));
    const panels: Panel[] = [];
    for (const panel of Object.values(this.job.panels).filter((one) => this.ids.has(one.id))) {
      const copied = this.panel(panel);
      if (!copied.ok) return copied;
      panels.push(copied.value);
    }
    return ok({ points: [...this.points.values()], lines: [...this.lines.values()], members, panels });
  }

  private place(at: PlaceText): [string, string, string] {
    const { rule, step } = this;
    const unit = this.job.info.job.unit;
    if (rule.kind === "move") {
      const by = (i: Axis) => textOf(times(termOf(rule.by[i], unit), step));
      return movedPlace(at, [by(0), by(1), by(2)], unit);
    }
    const part = (i: Axis) => (i === rule.axis ? mirrored(at[i], rule.plane, unit) : at[i]);
    return [part(0), part(1), part(2)];
  }

  private point(id: string): Point["id"] {
    const known = this.points.get(id);
    if (known) return known.id;
    const point = this.job.points[id];
    const made = {
      id: this.newId("point") as Point["id"],
      name: this.newId("pointName"),
      at: this.place(point?.at ?? ["0", "0", "0"]),
    };
    this.points.set(id, made);
    return made.id;
  }

  /** A mirrored line runs the other way: so the section on it is its mirror image, whatever its outline. */
  private line(id: string): Line["id"] {
    const known = this.lines.get(id);
    if (known) return known.id;
    const line = this.job.lines[id];
    const [from, to] = [this.point(line?.from ?? ""), this.point(line?.to ?? "")];
    const made: Line = {
      id: this.newId("line") as Line["id"],
      ...(this.rule.kind === "mirror" ? { from: to, to: from } : { from, to }),
    };
    this.lines.set(id, made);
    return made.id;
  }

  private cut(cut: EndCut): EndCut {
    const other = neighbourOf(cut);
    if (cut.kind === "level" && this.rule.kind === "mirror" && this.rule.axis === 2)
      return { ...cut, offset: textOf(times(termOf(cut.offset, this.job.info.job.unit), -1)) };
    if (other === null) return cut;
    const copy = this.memberIds.get(other) as Member["id"] | undefined;
    if (copy !== undefined) return against(cut, copy);
    // A mitre and a run past need their partner at the joint; others may still meet the same member.
    return cut.kind === "butt" || cut.kind === "cope" ? cut : SQUARE_END;
  }

  private member(member: Member): Member {
    const flipped = this.rule.kind === "mirror";
    const [start, end] = [this.cut(member.start), this.cut(member.end)];
    return {
      ...member,
      id: this.memberIds.get(member.id) as Member["id"],
      line: this.line(member.line),
      roll: flipped ? this.mirroredRoll(member) : member.roll,
      start: flipped ? end : start,
      end: flipped ? start : end,
    };
  }

  /** Where the reference direction of the line's frame is turned over by the mirror, the roll makes it good. */
  private mirroredRoll(member: Member): string {
    if (this.rule.kind !== "mirror") return member.roll;
    const line = this.job.lines[member.line];
    const [from, to] = [this.job.points[line?.from ?? ""]?.at, this.job.points[line?.to ?? ""]?.at];
    const plumb = from !== undefined && to !== undefined && from[0] === to[0] && from[1] === to[1];
    // Lines take "up" for their reference, plumb ones the depth of the job.
    const turnedOver = plumb ? this.rule.axis === 1 : this.rule.axis === 2;
    return turnedOver ? textOf(plus(termOf(member.roll, "mm"), 180)) : member.roll;
  }

  private panel(panel: Panel): Result<Panel, Problem> {
    const id = this.newId("panel") as Panel["id"];
    const work = panel.work.map((one) => ({ ...one, id: this.newId("groove") }));
    if (this.rule.kind === "move") return ok({ ...panel, id, work, origin: this.place(panel.origin) });
    return mirroredPanel({ ...panel, id, work }, this.rule.axis, (at) => this.place(at), this.job);
  }
}

const SWAPPED: Readonly<Record<PanelEdge, PanelEdge>> = {
  front: "back",
  back: "front",
  left: "left",
  right: "right",
};

/** A mirrored panel: front and back change places, since its own axes stay right-handed. */
function mirroredPanel(
  panel: Panel,
  axis: Axis,
  place: (at: PlaceText) => [string, string, string],
  job: Job,
): Result<Panel, Problem> {
  const across = widthAxisOf(panel);
  if (!across)
    return refused(
      "Panel",
      panel.name,
      "stands at axes given by formulas or slanting; mirror it as part of an assembly",
    );
  const unit = job.info.job.unit;
  const back = (i: Axis) =>
    textOf(plus(termOf(panel.origin[i], unit), times(termOf(panel.width, unit), across[i])));
  const turned = (direction: PlaceText): [string, string, string] => {
    const part = (i: Axis) => (i === axis ? textOf(times(termOf(direction[i], "mm"), -1)) : direction[i]);
    return [part(0), part(1), part(2)];
  };
  const { edging } = panel;
  return ok({
    ...panel,
    origin: place([back(0), back(1), back(2)]),
    lengthAxis: turned(panel.lengthAxis),
    faceAxis: turned(panel.faceAxis),
    edging: { front: edging.back, back: edging.front, left: edging.left, right: edging.right },
    work: panel.work.map((groove): Groove => mirroredGroove(groove)),
  });
}

/** Measured from the other long edge; stops at the front and back ends change places on cross grooves. */
function mirroredGroove(groove: Groove): Groove {
  const crosses = groove.from === "left" || groove.from === "right";
  return {
    ...groove,
    from: SWAPPED[groove.from],
    stopAtStart: crosses ? groove.stopAtEnd : groove.stopAtStart,
    stopAtEnd: crosses ? groove.stopAtStart : groove.stopAtEnd,
  };
}

/** The unit vector along the panel's width, for panels square to the job; null otherwise. */
function widthAxisOf(panel: Panel): readonly [number, number, number] | null {
  const numbers = (direction: PlaceText) => direction.map(Number);
  const [x, z] = [numbers(panel.lengthAxis), numbers(panel.faceAxis)];
  const square = (d: readonly number[]) =>
    d.every(Number.isFinite) && d.filter((part) => part !== 0).length === 1;
  if (!square(x) || !square(z)) return null;
  const sign = (d: readonly number[]) => d.map((part) => Math.sign(part));
  const [sx, sz] = [sign(x), sign(z)];
  const cross = (i: number, j: number) => (sz[i] ?? 0) * (sx[j] ?? 0) - (sz[j] ?? 0) * (sx[i] ?? 0);
  return [cross(1, 2), cross(2, 0), cross(0, 1)];
}
