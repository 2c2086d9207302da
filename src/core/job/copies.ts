/** Copies of pieces, moved, repeated or mirrored, as one edit that inserts them. */
import { err, ok, type Problem, type Result } from "../kernel";
import { type Home, MIRROR_AXES, type Placement } from "./assembly";
import type { BoughtPart } from "./bought-part";
import { type InsertEdit, newInsert } from "./edit-geometry";
import {
  type EndCut,
  meetsOf,
  mirroredCut,
  neighboursOf,
  replacedNeighbour,
  withoutNeighbours,
} from "./end-cuts";
import type { Line, Point } from "./frame";
import type { Job } from "./job";
import type { Member } from "./member";
import { reversedWork } from "./member-work";
import type { Panel } from "./panel";
import { mirroredPanel } from "./panel-mirror";
import { type Axis, mirrored, movedPlace, type PlaceText, plus, termOf, textOf, times } from "./place-text";
import { refused } from "./records";

export type NewId = (kind: string) => string;
export type CopyRule =
  | { readonly kind: "move"; readonly by: PlaceText; readonly times: number }
  | { readonly kind: "mirror"; readonly axis: Axis; readonly plane: string };

const MOST_COPIES = 500;
type Copied = Pick<InsertEdit, "points" | "lines" | "members" | "panels" | "boughtParts" | "placements">;

/**
 * The edit that inserts copies of members, panels, bought parts that stand somewhere, and placements of
 * assemblies. Points and lines go along; end cuts between copied members hold between their copies. Bought parts that
 * are only counted are not copied. With `home` the copies live there instead of where the originals do.
 */
export function copyOfPieces(
  job: Job,
  ids: readonly string[],
  rule: CopyRule,
  newId: NewId,
  home?: Home,
): Result<InsertEdit, Problem> {
  const count = rule.kind === "move" ? rule.times : 1;
  if (!Number.isInteger(count) || count < 1 || count > MOST_COPIES)
    return refused("The number of copies", String(count), `must be a whole number from 1 to ${MOST_COPIES}`);
  const parts: Copied = { points: [], lines: [], members: [], panels: [], boughtParts: [], placements: [] };
  for (let i = 1; i <= count; i++) {
    const copied = new Copier(job, new Set(ids), rule, { step: i, newId, home }).copy();
    if (!copied.ok) return copied;
    for (const name of Object.keys(parts) as (keyof Copied)[])
      (parts[name] as unknown[]).push(...copied.value[name]);
  }
  const { members, panels, boughtParts, placements } = parts;
  if (members.length + panels.length + boughtParts.length + placements.length === 0)
    return err({ kind: "emptyText", what: "The selection of pieces" });
  const what =
    rule.kind === "mirror"
      ? `Mirror across the ${MIRROR_AXES[rule.axis]}`
      : count === 1
        ? "Copy"
        : `Repeat ${count} times`;
  return ok(newInsert(what, parts));
}

type How = { readonly step: number; readonly newId: NewId; readonly home: Home | undefined };

class Copier {
  private readonly points = new Map<string, Point>();
  private readonly lines = new Map<string, Line>();
  private readonly newIds = new Map<string, string>();
  private readonly job: Job;
  private readonly ids: ReadonlySet<string>;
  private readonly rule: CopyRule;
  private readonly how: How;

  constructor(job: Job, ids: ReadonlySet<string>, rule: CopyRule, how: How) {
    this.job = job;
    this.ids = ids;
    this.rule = rule;
    this.how = how;
  }

  copy(): Result<Copied, Problem> {
    const chosen = <T extends { readonly id: string }>(records: Readonly<Record<string, T>>) =>
      Object.values(records).filter((record) => this.ids.has(record.id));
    const own = chosen(this.job.members);
    const ownPanels = chosen(this.job.panels);
    for (const member of own) this.newIds.set(member.id, this.how.newId("member"));
    for (const panel of ownPanels) this.newIds.set(panel.id, this.how.newId("panel"));
    const members = own.map((member) => this.member(member));
    const panels: Panel[] = [];
    for (const panel of ownPanels) {
      const copied = this.panel(panel);
      if (!copied.ok) return copied;
      panels.push(copied.value);
    }
    const boughtParts = chosen(this.job.boughtParts)
      .filter((part) => part.stand !== null || this.how.home !== undefined)
      .map((part) => this.boughtPart(part));
    const placements = chosen(this.job.placements).map((placement) => this.placement(placement));
    // Guides: lines without a member, and points that nothing stands on yet.
    for (const line of chosen(this.job.lines)) this.line(line.id);
    for (const point of chosen(this.job.points)) this.point(point.id);
    return ok({
      points: [...this.points.values()],
      lines: [...this.lines.values()],
      members,
      panels,
      boughtParts,
      placements,
    });
  }

  private home(own: Home): Home {
    return this.how.home === undefined ? own : this.how.home;
  }

  private place(at: PlaceText): [string, string, string] {
    const { rule, job } = this;
    const { unit } = job.info.job;
    if (rule.kind === "move") {
      const by = (i: Axis) => textOf(times(termOf(rule.by[i], unit), this.how.step));
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
      id: this.how.newId("point") as Point["id"],
      name: this.how.newId("pointName"),
      assembly: this.home(point?.assembly ?? null),
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
      id: this.how.newId("line") as Line["id"],
      ...(this.rule.kind === "mirror" ? { from: to, to: from } : { from, to }),
    };
    this.lines.set(id, made);
    return made.id;
  }

  private negative(text: string): string {
    return textOf(times(termOf(text, this.job.info.job.unit), -1));
  }

  private cut(cut: EndCut): EndCut {
    const own =
      this.rule.kind === "mirror" ? mirroredCut(cut, this.rule.axis, (text) => this.negative(text)) : cut;
    const neighbours = neighboursOf(own);
    // Some need their partners at the joint; others may still meet the member that was not copied.
    const gone = neighbours.filter((id) => meetsOf(own) === "ends" && !this.newIds.has(id));
    return neighbours.reduce(
      (one, id) => {
        const copy = this.newIds.get(id) as Member["id"] | undefined;
        return copy === undefined ? one : replacedNeighbour(one, id, copy);
      },
      withoutNeighbours(own, new Set(gone)),
    );
  }

  private member(member: Member): Member {
    const flipped = this.rule.kind === "mirror";
    const [start, end] = [this.cut(member.start), this.cut(member.end)];
    return {
      ...member,
      id: this.newIds.get(member.id) as Member["id"],
      line: this.line(member.line),
      roll: flipped ? this.mirroredRoll(member) : member.roll,
      start: flipped ? end : start,
      end: flipped ? start : end,
      work: member.work.map((one) => {
        const work = { ...one, id: this.how.newId(one.kind) };
        return flipped ? reversedWork(work, (text) => this.negative(text)) : work;
      }),
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
    const work = panel.work.map((one) => ({ ...one, id: this.how.newId(one.kind) }));
    const copy = {
      ...panel,
      id: this.newIds.get(panel.id) as Panel["id"],
      assembly: this.home(panel.assembly),
      work,
    };
    if (panel.between) {
      const { first, second } = panel.between;
      const [a, b] = [this.newIds.get(first), this.newIds.get(second)] as (Panel["id"] | undefined)[];
      if (!a || !b)
        return refused("Panel", panel.name, "is attached to two panels; copy these too, or detach it first");
      const between = { ...panel.between, first: a, second: b };
      if (this.rule.kind === "move") return ok({ ...copy, between });
      return refused("Panel", panel.name, "is attached to two panels; mirror it as part of an assembly");
    }
    if (this.rule.kind === "move") return ok({ ...copy, origin: this.place(panel.origin) });
    return mirroredPanel(copy, this.rule.axis, (at) => this.place(at), this.job);
  }

  private boughtPart(part: BoughtPart): BoughtPart {
    const copy = {
      ...part,
      id: this.how.newId("bought") as BoughtPart["id"],
      assembly: this.home(part.assembly),
    };
    if (!part.stand) return copy;
    const turn = this.rule.kind === "mirror" ? this.mirroredTurn(part.stand.turn) : part.stand.turn;
    return {
      ...copy,
      stand: { ...part.stand, at: this.place(part.stand.at), turn, step: this.step(part.stand.step) },
    };
  }

  private placement(placement: Placement): Placement {
    const copy = {
      ...placement,
      id: this.how.newId("placement") as Placement["id"],
      into: this.home(placement.into),
      at: this.place(placement.at),
      step: this.step(placement.step),
    };
    return this.rule.kind === "move" ? copy : { ...copy, ...this.mirroredPose(placement, this.rule.axis) };
  }

  private step(step: PlaceText): [string, string, string] {
    const { rule } = this;
    const { unit } = this.job.info.job;
    const part = (i: Axis) =>
      rule.kind === "mirror" && rule.axis === i ? textOf(times(termOf(step[i], unit), -1)) : step[i];
    return [part(0), part(1), part(2)];
  }

  /**
   * Seen in a mirror a turn about the mirror's own normal stays, turns about the two other axes go the other
   * way round.
   */
  private mirroredTurn(turn: PlaceText): [string, string, string] {
    const { rule } = this;
    const part = (i: Axis) =>
      rule.kind === "mirror" && rule.axis !== i ? textOf(times(termOf(turn[i], "mm"), -1)) : turn[i];
    return [part(0), part(1), part(2)];
  }

  /**
   * M·R·M′ for a placement whose linear part is the turn R after the mirror M′. Unmirrored it becomes (M·R·M)·M.
   * Mirrored across the same axis both mirrors fall away; across another one a half-turn about the third is left,
   * which is brought through the three turns.
   */
  private mirroredPose(placement: Placement, axis: Axis): Pick<Placement, "turn" | "mirror"> {
    const turn = this.mirroredTurn(placement.turn);
    if (placement.mirror === null) return { turn, mirror: MIRROR_AXES[axis] };
    const own = MIRROR_AXES.indexOf(placement.mirror);
    if (own === axis) return { turn, mirror: null };
    const third = (3 - own - axis) as Axis;
    const half = (text: string) => textOf(plus(termOf(text, "mm"), 180));
    const negative = (text: string) => textOf(times(termOf(text, "mm"), -1));
    const [a, b, c] = turn;
    if (third === 0) return { turn: [half(a), b, c], mirror: null };
    if (third === 1) return { turn: [negative(a), half(b), c], mirror: null };
    return { turn: [negative(a), negative(b), half(c)], mirror: null };
  }
}
