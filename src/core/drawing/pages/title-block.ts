/** The title block at the lower right of a page as the shop has set it up, with the symbol of the projection (ISO 5456-2). */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { Assets, Page, Projection } from "../../job";
import { type TitleBlock, type TitleField, type TitleWord, titleText } from "../../stockroom";
import { type DrawItem, type Drawing, fitted, rectangle } from "../display";
import { circlePath } from "../path";
import { borderOf, type LineWidths, lineWidths } from "./paper";

const PAD = 1.6;
/** The widest share of the block that a picture takes. */
const PICTURE_SHARE = 1 / 3;

/** Where the title block of a page stands, its border given; as wide as the border where the paper is narrower. */
export function titleBox(border: PlaneBox, { width, rowHeight, rows }: TitleBlock): PlaneBox {
  const wide = Math.min(width, border.x1 - border.x0);
  return { x0: border.x1 - wide, y0: border.y1 - rowHeight * rows.length, x1: border.x1, y1: border.y1 };
}

/** Where the title block of a page stands; null: the page has none. */
export const titleOn = (
  page: Pick<Page, "paper" | "lying" | "titleBlock">,
  block: TitleBlock,
): PlaneBox | null => (page.titleBlock ? titleBox(borderOf(page), block) : null);

export type TitleGround = {
  readonly values: Readonly<Record<TitleWord, string>>;
  readonly projection: Projection;
  readonly assets: Assets;
  readonly widths: Pick<LineWidths, "wide" | "narrow">;
};

/** Draws the block into its place on the page. */
export function titleBlock(block: TitleBlock, box: PlaneBox, ground: TitleGround): readonly DrawItem[] {
  const {
    widths: { wide, narrow },
  } = ground;
  const items: DrawItem[] = [];
  const line = (from: Vec2, to: Vec2): DrawItem => ({
    kind: "line",
    from,
    to,
    stroke: { ink: "ink", width: narrow },
    layer: "BORDER",
  });
  const left = box.x0 + pictureWidth(block, box);
  if (left > box.x0)
    items.push(...logo(block, box, left, ground.assets), line([left, box.y0], [left, box.y1]));
  for (const [i, row] of block.rows.entries()) {
    const y = box.y0 + i * block.rowHeight;
    const all = row.reduce((sum, { parts }) => sum + parts, 0);
    let x = left;
    if (i > 0) items.push(line([left, y], [box.x1, y]));
    for (const [k, field] of row.entries()) {
      const width = ((box.x1 - left) * field.parts) / all;
      if (k > 0) items.push(line([x, y], [x, y + block.rowHeight]));
      items.push(...drawnField(field, { x0: x, y0: y, x1: x + width, y1: y + block.rowHeight }, ground));
      x += width;
    }
  }
  items.push({
    kind: "polygon",
    points: rectangle(box.x0, box.y0, box.x1 - box.x0, box.y1 - box.y0),
    stroke: { ink: "ink", width: wide },
    fill: null,
    layer: "BORDER",
  });
  return items;
}

/** A title block by itself, as wide as it is set up. */
export function titleBlockDrawing(block: TitleBlock, ground: Omit<TitleGround, "widths">): Drawing {
  const size = { width: block.width, height: block.rowHeight * block.rows.length };
  const box = { x0: 0, y0: 0, x1: size.width, y1: size.height };
  return { ...size, items: titleBlock(block, box, { ...ground, widths: lineWidths("a4") }) };
}

function pictureWidth({ logo }: TitleBlock, box: PlaneBox): number {
  if (!logo) return 0;
  const tall = box.y1 - box.y0 - 2 * PAD;
  return Math.min((box.x1 - box.x0) * PICTURE_SHARE, tall / logo.ratio + 2 * PAD);
}

/** The picture in the middle of its field, as large as it fits; none while it has not arrived. */
function logo({ logo }: TitleBlock, box: PlaneBox, right: number, assets: Assets): readonly DrawItem[] {
  const picture = logo ? assets.get(logo.asset) : undefined;
  if (!logo || picture?.kind !== "picture") return [];
  const [wide, tall] = [right - box.x0 - 2 * PAD, box.y1 - box.y0 - 2 * PAD];
  const width = Math.min(wide, tall / logo.ratio);
  const height = width * logo.ratio;
  const at: Vec2 = [(box.x0 + right - width) / 2, (box.y0 + box.y1 - height) / 2];
  return [{ kind: "image", at, width, height, picture, layer: "BORDER" }];
}

function drawnField(field: TitleField, box: PlaneBox, ground: TitleGround): readonly DrawItem[] {
  const middle: Vec2 = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2];
  if (field.kind === "symbol") return projectionSymbol(ground.projection, middle, ground.widths.narrow);
  return fieldTexts(field.label, titleText(field.text, ground.values), box);
}

/** A small label over a text, letters of 2.5 and 3.5 mm (ISO 3098); a text that is too long is shortened. */
function fieldTexts(label: string, text: string, box: PlaneBox): readonly DrawItem[] {
  const room = box.x1 - box.x0 - 2 * PAD;
  const tall = box.y1 - box.y0;
  const written = (what: string, size: number, down: number, face: "text" | "strong"): DrawItem => ({
    kind: "text",
    at: [box.x0 + PAD, box.y0 + down],
    text: fitted(what, room, size, face),
    size,
    face,
    align: "left",
    ink: "ink",
    layer: "BORDER",
  });
  return [
    ...(label === "" ? [] : [written(label, 2.5, 2.4, "text")]),
    ...(text === ""
      ? []
      : [written(text, 3.9, label === "" ? tall / 2 : 2.4 + (tall - 2.4) * 0.535, "strong")]),
  ];
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
