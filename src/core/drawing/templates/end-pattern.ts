/**
 * Templates of the ends of members, to be wrapped round them or rolled up inside, drawn with the member upright: its end up, its
 * start down, so that both stand to one another on the paper as they do on the member.
 */
import { anglesOf, type End, kindOf } from "../../ends";
import { norm2, type Vec2 } from "../../geometry";
import { at, err, fromNm, ok, type Result } from "../../kernel";
import { formatDegrees, type LengthStyle, roundTo, sayLength, toDegrees } from "../../measure";
import type { MemberForm } from "../../tally";
import { type DrawItem, movedBy, rectangle } from "../display";
import { hatchLines } from "../hatching";
import { type EndLines, endLines, type TemplateLine } from "./end-lines";
import { CHAIN, DASHED, lineOf, NARROW, type Pattern, runOf, WIDE, wordsAt, wordsBlock } from "./pattern";
import { type Surface, type SurfaceFault, surfaceOf, type TemplateSide } from "./surface";

export type TemplateEnds = "start" | "end" | "both";

export type EndTemplate = {
  readonly ends: TemplateEnds;
  readonly side: TemplateSide;
  readonly line: TemplateLine;
  /** mm, of the paper that it is printed on. */
  readonly paper: number;
};

export type EndTemplateFault = SurfaceFault | "noSection" | "crossed";

/** What is written on a template beside its numbers. */
export type TemplateWords = {
  /** Mark, name, section, as it begins. */
  readonly title: string;
  readonly section: string;
  readonly style: LengthStyle;
  /** How many are the opposite of what is drawn. */
  readonly opposite: number;
};

/** mm. What of the waste is drawn beyond the tip, and how far behind the lowest of the curve the reference line stands at least. */
const WASTE = 6;
const BEHIND = 22;
/** Distances of the lines across are whole numbers of this, so that they are easily measured: 5 mm, or 1/4 in. */
const stepOf = ({ unit }: LengthStyle): number => (unit === "in" || unit === "ft" ? 6.35 : 5);
/** Longer lines of words are broken. */
const WORDS_WIDTH = 110;
/** Where both ends come nearer than this there is no middle to be broken. */
const LEAST_BROKEN = 15;
const BREAK = 16;

/** From the tip of an end to its line across. */
function referenceOf({ depth }: EndLines, style: LengthStyle): number {
  const step = stepOf(style);
  return Math.ceil((depth + BEHIND) / step) * step;
}

const slopeOf = (end: End): Vec2 => kindOf(end).lean(end).towards;
const leans = (end: End) => norm2(slopeOf(end)) > 1e-9;

/** What the template of a member's ends measures, before it is drawn. */
type TemplateMeasures = {
  /** mm, from the tip of either end to its reference line. */
  readonly references: readonly [start: number, end: number];
  /** mm, from one reference line to the other. */
  readonly between: number;
  /** The middle is left out; else the two stand as far apart as on the member. */
  readonly broken: boolean;
};

function measuresOf(
  form: MemberForm,
  [start, end]: readonly [EndLines, EndLines],
  style: LengthStyle,
): TemplateMeasures {
  const references = [referenceOf(start, style), referenceOf(end, style)] as const;
  const between = fromNm(form.cutNm) - references[0] - references[1];
  return { references, between, broken: between >= LEAST_BROKEN };
}

/** The template of one end or both at full size. */
export function endPattern(
  form: MemberForm,
  asked: EndTemplate,
  words: TemplateWords,
): Result<Pattern, EndTemplateFault> {
  const { shape, ends } = form;
  if (!shape) return err("noSection");
  const leading = asked.ends === "start" || !leans(ends[1]) ? (leans(ends[0]) ? ends[0] : ends[1]) : ends[1];
  const middle: Vec2 = leans(leading) ? slopeOf(leading) : [0, 1];
  const laid = surfaceOf(shape, { side: asked.side, paper: asked.paper, middle });
  if (!laid.ok) return laid;
  const surface = laid.value;
  const [start, end] = ends.map((one) => endLines(shape, one, surface, asked.line)) as [EndLines, EndLines];
  const measures = measuresOf(form, [start, end], words.style);
  if (asked.ends === "both" && fromNm(form.shortestNm) <= 0) return err("crossed");
  const text = wordsBlock(
    told(form, asked, measures, words, surface),
    Math.min(surface.width - 4, WORDS_WIDTH),
  );
  const room = text.height + 5;
  const up = (lines: EndLines, y: number) => endItems(surface, lines, (height) => y - height, -1);
  const down = (lines: EndLines, y: number) => endItems(surface, lines, (height) => y + height, 1);
  const words_ = (y: number): readonly DrawItem[] => movedBy(text.items, [2, y]);
  const [first, second] = measures.references;
  switch (asked.ends) {
    case "end": {
      const line = WASTE + second;
      const height = line + room;
      const items = [
        ...up(end, WASTE),
        ...reference(surface, line, -1),
        ...standing(surface, end, (h) => WASTE - h, line),
        ...words_(line + 3),
      ];
      return ok(framed(surface, height, items));
    }
    case "start": {
      const height = room + first + WASTE;
      const items = [
        ...down(start, height - WASTE),
        ...reference(surface, room, 1),
        ...standing(surface, start, (h) => height - WASTE + h, room),
        ...words_(2),
      ];
      return ok(framed(surface, height, items));
    }
    case "both": {
      const apart = measures.broken ? room + BREAK : Math.max(measures.between, 0);
      const upper = WASTE + second;
      const lower = measures.broken ? upper + apart : WASTE + fromNm(form.cutNm) - first;
      const height = lower + first + WASTE;
      const foot = height - WASTE;
      const lines = measures.broken
        ? [
            ...reference(surface, upper, -1),
            ...reference(surface, lower, 1),
            ...breakLines(surface, upper + room + BREAK / 2),
          ]
        : [];
      const items = [
        ...up(end, WASTE),
        ...down(start, foot),
        ...lines,
        ...standing(surface, end, (h) => WASTE - h, measures.broken ? upper : height / 2),
        ...standing(surface, start, (h) => foot + h, measures.broken ? lower : height / 2),
        ...words_(measures.broken ? upper + 3 : WASTE + end.depth + 3),
      ];
      return ok(framed(surface, height, items));
    }
    default:
      return asked.ends satisfies never;
  }
}

/** With the edges of the paper. */
function framed({ width }: Surface, height: number, items: readonly DrawItem[]): Pattern {
  return {
    width,
    height,
    items: [
      {
        kind: "polygon",
        points: rectangle(0, 0, width, height),
        stroke: NARROW,
        fill: null,
        layer: "OUTLINES",
      },
      ...items,
    ],
  };
}

/** The line that is cut along, the other surface of the wall, and the waste beyond it. `out`: 1 where the end points down. */
function endItems(
  surface: Surface,
  { chosen, other }: EndLines,
  place: (height: number) => number,
  out: 1 | -1,
): readonly DrawItem[] {
  const onPaper = (line: readonly Vec2[]) => line.map(([x, h]): Vec2 => [x, place(h)]);
  const cut = onPaper(chosen);
  const edge = place(0) + out * WASTE;
  const waste: readonly Vec2[] = [...cut, [surface.width, edge], [0, edge]];
  return [
    ...hatchLines([waste], { angle: 45, apart: 3 }).map(([from, to]) =>
      lineOf(from, to, { ink: "soft", width: 0.13 }, "HATCHING"),
    ),
    ...(other ? [runOf(onPaper(other), DASHED, "HIDDEN")] : []),
    runOf(cut, WIDE, "CUTS"),
  ];
}

/** The line square to the axis behind an end, and ticks beside it on both edges: they meet when the paper is wrapped. */
function reference({ width, closed }: Surface, y: number, side: 1 | -1): readonly DrawItem[] {
  const tick = y + side * 4;
  return [
    lineOf([0, y], [width, y], NARROW, "SIZES"),
    ...(closed
      ? [lineOf([0, tick], [5, tick], WIDE, "TEXTS"), lineOf([width - 5, tick], [width, tick], WIDE, "TEXTS")]
      : []),
  ];
}

/** Lines along the member: the folds, and those to lay the paper by with their names. */
function standing(
  surface: Surface,
  { chosen }: EndLines,
  place: (height: number) => number,
  foot: number,
): readonly DrawItem[] {
  const heightAt = (along: number) => {
    const i = chosen.findIndex(([x]) => x >= along - 1e-6);
    return at(chosen, Math.max(0, i))[1];
  };
  const away = Math.sign(place(0) - foot);
  return [
    ...surface.folds.map((along) =>
      lineOf([along, place(heightAt(along))], [along, foot], DASHED, "CREASES"),
    ),
    ...surface.lines
      .filter(({ along }) => along > 1e-6 && along < surface.width - 1e-6)
      .flatMap(({ along, name }) => [
        lineOf([along, place(heightAt(along))], [along, foot], CHAIN, "CREASES"),
        wordsAt([along + 1, foot + away * 6.5], name),
      ]),
  ];
}

/** Two lines with a jag: the middle of the member is left out. */
function breakLines({ width }: Surface, y: number): readonly DrawItem[] {
  const jag = (low: number): DrawItem => {
    const middle = width / 2;
    return runOf(
      [
        [0, low],
        [middle - 3, low],
        [middle - 1, low - 2.5],
        [middle + 1, low + 2.5],
        [middle + 3, low],
        [width, low],
      ],
      NARROW,
      "OUTLINES",
    );
  };
  return [jag(y - 1.5), jag(y + 1.5)];
}

/** What the bench has to know, one thing a line. */
function told(
  form: MemberForm,
  asked: EndTemplate,
  measures: TemplateMeasures,
  { title, section, style, opposite }: TemplateWords,
  surface: Surface,
): readonly string[] {
  const say = (mm: number) => sayLength(mm, style);
  const both = asked.ends === "both";
  const shown = both ? [0, 1] : [asked.ends === "start" ? 0 : 1];
  const lines = [`${title} · ${section}`];
  for (const i of shown) {
    const end = at(form.ends, i);
    const behind =
      both && !measures.broken ? "" : `, long point ${say(at(measures.references, i))} from the line across`;
    lines.push(`${i === 0 ? "Start, points down" : "End, points up"}: ${cutWords(end, style)}${behind}`);
  }
  lines.push(`Cut length ${say(fromNm(form.cutNm))}, from tip to tip`);
  if (both && measures.broken) lines.push(`${say(measures.between)} between the two lines across`);
  const roll = rollBetween(form, asked.side);
  if (roll !== null) lines.push(roll);
  lines.push(...lineWords(form, asked, surface));
  lines.push(
    asked.side === "outside"
      ? `Wrap round the outside, print outwards${thick(asked.paper, style)}`
      : `Roll up inside, print inwards${thick(asked.paper, style)}`,
  );
  if (surface.folds.length > 1 && surface.closed)
    lines.push("Lay each face by its own middle line; slit the paper at the corners");
  if (opposite > 0) lines.push(`${opposite} ${opposite === 1 ? "is" : "are"} opposite: turn the paper over`);
  return lines;
}

const thick = (paper: number, style: LengthStyle) => (paper > 0 ? `; paper ${say2(paper, style)} thick` : "");
/** Paper is thinner than a job's lengths are written. */
const say2 = (mm: number, { unit }: LengthStyle) =>
  unit === "in" || unit === "ft" ? `${roundTo(mm / 25.4, 4)} in` : `${roundTo(mm, 3)} mm`;

/** How an end is cut: "square", "22.5° from square", "coped round 48.3 at 60°". */
function cutWords(end: End, style: LengthStyle): string {
  const note = kindOf(end).note(end, style);
  if (note !== null) return note;
  const angles = kindOf(end)
    .slopes(end)
    .map((slope) => anglesOf(slope).angle);
  if (angles.every((angle) => angle === 0)) return "cut square";
  return `${angles.map((angle) => `${formatDegrees(angle)}°`).join(" and ")} from square`;
}

function lineWords({ ends }: MemberForm, asked: EndTemplate, surface: Surface): readonly string[] {
  if (!surface.hasWall) return [];
  const there = asked.side === "outside" ? "outside" : "inside";
  const other = asked.side === "outside" ? "inside" : "outside";
  const fitted = ends.some((end) => end.kind === "cope" && end.curve === "fit");
  return [
    fitted || asked.line === "fit"
      ? `Full line: for a blade held square, so that all of the wall clears. Dashed: ${other} of the wall`
      : `Full line: ${there} of the wall. Dashed: ${other}`,
  ];
}

/** How far the end is turned against the start about the axis; null where one of them leans nowhere. */
function rollBetween({ ends: [start, end] }: MemberForm, side: TemplateSide): string | null {
  if (!leans(start) || !leans(end)) return null;
  const [a, b] = [slopeOf(start), slopeOf(end)];
  const turn = toDegrees(Math.atan2(a[0] * b[1] - a[1] * b[0], a[0] * b[0] + a[1] * b[1]));
  const right = side === "outside" ? turn : -turn;
  const size = formatDegrees(Math.abs(turn));
  if (size === "0") return "Long points of both ends in line";
  if (size === "180") return "Long points of both ends opposite one another";
  return `Long point of the end ${size}° to the ${right > 0 ? "right" : "left"} of that of the start`;
}
