/** The cut list: every row of the tally that is made, by stock, with what the saw needs to know. */

import { anglesOf, type End, kindOf } from "../ends";
import type { Vec2 } from "../geometry";
import { type JobInfo, type PanelEdge, UNNAMED_EDGING } from "../job";
import { at, counted, fromNm, LENGTH_TOLERANCE_MM } from "../kernel";
import { areaOfPanel } from "../layout";
import { formatDegrees, formatLength, type LengthStyle } from "../measure";
import { quantityWords, shopUnit } from "../quantities";
import type { Stockroom } from "../stockroom";
import {
  type CornerForm,
  type MemberForm,
  type PanelForm,
  standOfForm,
  type Tally,
  type TallyRow,
} from "../tally";
import { fromBothEdges } from "./groove-settings";
import { memberWorkWords } from "./member-work-words";
import {
  type Cell,
  type Column,
  type ListGroup,
  type ListRow,
  type ListTable,
  MISSING,
  NOT_APPLICABLE,
  numberCell,
  textCell,
} from "./table";

const CUT_COLUMNS: readonly Column[] = [
  { id: "mark", heading: "Mark", align: "left", width: 9, writes: null },
  { id: "name", heading: "Name", align: "left", width: 24, writes: null },
  { id: "count", heading: "Count", align: "right", width: 9, writes: { kind: "plain" } },
  { id: "length", heading: "Cut length", align: "right", width: 15, writes: null },
  { id: "width", heading: "Width", align: "right", width: 11, writes: null },
  { id: "thickness", heading: "Thick", align: "right", width: 9, writes: null },
  { id: "end1", heading: "End 1 °", align: "right", width: 9, writes: { kind: "decimal", places: 1 } },
  { id: "end2", heading: "End 2 °", align: "right", width: 9, writes: { kind: "decimal", places: 1 } },
  { id: "stand", heading: "End direction", align: "left", width: 15, writes: null },
  { id: "note", heading: "Note", align: "left", width: 28, writes: null },
  { id: "grain", heading: "Grain", align: "left", width: 8, writes: null, onlyInFiles: true },
  { id: "edging", heading: "Edging", align: "left", width: 20, writes: null, onlyInFiles: true },
];

const SIZES: ReadonlySet<string> = new Set(["length", "width", "thickness"]);

export const styleOf = (info: JobInfo): LengthStyle => ({ unit: info.unit, format: info.format });

/** How the two ends of a bar stand, in words; square ends need none. */
export function standWords(form: MemberForm): string {
  const stand = standOfForm(form);
  // Plane ends that lean alike are opposed or parallel; for others it is only said that they lie in line.
  if (stand.kind === "turned") return stand.turn === 0 ? "in line" : `turned ${formatDegrees(stand.turn)}°`;
  return stand.kind;
}

const EDGE_NAMES: Readonly<Record<PanelEdge, string>> = {
  front: "front",
  back: "back",
  left: "left",
  right: "right",
};

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
  const edged = (Object.keys(EDGE_NAMES) as PanelEdge[]).filter((edge) => form.edging[edge] !== null);
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
    alike.set(words, [...(alike.get(words) ?? []), `${write(x)} / ${write(y)}`]);
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

/** The cut list of a tally. Bought parts stand in the buying list instead. */
export function cutList(info: JobInfo, tally: Tally, stockroom: Stockroom): ListTable {
  const style = styleOf(info);
  const groups = new Map<string, TallyRow[]>();
  for (const row of tally.rows) {
    if (row.kind === "bought") continue;
    const key = `${row.kind}|${row.stock ?? ""}|${row.stockName ?? ""}|${row.material ?? ""}`;
    groups.set(key, [...(groups.get(key) ?? []), row]);
  }
  const { balance } = tally;
  return {
    title: "Cut list",
    columns: CUT_COLUMNS.map((column) =>
      SIZES.has(column.id) ? { ...column, writes: { kind: "length", style } } : column,
    ),
    groups: [...groups.values()].map((rows) => cutGroup(rows, style, stockroom)),
    foot: [],
    notes: [
      `${counted(balance.design, "piece")} in the design = ${balance.inRows} in rows + ${balance.bought} bought + ${balance.leftOut} left out.`,
      ...(tally.batch > 1 ? [`Counts are for ${tally.batch} of this job.`] : []),
      `Lengths in ${info.unit}; end angles in degrees from square.`,
    ],
  };
}

function cutGroup(rows: readonly TallyRow[], style: LengthStyle, stockroom: Stockroom): ListGroup {
  const first = rows[0];
  const pieces = rows.reduce((sum, row) => sum + row.count, 0);
  return {
    heading: groupHeading(first),
    detail: first?.material ?? (first?.kind === "other" ? "" : "no material"),
    summary: `${counted(pieces, "piece")}${groupTotal(rows, style)}`,
    rows: rows.map((row) => cutRow(row, style, stockroom)),
  };
}

function groupHeading(row: TallyRow | undefined): string {
  if (row?.stockName) return row.stockName;
  return row?.kind === "panel" ? "No board" : row?.kind === "member" ? "No section" : "Other";
}

function groupTotal(rows: readonly TallyRow[], style: LengthStyle): string {
  let length = 0;
  let area = 0;
  for (const { shown, count } of rows) {
    if (shown.form.kind === "member") length += fromNm(shown.form.cutNm) * count;
    if (shown.form.kind === "panel") area += areaOfPanel(shown.form) * count;
  }
  if (area > 0) return ` · ${quantityWords("m²", area / 1e6, style)} ${shopUnit("m²", style.unit).name}`;
  return length > 0 ? ` · ${formatLength(length, style, LENGTH_TOLERANCE_MM)} ${style.unit}` : "";
}

function cutRow(row: TallyRow, style: LengthStyle, stockroom: Stockroom): ListRow {
  return {
    id: row.id,
    records: row.pieces.map((piece) => piece.id),
    summed: false,
    level: 0,
    cells: {
      mark: textCell(row.mark),
      name: textCell(row.name),
      count: numberCell(row.count),
      ...sizeCells(row, style),
      ...fileCells(row, stockroom),
      note: textCell(rowNotes(row, style, stockroom).join("; ")),
    },
  };
}

/** Grain and edging as lists that are read again need them: "front + left: Birch edging; back: Iron-on". */
function fileCells({ shown: { form } }: TallyRow, stockroom: Stockroom): Readonly<Record<string, Cell>> {
  if (form.kind !== "panel") return { grain: NOT_APPLICABLE, edging: NOT_APPLICABLE };
  const byTape = new Map<string, PanelEdge[]>();
  for (const edge of Object.keys(EDGE_NAMES) as PanelEdge[]) {
    const tape = form.edging[edge];
    if (tape === null) continue;
    const name = stockroom.edgingById.get(tape)?.name ?? tape;
    byTape.set(name, [...(byTape.get(name) ?? []), edge]);
  }
  const words = [...byTape].map(([name, edges]) =>
    name === UNNAMED_EDGING ? edges.join(" + ") : `${edges.join(" + ")}: ${name}`,
  );
  return { grain: textCell(form.grain ? "long" : "none"), edging: textCell(words.join("; ") || "none") };
}

function sizeCells(row: TallyRow, style: LengthStyle): Readonly<Record<string, Cell>> {
  const { form } = row.shown;
  const length = (nm: number): Cell =>
    numberCell(fromNm(nm), formatLength(fromNm(nm), style, LENGTH_TOLERANCE_MM));
  switch (form.kind) {
    case "member":
      return {
        length: length(form.cutNm),
        width: NOT_APPLICABLE,
        thickness: NOT_APPLICABLE,
        end1: endCell(form, 0),
        end2: endCell(form, 1),
        stand: textCell(standWords(form)),
      };
    case "panel":
      return {
        length: length(form.lengthNm),
        width: length(form.widthNm),
        thickness: form.thicknessNm === null ? MISSING : length(form.thicknessNm),
        end1: NOT_APPLICABLE,
        end2: NOT_APPLICABLE,
        stand: textCell(form.grain ? "grain long" : ""),
      };
    case "none": {
      const missing = row.shown.why === null ? NOT_APPLICABLE : MISSING;
      return {
        length: missing,
        width: NOT_APPLICABLE,
        thickness: NOT_APPLICABLE,
        end1: NOT_APPLICABLE,
        end2: NOT_APPLICABLE,
        stand: textCell(""),
      };
    }
    default:
      return form satisfies never;
  }
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
