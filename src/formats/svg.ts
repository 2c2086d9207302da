/** Display lists as SVG files, in true millimetres; text stays text, in the fonts of the application or their like. */
import type { DrawItem, Drawing, Face } from "@/core/drawing";
import { INKS, TINTS } from "./print-colours";

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
    ...items.map(itemToSvg),
    "</svg>",
    "",
  ].join("\n");
}

function itemToSvg(item: DrawItem): string {
  switch (item.kind) {
    case "line": {
      const { from, to, stroke } = item;
      return `<line x1="${number(from[0])}" y1="${number(from[1])}" x2="${number(to[0])}" y2="${number(to[1])}" ${strokeOf(stroke)}/>`;
    }
    case "polygon": {
      const points = item.points.map((point) => point.map(number).join(",")).join(" ");
      const fill = item.fill ? TINTS[item.fill] : "none";
      return `<polygon points="${points}" fill="${fill}" ${item.stroke ? strokeOf(item.stroke) : ""}/>`;
    }
    case "text": {
      const { at, size, face, align, ink, text } = item;
      const y = number(at[1] + size * 0.35);
      return `<text x="${number(at[0])}" y="${y}" font-size="${number(size)}" ${FACES[face]} text-anchor="${ANCHORS[align]}" fill="${INKS[ink]}">${escaped(text)}</text>`;
    }
    default:
      return item satisfies never;
  }
}

function strokeOf({ ink, width, dash }: Extract<DrawItem, { kind: "line" }>["stroke"]): string {
  const dashes = dash ? ` stroke-dasharray="${dash.map(number).join(" ")}"` : "";
  return `stroke="${INKS[ink]}" stroke-width="${number(width)}" stroke-linejoin="round"${dashes}`;
}
