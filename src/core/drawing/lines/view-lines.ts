/**
 * The lines of a view: those of the solids that can be seen, with hidden ones removed analytically. Method: each line is cut
 * at the faces that lie before it (after Appel 1967, with depths square to the faces); lines on one another are one.
 */
import type { Vec2 } from "../../geometry";
import { at } from "../../kernel";
import { type Arc, type Candidate, type Candidates, candidatesOf, type SeenSolid } from "./candidates";
import { createHiding, type Stretch } from "./hiding";
import { type CutLine, mergedLines, type ViewLine } from "./merging";

/** mm. Shorter stretches are not drawn. */
const LEAST_MM = 0.002;

/**
 * The lines of solids in the axes of a view, in mm of what is drawn; those that are hidden as well where asked for.
 * Solids that share room have no line where they cross.
 */
export function viewLines(
  solids: readonly SeenSolid[],
  {
    hidden = false,
    found = candidatesOf(solids),
  }: { readonly hidden?: boolean; readonly found?: Candidates } = {},
): readonly ViewLine[] {
  const { occluders, candidates } = found;
  const hiddenOf = createHiding(occluders, (owner) => at(solids, owner).round);
  const cut: CutLine[] = [];
  for (const line of candidates) {
    const [dx, dy] = [line.to[0] - line.from[0], line.to[1] - line.from[1]];
    const size = Math.sqrt(dx * dx + dy * dy);
    // Seen end on a line is a point.
    if (size < LEAST_MM) continue;
    const behind = hiddenOf(line);
    for (const stretch of gapsIn(behind)) add(line, stretch, size, line.kind, cut);
    if (hidden) for (const stretch of behind) add(line, stretch, size, "hidden", cut);
  }
  return mergedLines(cut);
}

function add(
  line: Candidate,
  [low, high]: Stretch,
  size: number,
  kind: CutLine["kind"],
  cut: CutLine[],
): void {
  if ((high - low) * size < LEAST_MM) return;
  const [x, y] = line.from;
  const [dx, dy] = [line.to[0] - x, line.to[1] - y];
  const from: Vec2 = [x + dx * low, y + dy * low];
  const to: Vec2 = [x + dx * high, y + dy * high];
  const arc = line.arc && {
    on: line.arc.on,
    from: angleOnChord(line.arc, low),
    to: angleOnChord(line.arc, high),
  };
  cut.push({ from, to, whole: line, kind, owner: line.owner, arc });
}

/** The angle at which the curve lies beyond a place of one of its chords, seen from its middle. */
function angleOnChord({ from, to }: Arc, t: number): number {
  const turn = to - from;
  return from + Math.atan2(t * Math.sin(turn), 1 - t + t * Math.cos(turn));
}

const WHOLE: readonly Stretch[] = [[0, 1]];

function gapsIn(stretches: readonly Stretch[]): readonly Stretch[] {
  if (stretches.length === 0) return WHOLE;
  const gaps: Stretch[] = [];
  let from = 0;
  for (const [low, high] of stretches) {
    if (low > from) gaps.push([from, low]);
    from = Math.max(from, high);
  }
  if (from < 1) gaps.push([from, 1]);
  return gaps;
}
