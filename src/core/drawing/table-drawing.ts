/** A list table as drawn rows: heading, group lines, rows with wrapped notes, and the sentences under it. */
import { at } from "../kernel";
import type { Column, ListGroup, ListRow, ListTable } from "../lists";
import { type DrawItem, fitted, movedBy, type TextMeasure, wrapped } from "./display";

export type DrawnRow = {
  readonly height: number;
  readonly items: readonly DrawItem[];
  /** Room that must be left after it, so that a group line never stands alone at the foot of a page. */
  readonly keepWithNext?: number;
};

export type ExtraColumn = { readonly width: number; readonly draw: (id: string) => readonly DrawItem[] };

const TEXT = 2.9;
const LINE = 3.7;
const GAP = 1.6;

type Place = { readonly column: Column; readonly x: number; readonly width: number };

/** Draws a table into a width; `extra` stands after the third column. */
export function tableRows(
  table: ListTable,
  width: number,
  measure: TextMeasure,
  extra: ExtraColumn | null,
): { readonly heading: DrawnRow; readonly rows: readonly DrawnRow[] } {
  const { places, extraX } = columnPlaces(table.columns, width, extra?.width ?? 0);
  const rows: DrawnRow[] = [];
  for (const group of table.groups) {
    rows.push(groupRow(group, width, measure));
    for (const row of group.rows) rows.push(listRow(row, places, width, measure, extra, extraX));
  }
  rows.push({ height: 3, items: [] });
  for (const note of table.notes) rows.push(noteRow(note, width, measure));
  return { heading: headingRow(places, width, measure), rows };
}

function columnPlaces(
  columns: readonly Column[],
  width: number,
  extra: number,
): { readonly places: readonly Place[]; readonly extraX: number } {
  const shares = columns.reduce((sum, column) => sum + column.width, 0);
  let x = 0;
  let extraX = 0;
  const places = columns.map((column, i): Place => {
    if (i === 3 && extra > 0) {
      extraX = x;
      x += extra;
    }
    const place = { column, x, width: ((width - extra) * column.width) / shares };
    x += place.width;
    return place;
  });
  return { places, extraX };
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

function headingRow(places: readonly Place[], width: number, measure: TextMeasure): DrawnRow {
  const items: DrawItem[] = places.map((place) =>
    textAt(
      place,
      fitted(place.column.heading, place.width - GAP, TEXT, "condensed", measure),
      2.4,
      "condensed",
      "soft",
    ),
  );
  items.push({ kind: "line", from: [0, 5], to: [width, 5], stroke: { ink: "ink", width: 0.3 } });
  return { height: 6, items };
}

function groupRow(group: ListGroup, width: number, measure: TextMeasure): DrawnRow {
  const nameWidth = measure(`${group.heading}  `, TEXT, "condensedStrong");
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
  measure: TextMeasure,
  extra: ExtraColumn | null,
  extraX: number,
): DrawnRow {
  const cells = places.map((place) => {
    const text = row.cells[place.column.id]?.text ?? "";
    const lines =
      place.column.align === "left" ? wrapped(text, place.width - GAP, TEXT, "condensed", measure) : [text];
    return { place, lines };
  });
  const lines = Math.max(1, ...cells.map((cell) => cell.lines.length));
  const height = lines * LINE + 1.8;
  const items: DrawItem[] = cells.flatMap(({ place, lines: texts }) =>
    texts.map((text, i) =>
      textAt(place, text, 2.7 + i * LINE, place.column.id === "mark" ? "slab" : "condensed", "ink"),
    ),
  );
  if (extra) {
    items.push(...movedBy(extra.draw(row.id), [extraX, 0.7]));
  }
  items.push({ kind: "line", from: [0, height], to: [width, height], stroke: { ink: "seam", width: 0.15 } });
  return { height, items };
}

function noteRow(note: string, width: number, measure: TextMeasure): DrawnRow {
  const lines = wrapped(note, width, TEXT, "text", measure);
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
