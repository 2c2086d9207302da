/**
 * The ends of a member as a saw sees them with one face of the section on its table. Only ends that are cut in one plane
 * share a cut with a neighbour; how a piece may be turned for it follows from the mirror lines of its section.
 */
import { kindOf } from "../ends";
import type { Vec2 } from "../geometry";
import { toDegrees } from "../measure";
import { sectionProperties } from "../stockroom";
import type { MemberForm, TallyRow } from "../tally";
import type { PieceEnds, PieceTurn } from "./bars";

/** Slopes below this are none: a micron in a metre. */
const FLAT = 1e-6;

/**
 * null: square, compound, coped, pointed or turned ends, sections of no known outline, and rows with pieces of both hands (of a
 * section that cannot be turned into the other hand): they are cut tip to tip.
 */
export function endsOf(row: TallyRow): PieceEnds | null {
  const { form } = row.shown;
  if (form.kind !== "member" || form.shape === null || row.hands.opposite > 0) return null;
  const [start, end] = form.ends;
  if (start.kind !== "plane" || end.kind !== "plane") return null;
  const plane = planeOf(start.slope, end.slope);
  if (plane === null) return null;
  const axis = plane === "x" ? 0 : 1;
  // Seen with z to the right, the start plane z = −s·u leans the other way.
  const angle = (slope: number) => {
    const rounded = Math.round(toDegrees(Math.atan(slope)) * 1000) / 1000;
    return rounded === 0 ? 0 : rounded;
  };
  const properties = sectionProperties(form.shape);
  return {
    plane: properties.isRound ? "round" : plane,
    depth: properties.extent[axis],
    angles: [angle(-start.slope[axis]), angle(end.slope[axis])],
    turns: [...turnsOf(form, plane)],
  };
}

/** Which ends a saw cuts at an angle, where `endsOf` cannot say how; a saddle is not sawn but cut after. */
export function leaningOf({ shown: { form } }: TallyRow): { readonly leans?: [boolean, boolean] } {
  if (form.kind !== "member") return {};
  const leans = form.ends.map((end) => {
    const { sawn, slopes } = kindOf(end);
    return sawn && slopes(end).some((slope) => Math.hypot(...slope) > FLAT);
  });
  const [first = false, second = false] = leans;
  return first || second ? { leans: [first, second] } : {};
}

/** The axis of the section along which both ends lean; null when they are square or lean otherwise. */
function planeOf(start: Vec2, end: Vec2): "x" | "y" | null {
  const leans = (axis: 0 | 1) => Math.abs(start[axis]) > FLAT || Math.abs(end[axis]) > FLAT;
  if (leans(0) === leans(1)) return null;
  return leans(0) ? "x" : "y";
}

/**
 * End for end: a half-turn about the normal of the table, which needs a mirror line along it. Over: one about the line
 * across the bar. Rolled: the section falls on itself after half a turn.
 */
function turnsOf(form: MemberForm, plane: "x" | "y"): readonly PieceTurn[] {
  if (form.shape === null) return [];
  const { symmetry } = sectionProperties(form.shape);
  if (symmetry.kind === "round") return ["end", "over", "roll"];
  const axis = plane === "x" ? 0 : 1;
  const has = (mirror: boolean, along: 1 | -1, across: 1 | -1) =>
    symmetry.turns.some(({ rows, mirror: mirrors }) => {
      const [a, b] = [rows[axis][axis], rows[1 - axis]?.[1 - axis]];
      return mirrors === mirror && Math.abs(a - along) < 1e-9 && Math.abs((b ?? 0) - across) < 1e-9;
    });
  const turns: PieceTurn[] = [];
  if (has(true, -1, 1)) turns.push("end");
  if (has(true, 1, -1)) turns.push("over");
  if (has(false, -1, -1)) turns.push("roll");
  return turns;
}
