/** A list table as drawn rows: heading, group lines, rows with wrapped notes, and the sentences under it. */

import { at, own } from "../kernel";
import {
  allNotes,
  type Column,
  type FootLine,
  type ListGroup,
  type ListRow,
  type ListTable,
  overWords,
  SILHOUETTE_COLUMN,
  shownColumns,
} from "../lists";
import { type DrawItem, fitted, movedBy, wrapped } from "./display";
import { textWidth } from "./text-width";

export type DrawnRow = {
  readonly height: number;
  readonly items: readonly DrawItem[];
  /** The records that it stands for. */
  readonly records?: readonly string[];
  /** Room that must be left after it, so that a group line never stands alone at the foot of a page. */
  readonly keepWithNext?: number;
};

/** Draws the piece of a row into a width. */
export type DrawPiece = (row: ListRow, width: number) => readonly DrawItem[];

const TEXT = 2.9;
const LINE = 3.7;
const GAP = 1.6;

type Place = { readonly column: Column; readonly x: number; readonly width: number };

/** What a step down in a list by assembly is set in by. */
const INDENT = 3;

/** What somebody set of a table's look. */
export type TableLook = {
  /** mm, by the ids of columns; the others share what is left. */
  readonly columnWidths: Readonly<Record<string, number>>;
  /** mm; null: rows are as tall as their text. */
  readonly rowHeight: number | null;
};
const NO_LOOK: TableLook = { columnWidths: {}, rowHeight: null };

export type DrawnTable = {
  readonly heading: DrawnRow;
  readonly rows: readonly DrawnRow[];
  /** As wide as they came out, in mm. */
  readonly columns: readonly { readonly id: string; readonly heading: string; readonly width: number }[];
};

/** Draws a table into a width. What was typed over carries an asterisk and is told under the table. */
export function tableRows(table: ListTable, width: number, draw: DrawPiece, look = NO_LOOK): DrawnTable {
  const places = columnPlaces(shownColumns(table), width, look.columnWidths);
  const rows: DrawnRow[] = [];
  for (const group of table.groups) {
    if (group.heading !== "" || group.summary !== "") rows.push(groupRow(group, width));
    for (const row of group.rows)
      rows.push(listRow(row, places, width, { draw, least: look.rowHeight ?? 0 }));
  }
  for (const line of table.foot) rows.push(footRow(line, places, width));
  rows.push({ height: 3, items: [] });
  for (const note of [...allNotes(table), ...overNotes(table)]) rows.push(noteRow(note, width));
  const columns = places.map(({ column, width: wide }) => ({
    id: column.id,
    heading: column.heading,
    width: wide,
  }));
  return { heading: headingRow(places, width), rows, columns };
}

function overNotes(table: ListTable): readonly string[] {
  return table.groups.flatMap((group) =>
    group.rows.flatMap((row) => {
      const words = overWords(row, table.columns);
      const name = row.cells["mark"]?.text ?? row.cells["name"]?.text ?? "";
      return words === "" ? [] : [`* typed over${name === "" ? "" : ` in ${name}`}: ${words}.`];
    }),
  );
}

/** mm. No column becomes narrower because others are set wide, as long as those leave half the list. */
const LEAST_COLUMN = 4;

/** Set widths as they are, all smaller where together they leave no room; the other columns share the rest by their own widths. */
function columnPlaces(
  columns: readonly Column[],
  width: number,
  set: Readonly<Record<string, number>>,
): readonly Place[] {
  const setOf = ({ id }: Column) => own(set, id);
  const free = columns.filter((column) => setOf(column) === undefined);
  const taken = columns.reduce((sum, column) => sum + (setOf(column) ?? 0), 0);
  const shares = free.reduce((sum, column) => sum + column.width, 0);
  const narrowest = Math.min(...free.map((column) => column.width));
  const most = Math.max(width - (LEAST_COLUMN * shares) / narrowest, width / 2);
  // Where every column is set they fill the list, whatever they come to.
  const by = taken === 0 ? 1 : free.length === 0 ? width / taken : Math.min(1, most / taken);
  let x = 0;
  return columns.map((column): Place => {
    const wide = setOf(column);
    const place = {
      column,
      x,
      width: wide === undefined ? ((width - taken * by) * column.width) / shares : wide * by,
    };
    x += place.width;
    return place;
  });
}

function textAt(
  { column, x, width }: Place,
  text: string,
  y: number,
  face: "condensed" | "condensedStrong" | "slab",
  ink: "ink" | "soft",
): DrawItem {
  const align = column.align;
  const at = align === "right" ? x + width - GAP : align === "centre" ? x + width / 2 : x;
  return { kind: "text", at: [at, y], text, size: TEXT, face, align, ink };
}

function headingRow(places: readonly Place[], width: number): DrawnRow {
  const items: DrawItem[] = places.map((place) =>
    textAt(
      place,
      fitted(place.column.heading, place.width - GAP, TEXT, "condensed"),
      2.4,
      "condensed",
      "soft",
    ),
  );
  items.push({ kind: "line", from: [0, 5], to: [width, 5], stroke: { ink: "ink", width: 0.3 } });
  return { height: 6, items };
}

function groupRow(group: ListGroup, width: number): DrawnRow {
  const nameWidth = textWidth(`${group.heading}  `, TEXT, "condensedStrong");
  return {
    height: 6.4,
    keepWithNext: 8,
    items: [
      {
        kind: "text",
        at: [0, 4],
        text: group.heading,
        size: TEXT,
        face: "condensedStrong",
        align: "left",
        ink: "ink",
      },
      {
        kind: "text",
        at: [nameWidth, 4],
        text: group.detail,
        size: TEXT,
        face: "condensed",
        align: "left",
        ink: "soft",
      },
      {
        kind: "text",
        at: [width - GAP, 4],
        text: group.summary,
        size: TEXT,
        face: "condensed",
        align: "right",
        ink: "soft",
      },
      { kind: "line", from: [0, 6], to: [width, 6], stroke: { ink: "soft", width: 0.2 } },
    ],
  };
}

function listRow(
  row: ListRow,
  places: readonly Place[],
  width: number,
  { draw, least }: { readonly draw: DrawPiece; readonly least: number },
): DrawnRow {
  const cells = places.map((plain) => {
    const { id } = plain.column;
    const indent = id === "name" ? INDENT * Math.max(0, row.level - 1) : 0;
    const place = { ...plain, x: plain.x + indent, width: plain.width - indent };
    const cell = row.cells[id];
    const text = `${cell?.text ?? ""}${cell?.over ? " *" : ""}`;
    const lines =
      place.column.align === "left" ? wrapped(text, place.width - GAP, TEXT, "condensed") : [text];
    return { place, lines };
  });
  const lines = Math.max(1, ...cells.map((cell) => cell.lines.length));
  const height = Math.max(lines * LINE + 1.8, least);
  const items: DrawItem[] = cells.flatMap(({ place, lines: texts }) =>
    place.column.id === SILHOUETTE_COLUMN
      ? movedBy(draw(row, place.width), [place.x, 0.7])
      : texts.map((text, i) =>
          textAt(place, text, 2.7 + i * LINE, place.column.id === "mark" ? "slab" : "condensed", "ink"),
        ),
  );
  items.push({ kind: "line", from: [0, height], to: [width, height], stroke: { ink: "seam", width: 0.15 } });
  return { height, items, records: row.records };
}

/** A sum under its column; the label stands at the left. */
function footRow({ label, cells }: FootLine, places: readonly Place[], width: number): DrawnRow {
  const items: DrawItem[] = [
    {
      kind: "text",
      at: [0, 2.9],
      text: label,
      size: TEXT,
      face: "condensedStrong",
      align: "left",
      ink: "ink",
    },
    ...places.flatMap((place) => {
      const cell = cells[place.column.id];
      return cell ? [textAt(place, cell.text, 2.9, "condensedStrong", "ink")] : [];
    }),
    { kind: "line", from: [0, 5.5], to: [width, 5.5], stroke: { ink: "soft", width: 0.2 } },
  ];
  return { height: 5.6, items };
}

function noteRow(note: string, width: number): DrawnRow {
  const lines = wrapped(note, width, TEXT, "text");
  return {
    height: lines.length * LINE + 0.8,
    items: lines.map((_, i) => ({
      kind: "text",
      at: [0, 2.7 + i * LINE],
      text: at(lines, i),
      size: TEXT,
      face: "text",
      align: "left",
      ink: "soft",
    })),
  };
}
