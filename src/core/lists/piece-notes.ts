/** What is said of a made piece in words: how its ends stand, and what else the bench needs to know. */
import { anglesOf, type End, kindOf } from "../ends";
import type { Vec2 } from "../geometry";
import { type JobInfo, PANEL_EDGES, type PanelEdge, UNNAMED_EDGING } from "../job";
import { addTo, at, fromNm, LENGTH_TOLERANCE_MM } from "../kernel";
import { formatDegrees, formatLength, type LengthStyle } from "../measure";
import type { Stockroom } from "../stockroom";
import { type CornerForm, type MemberForm, type PanelForm, standOfForm, type TallyRow } from "../tally";
import { fromBothEdges } from "./groove-settings";
import { memberWorkWords } from "./member-work-words";
import { type Cell, numberCell, textCell } from "./table";

export const styleOf = (info: JobInfo): LengthStyle => ({ unit: info.unit, format: info.format });

/** How the two ends of a bar stand, in words; square ends need none. */
export function standWords(form: MemberForm): string {
  const stand = standOfForm(form);
  // Plane ends that lean alike are opposed or parallel; for others it is only said that they lie in line.
  if (stand.kind === "turned") return stand.turn === 0 ? "in line" : `turned ${formatDegrees(stand.turn)}°`;
  return stand.kind;
}

/** What else the bench needs to know about a row: hands, edges, grain, work, edge lengths. */
export function rowNotes(row: TallyRow, style: LengthStyle, stockroom: Stockroom): readonly string[] {
  const notes: string[] = [];
  const { form } = row.shown;
  if (row.hands.opposite > 0) notes.push(`${row.hands.asDrawn} as drawn + ${row.hands.opposite} opposite`);
  if (form.kind === "member") notes.push(...memberNotes(form, style));
  if (form.kind === "panel") notes.push(...panelNotes(form, style, stockroom));
  if (row.shown.why !== null) notes.push(`not computed: ${row.shown.why}`);
  if (row.typed) notes.push("typed in");
  return notes;
}

function memberNotes(form: MemberForm, style: LengthStyle): readonly string[] {
  const stand = standOfForm(form);
  const notes = form.ends.flatMap((end, i) => {
    const note = kindOf(end).note(end, style);
    return note === null ? [] : [`end ${i + 1} ${note}`];
  });
  const write = (mm: number) => formatLength(mm, style, LENGTH_TOLERANCE_MM);
  const work = memberWorkWords(form, write).map(({ label, value }) => `${label.toLowerCase()}: ${value}`);
  if (stand.kind !== "parallel") return [...notes, ...work];
  return [`edge ${write(fromNm(form.longestNm))}`, ...work];
}

function panelNotes(form: PanelForm, style: LengthStyle, stockroom: Stockroom): readonly string[] {
  const notes: string[] = [];
  const edged = PANEL_EDGES.filter((edge) => form.edging[edge] !== null);
  if (edged.length > 0) {
    const names = new Set(
      edged.map((edge) => stockroom.edgingById.get(form.edging[edge] ?? "")?.name ?? form.edging[edge] ?? ""),
    );
    notes.push(`${edged.length === 4 ? "4 edges" : edged.join(" + ")} ${[...names].join(", ")}`);
  }
  const write = (mm: number) => formatLength(mm, style, LENGTH_TOLERANCE_MM);
  if (form.outline !== null) notes.push(`outline${cornersNote(form.outline, write)}`);
  for (const groove of form.grooves) {
    const { width, depth, settings, edges, rebate } = fromBothEdges(form, groove);
    const size = `${write(width)} × ${write(depth)} deep`;
    const places = edges.map((edge, i) => `${write(at(settings, i))} from ${edge}`);
    notes.push(rebate ? `rebate ${size}, ${rebate} edge` : `groove ${size}, ${places.join(" / ")}`);
  }
  const cutOuts = form.cutOuts.map((corners) => `cut-out${cornersNote(corners, write)}`);
  return [...notes, ...holeNotes(form, style), ...notchNotes(form, style), ...cutOuts];
}

/** Every corner from the left and the front, with its rounding; of many the first ones. */
function cornersNote(corners: readonly CornerForm[], write: (mm: number) => string): string {
  const places = corners.map(({ x, y, radiusNm }) => {
    const round = radiusNm === 0 ? "" : ` R ${write(fromNm(radiusNm))}`;
    return `${write(fromNm(x))} / ${write(fromNm(y))}${round}`;
  });
  const shown = places.length > 8 ? `${places.slice(0, 7).join(", ")} …` : places.join(", ");
  return ` of ${places.length} corners from left / front: ${shown}`;
}

/** Holes of one size and depth together, each place told from the left and the front. */
function holeNotes(form: PanelForm, style: LengthStyle): readonly string[] {
  const write = (nm: number) => formatLength(fromNm(nm), style, LENGTH_TOLERANCE_MM);
  const alike = new Map<string, string[]>();
  for (const { diameterNm, depthNm, face, x, y } of form.holes) {
    const how = depthNm === null ? "through" : `${write(depthNm)} deep in the ${face} face`;
    const words = `Ø ${write(diameterNm)} ${how}`;
    addTo(alike, words, `${write(x)} / ${write(y)}`);
  }
  return [...alike].map(([words, at]) => {
    const shown = at.length > 4 ? `${at.slice(0, 2).join(", ")} … ${at.at(-1)}` : at.join(", ");
    return `${at.length} × hole ${words}, from left / front: ${shown}`;
  });
}

function notchNotes(form: PanelForm, style: LengthStyle): readonly string[] {
  const write = (nm: number) => formatLength(fromNm(nm), style, LENGTH_TOLERANCE_MM);
  return form.notches.map(
    ({ x0, x1, y0, y1 }) =>
      `notch ${write(x1 - x0)} × ${write(y1 - y0)}, its corner at ${write(x0)} / ${write(y0)} from left / front`,
  );
}

/** The edging of a panel, tape by tape: "front + left: Birch edging; back: Iron-on"; "none" where there is none. */
export function edgingWords(form: PanelForm, stockroom: Stockroom): string {
  const byTape = new Map<string, PanelEdge[]>();
  for (const edge of PANEL_EDGES) {
    const tape = form.edging[edge];
    if (tape === null) continue;
    const name = stockroom.edgingById.get(tape)?.name ?? tape;
    addTo(byTape, name, edge);
  }
  const words = [...byTape].map(([name, edges]) =>
    name === UNNAMED_EDGING ? edges.join(" + ") : `${edges.join(" + ")}: ${name}`,
  );
  return words.join("; ") || "none";
}

/** Degrees of an end by some measure of its slope: two where it has two planes; a saddle is named, its angle stands in the note. */
export function angleCell(end: End, of: (slope: Vec2) => number): Cell {
  const kind = kindOf(end);
  if (!kind.sawn) return textCell(kind.name);
  const degrees = kind.slopes(end).map(of);
  if (degrees.length === 1) return numberCell(at(degrees, 0), formatDegrees(at(degrees, 0)));
  return textCell(degrees.map(formatDegrees).join(" + "));
}

/** Degrees from square. */
export const endCell = (form: MemberForm, index: 0 | 1): Cell =>
  angleCell(form.ends[index], (slope) => anglesOf(slope).angle);
