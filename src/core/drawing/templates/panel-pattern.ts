/** The flat pattern of a panel at full size, seen on its good face: its outline, cut-outs, holes, grooves and notches as they are cut. */
import type { Vec2 } from "../../geometry";
import { fromNm, LENGTH_TOLERANCE_MM } from "../../kernel";
import { panelShape } from "../../layout";
import { formatLength, saySizes } from "../../measure";
import type { Stockroom } from "../../stockroom";
import type { PanelForm } from "../../tally";
import { type DrawItem, movedBy, rectangle } from "../display";
import { circlePath, pathOfCorners } from "../path";
import type { TemplateWords } from "./end-pattern";
import { CHAIN, DASHED, lineOf, NARROW, type Pattern, WIDE, wordsAt, wordsBlock } from "./pattern";

/** mm around the outline, so that its line lies on the paper. */
const MARGIN = 4;

/** Lengths in mm; what is cut is the blank, less the edging that is deducted. */
export function panelPattern(form: PanelForm, words: TemplateWords, { edgingById }: Stockroom): Pattern {
  const { style } = words;
  const [length, width] = [fromNm(form.lengthNm), fromNm(form.widthNm)];
  const place = ([x, y]: Vec2): Vec2 => [MARGIN + x, MARGIN + width - y];
  const { outline, cutOuts } = panelShape(form, edgingById);
  const items: DrawItem[] = [
    {
      kind: "paths",
      paths: [outline, ...cutOuts].map((ring) => pathOfCorners(ring, place)),
      stroke: WIDE,
      fill: null,
      layer: "CUTS",
    },
  ];
  const depth = (mm: number, face: "good" | "other") =>
    `${formatLength(mm, style, LENGTH_TOLERANCE_MM)} deep${face === "other" ? ", other face" : ""}`;
  for (const groove of form.grooves) {
    const [x0, x1, y0, y1] = [groove.x0, groove.x1, groove.y0, groove.y1].map(fromNm) as [
      number,
      number,
      number,
      number,
    ];
    const [left, top] = place([x0, y1]);
    items.push({
      kind: "polygon",
      points: rectangle(left, top, x1 - x0, y1 - y0),
      stroke: groove.face === "good" ? NARROW : DASHED,
      fill: null,
      layer: groove.face === "good" ? "EDGES" : "HIDDEN",
    });
    items.push(wordsAt([left + 2, top + (y1 - y0) / 2], depth(fromNm(groove.depthNm), groove.face)));
  }
  for (const hole of form.holes) {
    const [centre, radius] = [place([fromNm(hole.x), fromNm(hole.y)]), fromNm(hole.diameterNm) / 2];
    const behind = hole.depthNm !== null && hole.face === "other";
    items.push(
      {
        kind: "paths",
        paths: [circlePath(centre, radius)],
        stroke: behind ? DASHED : WIDE,
        fill: null,
        layer: "HOLES",
      },
      ...cross(centre, radius + 2),
    );
    if (hole.depthNm !== null)
      items.push(wordsAt([centre[0] + radius + 2.5, centre[1] - 2], depth(fromNm(hole.depthNm), hole.face)));
  }
  const told = wordsBlock(
    [
      words.title,
      words.section,
      `Finished ${saySizes([length, width], style)}, seen on the good face`,
      ...(words.opposite > 0
        ? [`${words.opposite} ${words.opposite === 1 ? "is" : "are"} opposite: turn the paper over`]
        : []),
    ],
    Math.max(30, length - 20),
  );
  const [x, y] = [MARGIN + 10, MARGIN + Math.max(6, width / 2 - told.height / 2)];
  return {
    width: length + 2 * MARGIN,
    height: width + 2 * MARGIN,
    items: [...items, ...movedBy(told.items, [x, y])],
  };
}

const cross = ([x, y]: Vec2, reach: number): readonly DrawItem[] => [
  lineOf([x - reach, y], [x + reach, y], CHAIN, "HOLES"),
  lineOf([x, y - reach], [x, y + reach], CHAIN, "HOLES"),
];
