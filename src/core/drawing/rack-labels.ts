/** Labels for rack pieces, three across an A4 page: what is written large is what is called out in the shop. */
import type { RackPiece } from "../stockroom";
import { type DrawItem, type Drawing, fitted, movedBy, rectangle } from "./display";

const [WIDTH, HEIGHT] = [63, 38];
const [ACROSS, DOWN] = [3, 7];
const [LEFT, TOP] = [10.5, 15.5];

export type RackLabel = {
  readonly piece: RackPiece;
  /** Name of its section or board. */
  readonly stock: string;
  /** Its size in the shop's unit. */
  readonly size: string;
};

export function rackLabelPages(labels: readonly RackLabel[]): readonly Drawing[] {
  const pages: Drawing[] = [];
  for (let first = 0; first < Math.max(1, labels.length); first += ACROSS * DOWN) {
    const items = labels.slice(first, first + ACROSS * DOWN).flatMap((label, i) => {
      const [column, row] = [i % ACROSS, Math.floor(i / ACROSS)];
      return movedBy(labelItems(label), [LEFT + column * WIDTH, TOP + row * HEIGHT]);
    });
    pages.push({ width: 210, height: 297, items });
  }
  return pages;
}

function labelItems({ piece, stock, size }: RackLabel): readonly DrawItem[] {
  const word = (text: string, y: number, textSize: number, face: "slab" | "text" | "strong"): DrawItem => ({
    kind: "text",
    at: [4, y],
    text: fitted(text, WIDTH - 8, textSize, face),
    size: textSize,
    face,
    align: "left",
    ink: "ink",
  });
  const from = piece.from === null ? "" : `from ${piece.from}`;
  const where = [piece.place, from, piece.note].filter((part) => part !== "").join(" · ");
  return [
    {
      kind: "polygon",
      points: rectangle(1, 1, WIDTH - 2, HEIGHT - 2),
      stroke: { ink: "seam", width: 0.2 },
      fill: null,
    },
    word(piece.label, 9, 10, "slab"),
    word(stock, 18, 3.6, "strong"),
    word(piece.material ?? "", 23, 3.2, "text"),
    word(size, 28.5, 4.4, "strong"),
    word(where, 33.5, 2.8, "text"),
  ];
}
