/**
 * Display lists: what is drawn, in millimetres (or pixels, for the screen), y downwards. The screen, PDF, SVG and DXF
 * are all written from them; nothing here knows which.
 */
import type { Vec2 } from "../geometry";
import type { PictureAsset } from "../job";
import type { Face } from "./face";
import { type Path, placedPath } from "./path";
import { textWidth } from "./text-width";

export type Ink = "ink" | "soft" | "seam" | "brass" | "chalk" | "oxide" | "moss";
export type Tint = "ink" | "paper" | "steel" | "timber" | "board" | "rest" | "brass" | "ground" | "lock";

export type Stroke = { readonly ink: Ink; readonly width: number; readonly dash?: readonly number[] };

/** Layers of files that have them: of layouts, then of drawings, the latter by kind of line. */
export const LAYERS = [
  "STOCK",
  "PANELS",
  "HOLES",
  "LABELS",
  "CUTS",
  "OFFCUTS",
  "OUTLINES",
  "EDGES",
  "CREASES",
  "HIDDEN",
  "HATCHING",
  "LISTS",
  "BALLOONS",
  "SIZES",
  "TEXTS",
  "BORDER",
] as const;
export type Layer = (typeof LAYERS)[number];

/** What an item belongs to beside what it looks like. */
type Marked = {
  /** What is selected when it is picked: the mark of a row. */
  readonly pick?: string;
  /** The record that it shows, and the piece, by their names. */
  readonly record?: string;
  readonly piece?: string;
  readonly layer?: Layer;
};

type Line = { readonly kind: "line"; readonly from: Vec2; readonly to: Vec2; readonly stroke: Stroke };
/** Closed, of straight lines. */
type Polygon = {
  readonly kind: "polygon";
  readonly points: readonly Vec2[];
  readonly stroke: Stroke | null;
  readonly fill: Tint | null;
};
/** Lines and arcs, open or closed; where one closed path lies in another, it is a hole in it. */
type Paths = {
  readonly kind: "paths";
  readonly paths: readonly Path[];
  readonly stroke: Stroke | null;
  readonly fill: Tint | null;
  /** How much darker it is filled, from 0 (as its tint is) to 1 (black). */
  readonly shade?: number;
};
export type DrawnText = {
  readonly kind: "text";
  readonly at: Vec2;
  readonly text: string;
  /** Height of the letters' body. */
  readonly size: number;
  readonly face: Face;
  readonly align: "left" | "centre" | "right";
  readonly ink: Ink;
  /** Degrees that it is turned about its place, anticlockwise as it is seen. */
  readonly turn?: number;
};
/** A picture of pixels, from its upper left corner. */
type Image = {
  readonly kind: "image";
  readonly at: Vec2;
  readonly width: number;
  readonly height: number;
  readonly picture: PictureAsset;
};
/** Items of which only what lies within a polygon is seen. */
type Clip = { readonly kind: "clip"; readonly within: readonly Vec2[]; readonly items: readonly DrawItem[] };

export type DrawItem = (Line | Polygon | Paths | DrawnText | Image | Clip) & Marked;

export type Drawing = {
  readonly width: number;
  readonly height: number;
  readonly items: readonly DrawItem[];
};

/** A capital is so much of the size high in the fonts that ship with the product. */
export const CAPITAL_HEIGHT = 0.7;

export function rectangle(x: number, y: number, width: number, height: number): readonly Vec2[] {
  return [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height],
  ];
}

/** Moves items. */
export function movedBy(items: readonly DrawItem[], by: Vec2): readonly DrawItem[] {
  const move = ([x, y]: Vec2): Vec2 => [x + by[0], y + by[1]];
  return items.map((item): DrawItem => {
    switch (item.kind) {
      case "line":
        return { ...item, from: move(item.from), to: move(item.to) };
      case "polygon":
        return { ...item, points: item.points.map(move) };
      case "paths":
        return { ...item, paths: item.paths.map((path) => placedPath(path, 1, by)) };
      case "text":
      case "image":
        return { ...item, at: move(item.at) };
      case "clip":
        return { ...item, within: item.within.map(move), items: movedBy(item.items, by) };
      default:
        return item satisfies never;
    }
  });
}

/** The text, shortened with an ellipsis until it fits. */
export function fitted(text: string, width: number, size: number, face: Face): string {
  if (textWidth(text, size, face) <= width) return text;
  for (let length = text.length - 1; length > 0; length--) {
    const shorter = `${text.slice(0, length).trimEnd()}…`;
    if (textWidth(shorter, size, face) <= width) return shorter;
  }
  return "";
}

/** The text broken at spaces into lines that fit; a word wider than the line stands alone. */
export function wrapped(text: string, width: number, size: number, face: Face): readonly string[] {
  const lines: string[] = [];
  let line = "";
  for (const word of text.split(" ")) {
    const longer = line === "" ? word : `${line} ${word}`;
    if (line !== "" && textWidth(longer, size, face) > width) {
      lines.push(line);
      line = word;
    } else line = longer;
  }
  if (line !== "") lines.push(line);
  return lines;
}
