/**
 * Frames of metal: what is welded to one another is built by itself before anything is put on it, in the order of its joints. An end
 * that is cut against a member comes after it, what is mitred together comes together, plates come last.
 */
import type { Unit } from "../apart";
import { type EndCut, meetsOf, neighboursOf } from "../job";
import { at } from "../kernel";
import type { Shape } from "../shape";
import { isMetal } from "../stockroom";

/** Whether a unit is a member or a plate of metal, by its stock. */
export function metalIn(shape: Shape): ReadonlySet<string> {
  return new Set<string>([
    ...shape.members.flatMap(({ member, entry }) => (entry.shape.kind === "timber" ? [] : [member.id])),
    ...shape.panels.flatMap(({ panel, board }) => (isMetal(board) ? [panel.id] : [])),
  ]);
}

/** Units that hang together, by their numbers, where more than one of those that are asked for do. */
export function joined(
  asked: ReadonlySet<number>,
  near: (unit: number) => readonly number[],
): readonly (readonly number[])[] {
  const seen = new Set<number>();
  const groups: number[][] = [];
  for (const start of asked) {
    if (seen.has(start)) continue;
    const group = [start];
    seen.add(start);
    for (let i = 0; i < group.length; i++)
      for (const other of near(at(group, i)))
        if (asked.has(other) && !seen.has(other)) {
          seen.add(other);
          group.push(other);
        }
    if (group.length > 1) groups.push(group);
  }
  return groups;
}

const isMitred = (cut: EndCut): boolean => meetsOf(cut) === "ends" && cut.kind !== "square";

/** Ends of a member: what it is cut against, and what it is mitred with. */
export function jointsOf(cuts: readonly EndCut[]): {
  readonly against: readonly string[];
  readonly mitred: readonly string[];
} {
  const of = (wanted: (cut: EndCut) => boolean) => [
    ...new Set<string>(cuts.filter(wanted).flatMap((cut) => neighboursOf(cut))),
  ];
  return { against: of((cut) => meetsOf(cut) === "anywhere"), mitred: of(isMitred) };
}

/**
 * The pieces of a frame in the order of its joints: all of a level can be joined to those before it. Null where no end says anything, or
 * ends are cut against one another in a ring.
 */
export function jointLevels(units: readonly Unit[], shape: Shape): readonly (readonly Unit[])[] | null {
  const numbers = new Map(units.map(({ key }, i) => [key, i]));
  const joints = new Map(
    shape.members.flatMap(({ member }) => {
      const i = numbers.get(member.id);
      return i === undefined ? [] : [[i, jointsOf([member.start, member.end])] as const];
    }),
  );
  const levels = units.map(() => 0);
  const numbersOf = (keys: readonly string[]) => keys.flatMap((key) => numbers.get(key) ?? []);
  // Each pass raises what stands too low; more passes than pieces mean that it goes round.
  for (let pass = 0; ; pass++) {
    if (pass > units.length) return null;
    const before = [...levels];
    for (const [i, { against, mitred }] of joints) {
      const after = numbersOf(against).map((other) => at(levels, other) + 1);
      levels[i] = Math.max(at(levels, i), ...after, ...numbersOf(mitred).map((other) => at(levels, other)));
      for (const other of numbersOf(mitred)) levels[other] = Math.max(at(levels, other), at(levels, i));
    }
    // What is alike comes together.
    const highest = new Map<string, number>();
    for (const [i, { like }] of units.entries())
      highest.set(like, Math.max(highest.get(like) ?? 0, at(levels, i)));
    for (const [i, { like }] of units.entries()) levels[i] = highest.get(like) ?? 0;
    if (before.every((level, i) => level === levels[i])) break;
  }
  const top = Math.max(...levels);
  if (top === 0) return null;
  const plates = [...units.keys()].filter((i) => !joints.has(i));
  for (const i of plates) levels[i] = top + 1;
  return Array.from({ length: top + 2 }, (_, level) =>
    units.filter((_unit, i) => levels[i] === level),
  ).filter((own) => own.length > 0);
}
