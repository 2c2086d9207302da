/** Display lists as SVG files, in true millimetres; text stays text, in the fonts of the application or their like. */
import {
  CAPITAL_HEIGHT,
  type DrawItem,
  type Drawing,
  type DrawnText,
  type Face,
  pathData,
  type Stroke,
  type Tint,
} from "@/core/drawing";
import { INKS, tintColour } from "./print-colours";

const FACES: Readonly<Record<Face, string>> = {
  text: `font-family="Barlow, sans-serif"`,
  strong: `font-family="Barlow, sans-serif" font-weight="600"`,
  condensed: `font-family="'Barlow Semi Condensed', 'Arial Narrow', sans-serif"`,
  condensedStrong: `font-family="'Barlow Semi Condensed', 'Arial Narrow', sans-serif" font-weight="600"`,
  slab: `font-family="'Zilla Slab', serif" font-weight="600"`,
};
const ANCHORS = { left: "start", centre: "middle", right: "end" } as const;

const SIGNS: Readonly<Record<string, string>> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
// Signs that XML 1.0 has no way to write.
// biome-ignore lint/suspicious/noControlCharactersInRegex: these are what is meant
const UNWRITABLE = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g;
const escaped = (text: string) =>
  text.replace(UNWRITABLE, "").replace(/[&<>"]/g, (sign) => SIGNS[sign] ?? sign);

const number = (value: number) => String(Math.round(value * 1000) / 1000);

/** Writes one drawing as an SVG file. */
export function drawingToSvg({ width, height, items }: Drawing, title: string): string {
  const size = `width="${number(width)}mm" height="${number(height)}mm" viewBox="0 0 ${number(width)} ${number(height)}"`;
  return [
    `<?xml version="1.0" encoding="UTF-8"?>`,
    `<svg xmlns="http://www.w3.org/2000/svg" ${size}>`,
    `<title>${escaped(title)}</title>`,
    `<rect width="100%" height="100%" fill="#FFFFFF"/>`,
    ...itemsToSvg(items, new Clips()),
    "</svg>",
    "",
  ].join("\n");
}

/** Names for the clip paths of one file. */
class Clips {
  private count = 0;
  next(): string {
    this.count++;
    return `clip-${this.count}`;
  }
}

const itemsToSvg = (items: readonly DrawItem[], clips: Clips): readonly string[] =>
  items.map((item) => itemToSvg(item, clips));

function itemToSvg(item: DrawItem, clips: Clips): string {
  switch (item.kind) {
    case "line": {
      const { from, to, stroke } = item;
      return `<line x1="${number(from[0])}" y1="${number(from[1])}" x2="${number(to[0])}" y2="${number(to[1])}" ${strokeOf(stroke)}${namesOf(item)}/>`;
    }
    case "polygon":
      return `<polygon points="${pointsOf(item.points)}" ${fillOf(item)}${namesOf(item)}/>`;
    case "paths":
      return `<path d="${pathData(item.paths, number)}" fill-rule="evenodd" ${fillOf(item)}${namesOf(item)}/>`;
    case "image": {
      const { at, width, height, picture } = item;
      return `<image x="${number(at[0])}" y="${number(at[1])}" width="${number(width)}" height="${number(height)}" href="data:image/${picture.type};base64,${picture.data}"/>`;
    }
    case "text":
      return textToSvg(item);
    case "clip": {
      const id = clips.next();
      return [
        `<clipPath id="${id}"><polygon points="${pointsOf(item.within)}"/></clipPath>`,
        `<g clip-path="url(#${id})">`,
        ...itemsToSvg(item.items, clips),
        "</g>",
      ].join("\n");
    }
    default:
      return item satisfies never;
  }
}

const pointsOf = (points: readonly (readonly [number, number])[]) =>
  points.map((point) => point.map(number).join(",")).join(" ");

function fillOf({
  fill,
  stroke,
  shade,
}: {
  readonly fill: Tint | null;
  readonly stroke: Stroke | null;
  readonly shade?: number;
}): string {
  return `fill="${fill ? tintColour(fill, shade) : "none"}" ${stroke ? strokeOf(stroke) : ""}`;
}

/** The record and the piece that an item shows, for programs that read the file. */
function namesOf({ record, piece }: DrawItem): string {
  const name = (what: string, value: string | undefined) =>
    value === undefined ? "" : ` data-${what}="${escaped(value)}"`;
  return name("record", record) + name("piece", piece);
}

function textToSvg(item: DrawnText & DrawItem): string {
  const { at, size, face, align, ink, text, turn } = item;
  const [x, y] = [number(at[0]), number(at[1])];
  // About its place, which lies in the middle of the capitals.
  const turned = turn ? ` transform="rotate(${number(-turn)} ${x} ${y})"` : "";
  const baseline = number(at[1] + (size * CAPITAL_HEIGHT) / 2);
  return `<text x="${x}" y="${baseline}" font-size="${number(size)}" ${FACES[face]} text-anchor="${ANCHORS[align]}" fill="${INKS[ink]}"${turned}${namesOf(item)}>${escaped(text)}</text>`;
}

function strokeOf({ ink, width, dash }: Stroke): string {
  const dashes = dash ? ` stroke-dasharray="${dash.map(number).join(" ")}"` : "";
  return `stroke="${INKS[ink]}" stroke-width="${number(width)}" stroke-linejoin="round"${dashes}`;
}
