/** The card of a row: the piece with all that is needed to make it, how many there are, and where it sits. */
import type { Vec2 } from "../../geometry";
import { counted } from "../../kernel";
import type { LengthStyle } from "../../measure";
import type { Stockroom } from "../../stockroom";
import type { TallyRow } from "../../tally";
import { CAPITAL_HEIGHT, type DrawItem, fitted, movedBy, rectangle, type Stroke, wrapped } from "../display";
import type { CardFault } from "../pages/item-fault";
import { scaleWords } from "../pages/scales";
import { circlePath } from "../path";
import { textWidth } from "../text-width";
import { cardFacts } from "./card-facts";
import { SIZE, THIN } from "./card-parts";
import { memberDrawing, sectionDrawing } from "./member-drawing";
import { panelDrawing } from "./panel-drawing";

export type Card = {
  readonly items: readonly DrawItem[];
  /** Where the picture of where it sits goes. */
  readonly sits: { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number };
  /** What has no room on it; null: nothing. */
  readonly fault: CardFault | null;
};

export type CardGround = {
  readonly style: LengthStyle;
  readonly stockroom: Stockroom;
};

const FRAME: Stroke = { ink: "ink", width: 0.35 };
const LINE = 4;
const PAD = 3;
const HEAD = 14;
const SITS = 36;
const SECTION = 26;
const LABEL = 24;

/** The card of a row in a frame of some size, from its upper left corner. */
export function rowCard(row: TallyRow, width: number, height: number, ground: CardGround): Card {
  const { form } = row.shown;
  const sits = { x0: width - SITS - PAD, y0: HEAD + 2, x1: width - PAD, y1: HEAD + 2 + SITS };
  const left = width - SITS - 3 * PAD;
  const facts = factLines(row, width, left, ground);
  const items: DrawItem[] = [
    {
      kind: "polygon",
      points: rectangle(0, 0, width, height),
      stroke: FRAME,
      fill: null,
      layer: "BORDER",
    },
    ...head(row, width),
  ];
  const room = { width: left, height: height - HEAD - facts.height - 3 * PAD };
  let without: CardFault["what"] | null = null;
  let scale: string | null = null;
  let drawnHeight = 0;
  if (form.kind === "member" && form.shape) {
    const drawn = memberDrawing(form, form.shape, left, ground.style);
    items.push(...movedBy(drawn.items, [PAD, HEAD + PAD]));
    const section = sectionDrawing(form.shape, SECTION, ground.style);
    items.push(...movedBy(section.items, [sits.x0 + (SITS - SECTION) / 2, sits.y1 + 2]));
    scale = `${scaleWords(drawn.scale, ground.style.unit)}${drawn.broken ? ", broken" : ""}`;
    drawnHeight = drawn.height;
    if (sits.y1 + 2 + section.height > height - PAD) without = "section";
  } else if (form.kind === "panel") {
    const drawn = panelDrawing(form, room, ground.style, ground.stockroom);
    items.push(...movedBy(drawn.items, [PAD, HEAD + PAD]));
    scale = scaleWords(drawn.scale, ground.style.unit);
    drawnHeight = drawn.height;
    if (!drawn.fits) without = "panel";
  }
  if (scale !== null)
    items.push(text([width - PAD, height - PAD - 0.5], scale, { align: "right", soft: true }));
  const top = height - PAD - facts.height;
  if (HEAD + PAD + drawnHeight > top + 0.5) without ??= "facts";
  items.push(...movedBy(facts.items, [PAD, top]));
  return { items, sits, fault: without && { kind: "noRoomOnCard", what: without } };
}

function text(
  at: Vec2,
  words: string,
  {
    size = SIZE,
    strong = false,
    align = "left",
    soft = false,
  }: {
    readonly size?: number;
    readonly strong?: boolean;
    readonly align?: "left" | "centre" | "right";
    readonly soft?: boolean;
  } = {},
): DrawItem {
  return {
    kind: "text",
    at,
    text: words,
    size,
    face: strong ? "strong" : "text",
    align,
    ink: soft ? "soft" : "ink",
    layer: "TEXTS",
  };
}

/** The mark in a circle, the name, and how many there are of which hand. */
function head(row: TallyRow, width: number): readonly DrawItem[] {
  const { asDrawn, opposite } = row.hands;
  const count = counted(row.count, "piece");
  const hands = opposite === 0 ? "" : `${asDrawn} as drawn + ${opposite} opposite`;
  const markSize = 3.5 / CAPITAL_HEIGHT;
  const wide = textWidth(row.mark, markSize, "strong");
  const size = wide > 8 ? (markSize * 8) / wide : markSize;
  const right = width - PAD;
  const taken = Math.max(textWidth(count, markSize, "strong"), textWidth(hands, SIZE, "text"));
  return [
    {
      kind: "paths",
      paths: [circlePath([PAD + 5, HEAD / 2], 5)],
      stroke: FRAME,
      fill: null,
      layer: "BALLOONS",
      record: row.pieces[0]?.id ?? "",
    },
    text([PAD + 5, HEAD / 2], row.mark, { size, strong: true, align: "centre" }),
    text([PAD + 13, HEAD / 2], fitted(row.name, width - taken - PAD * 2 - 18, markSize, "strong"), {
      size: markSize,
      strong: true,
    }),
    text([right, hands === "" ? HEAD / 2 : HEAD / 2 - 2], count, {
      size: markSize,
      strong: true,
      align: "right",
    }),
    ...(hands === "" ? [] : [text([right, HEAD / 2 + 3], hands, { align: "right" })]),
    { kind: "line", from: [0, HEAD], to: [width, HEAD], stroke: THIN, layer: "BORDER" },
  ];
}

/** The facts one under the other. */
function factLines(
  row: TallyRow,
  width: number,
  left: number,
  { style, stockroom }: CardGround,
): { readonly items: readonly DrawItem[]; readonly height: number } {
  // At the right there may be the section of a member.
  const room = row.shown.form.kind === "member" ? left : width - 2 * PAD;
  const lines = cardFacts(row, style, stockroom).flatMap(({ label, value }) =>
    wrapped(value, room - LABEL, SIZE, "text").map((line, i) => ({ label: i === 0 ? label : "", line })),
  );
  return {
    height: lines.length * LINE,
    items: lines.flatMap(({ label, line }, i) => [
      ...(label === ""
        ? []
        : [text([0, LINE * (i + 0.5)], fitted(label, LABEL - 1, SIZE, "text"), { soft: true })]),
      text([LABEL, LINE * (i + 0.5)], line),
    ]),
  };
}
