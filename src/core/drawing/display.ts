/**
 * Display lists: flat lists of lines, polygons and text in millimetres (or pixels, for the screen), y
 * downwards. Writers turn them into SVG and PDF; nothing here knows which.
 */
import type { Vec2 } from "../geometry";

export type Ink = "ink" | "soft" | "seam" | "brass" | "chalk" | "oxide" | "moss";
export type Tint = "paper" | "steel" | "timber" | "board" | "rest" | "brass" | "ground" | "lock";
export type Face = "text" | "strong" | "condensed" | "condensedStrong" | "slab";

export type Stroke = { readonly ink: Ink; readonly width: number; readonly dash?: readonly number[] };

export type DrawItem =
  | {
      readonly kind: "line";
      readonly from: Vec2;
      readonly to: Vec2;
      readonly stroke: Stroke;
      readonly pick?: string;
    }
  | {
      readonly kind: "polygon";
      readonly points: readonly Vec2[];
      readonly stroke: Stroke | null;
      readonly fill: Tint | null;
      /** What is selected when it is picked: the mark of a row. */
      readonly pick?: string;
    }
  | {
      readonly kind: "text";
      readonly at: Vec2;
      readonly text: string;
      /** Height of the letters' body. */
      readonly size: number;
      readonly face: Face;
      readonly align: "left" | "centre" | "right";
      readonly ink: Ink;
      readonly pick?: string;
    };

export type Drawing = {
  readonly width: number;
  readonly height: number;
  readonly items: readonly DrawItem[];
};

/** Width of a text at a size, in the unit of the size. */
export type TextMeasure = (text: string, size: number, face: Face) => number;

export function rectangle(x: number, y: number, width: number, height: number): readonly Vec2[] {
  return [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height],
  ];
}

/** Moves items. */
export function movedBy(items: readonly DrawItem[], [dx, dy]: Vec2): readonly DrawItem[] {
  const move = ([x, y]: Vec2): Vec2 => [x + dx, y + dy];
  return items.map((item): DrawItem => {
    switch (item.kind) {
      case "line":
        return { ...item, from: move(item.from), to: move(item.to) };
      case "polygon":
        return { ...item, points: item.points.map(move) };
      case "text":
        return { ...item, at: move(item.at) };
      default:
        return item satisfies never;
    }
  });
}

/** The text, shortened with an ellipsis until it fits. */
export function fitted(text: string, width: number, size: number, face: Face, measure: TextMeasure): string {
  if (measure(text, size, face) <= width) return text;
  for (let length = text.length - 1; length > 0; length--) {
    const shorter = `${text.slice(0, length).trimEnd()}…`;
    if (measure(shorter, size, face) <= width) return shorter;
  }
  return "";
}

/** The text broken at spaces into lines that fit; a word wider than the line stands alone. */
export function wrapped(
  text: string,
  width: number,
  size: number,
  face: Face,
  measure: TextMeasure,
): readonly string[] {
  const lines: string[] = [];
  let line = "";
  for (const word of text.split(" ")) {
    const longer = line === "" ? word : `${line} ${word}`;
    if (line !== "" && measure(longer, size, face) > width) {
      lines.push(line);
      line = word;
    } else line = longer;
  }
  if (line !== "") lines.push(line);
  return lines;
}
