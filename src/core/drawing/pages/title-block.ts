/** The title block at the lower right of a page: fields of ISO 7200 in at most 180 mm, with the symbol of the projection (ISO 5456-2). */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { Projection } from "../../job";
import { type DrawItem, fitted, rectangle } from "../display";
import { circlePath } from "../path";
import type { LineWidths } from "./paper";

export type TitleFields = {
  readonly owner: string;
  readonly number: string;
  readonly title: string;
  readonly heading: string;
  readonly variant: string | null;
  readonly revision: string;
  readonly date: string;
  readonly scale: string;
  readonly sheet: string;
};

const WIDTH = 180;
const ROW = 11;
const ROWS = 3;
const TITLE_HEIGHT = ROW * ROWS;
const PAD = 1.6;

/** Shares of the width of the fields of a row. */
type Field = readonly [label: string, text: string, share: number];

/** Where the title block of a page stands, its border given. */
export function titleBox(border: PlaneBox): PlaneBox {
  const width = Math.min(WIDTH, border.x1 - border.x0);
  return { x0: border.x1 - width, y0: border.y1 - TITLE_HEIGHT, x1: border.x1, y1: border.y1 };
}

/** Draws the block into its place on the page. */
export function titleBlock(
  fields: TitleFields,
  projection: Projection,
  border: PlaneBox,
  { wide, narrow }: LineWidths,
): readonly DrawItem[] {
  const box = titleBox(border);
  const width = box.x1 - box.x0;
  const rows: readonly (readonly Field[])[] = [
    [
      ["Shop", fields.owner, 5],
      ["Title", fields.title, 7],
      ["Number", fields.number, 6],
    ],
    [
      ["Drawn by", "", 5],
      ["Page", fields.heading, 7],
      ["Variant", fields.variant ?? "–", 6],
    ],
    [
      ["Date", fields.date, 5],
      ["Revision", fields.revision, 3],
      ["Scale", fields.scale, 4],
      ["", "", 3],
      ["Sheet", fields.sheet, 3],
    ],
  ];
  const items: DrawItem[] = [];
  const line = (from: Vec2, to: Vec2, size: number): DrawItem => ({
    kind: "line",
    from,
    to,
    stroke: { ink: "ink", width: size },
    layer: "BORDER",
  });
  for (const [i, row] of rows.entries()) {
    const y = box.y0 + i * ROW;
    let x = box.x0;
    if (i > 0) items.push(line([box.x0, y], [box.x1, y], narrow));
    for (const [k, [label, text, share]] of row.entries()) {
      const wideness = (width * share) / 18;
      if (k > 0) items.push(line([x, y], [x, y + ROW], narrow));
      if (label === "") items.push(...projectionSymbol(projection, [x + wideness / 2, y + ROW / 2], narrow));
      else items.push(...field(label, text, x, y, wideness));
      x += wideness;
    }
  }
  items.push({
    kind: "polygon",
    points: rectangle(box.x0, box.y0, width, TITLE_HEIGHT),
    stroke: { ink: "ink", width: wide },
    fill: null,
    layer: "BORDER",
  });
  return items;
}

/** A small label over a text, letters of 2.5 and 3.5 mm (ISO 3098); a text that is too long is shortened. */
function field(label: string, text: string, x: number, y: number, width: number): readonly DrawItem[] {
  const written = (what: string, size: number, down: number, face: "text" | "strong"): DrawItem => ({
    kind: "text",
    at: [x + PAD, y + down],
    text: fitted(what, width - 2 * PAD, size, face),
    size,
    face,
    align: "left",
    ink: "ink",
    layer: "BORDER",
  });
  return [written(label, 2.5, 2.4, "text"), written(text, 3.9, 7, "strong")];
}

/** A cone cut off, from its side and from its small end: the end stands right of it in first angle, left in third. */
function projectionSymbol(projection: Projection, [cx, cy]: Vec2, width: number): readonly DrawItem[] {
  const [big, small, long] = [3, 1.5, 6];
  const stroke = { ink: "ink", width } as const;
  const gap = 4.5;
  const [cone, end] = projection === "first" ? [cx - gap, cx + gap] : [cx + gap, cx - gap];
  const layer = "BORDER" as const;
  const axis = (from: Vec2, to: Vec2): DrawItem => ({
    kind: "line",
    from,
    to,
    stroke: { ink: "ink", width: width / 2 },
    layer,
  });
  return [
    {
      kind: "polygon",
      points: [
        [cone - long / 2, cy - small],
        [cone + long / 2, cy - big],
        [cone + long / 2, cy + big],
        [cone - long / 2, cy + small],
      ],
      stroke,
      fill: null,
      layer,
    },
    {
      kind: "paths",
      paths: [circlePath([end, cy], big), circlePath([end, cy], small)],
      stroke,
      fill: null,
      layer,
    },
    axis([cone - long / 2 - 1, cy], [cone + long / 2 + 1, cy]),
    axis([end - big - 0.8, cy], [end + big + 0.8, cy]),
    axis([end, cy - big - 0.8], [end, cy + big + 0.8]),
  ];
}
