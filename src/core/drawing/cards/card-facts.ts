/** What a card says of a piece beside its drawing: every number that is needed to make it, each told once. */
import { type End, kindOf, sawSettings, signedDegrees } from "../../ends";
import { norm2 } from "../../geometry";
import type { PanelEdge } from "../../job";
import { addTo, at, fromNm, LENGTH_TOLERANCE_MM, type Nm } from "../../kernel";
import { blankOf } from "../../layout";
import { fromBothEdges, memberWorkWords, standWords } from "../../lists";
import { formatLength, type LengthStyle } from "../../measure";
import type { Stockroom } from "../../stockroom";
import type { CornerForm, HoleForm, MemberForm, PanelForm, TallyRow } from "../../tally";

export type CardFact = { readonly label: string; readonly value: string };

type Write = (mm: number) => string;
const writer =
  (style: LengthStyle): Write =>
  (mm) =>
    formatLength(mm, style, LENGTH_TOLERANCE_MM);

/** The facts of a row, in the order in which a shop needs them. */
export function cardFacts(row: TallyRow, style: LengthStyle, stockroom: Stockroom): readonly CardFact[] {
  const { form } = row.shown;
  const write = writer(style);
  const stock = [row.stockName, row.material].filter((one) => one !== null && one !== "").join(" · ");
  const first: CardFact[] = stock === "" ? [] : [{ label: "Stock", value: stock }];
  switch (form.kind) {
    case "member":
      return [...first, ...memberFacts(form, write, style)];
    case "panel":
      return [...first, ...panelFacts(form, write, stockroom)];
    case "none":
      return row.shown.why === null ? first : [...first, { label: "Not computed", value: row.shown.why }];
    default:
      return form satisfies never;
  }
}

function memberFacts(form: MemberForm, write: Write, style: LengthStyle): readonly CardFact[] {
  const [cut, long, short] = [form.cutNm, form.longestNm, form.shortestNm].map(fromNm) as [
    number,
    number,
    number,
  ];
  const facts: CardFact[] = [{ label: "Cut length", value: write(cut) }];
  if (Math.abs(long - short) > LENGTH_TOLERANCE_MM)
    facts.push({ label: "Edges", value: `longest ${write(long)}, shortest ${write(short)}` });
  const words = ["Start", "End"] as const;
  form.ends.forEach((end, i) => {
    facts.push({ label: at(words, i), value: kindOf(end).told(end, style) });
  });
  if (form.ends.some((end) => !isSquare(end))) facts.push({ label: "Ends", value: standWords(form) });
  form.ends.forEach((end, i) => {
    const saw = sawWords(end);
    if (saw !== null) facts.push({ label: `Saw, ${at(words, i).toLowerCase()}`, value: saw });
  });
  return [...facts, ...memberWorkWords(form, write)];
}

const isSquare = (end: End) =>
  kindOf(end)
    .slopes(end)
    .every((slope) => norm2(slope) < 1e-9) && end.kind !== "cope";

/** Settings of a saw with the height side on its table; null where no saw cuts it, or square. */
function sawWords(end: End): string | null {
  const kind = kindOf(end);
  if (!kind.sawn || isSquare(end)) return null;
  return kind
    .slopes(end)
    .map((slope) => {
      const { mitre, bevel } = sawSettings(slope);
      return `mitre ${signedDegrees(mitre)}, bevel ${signedDegrees(bevel)}`;
    })
    .join("; ");
}

const EDGES: readonly PanelEdge[] = ["front", "back", "left", "right"];

function panelFacts(form: PanelForm, write: Write, { edgingById }: Stockroom): readonly CardFact[] {
  const [length, width] = [fromNm(form.lengthNm), fromNm(form.widthNm)];
  const thick = form.thicknessNm === null ? "" : ` × ${write(fromNm(form.thicknessNm))}`;
  const facts: CardFact[] = [{ label: "Finished", value: `${write(length)} × ${write(width)}${thick}` }];
  const blank = blankOf(form, edgingById);
  if (blank.length !== length || blank.width !== width)
    facts.push({ label: "Blank", value: `${write(blank.length)} × ${write(blank.width)}` });
  facts.push({ label: "Grain", value: form.grain ? "along the length" : "any way" });
  if (form.goodFace) facts.push({ label: "Face", value: "one good face" });
  for (const edge of EDGES) {
    const edging = form.edging[edge];
    if (edging !== null)
      facts.push({ label: `Edging, ${edge}`, value: edgingById.get(edging)?.name ?? edging });
  }
  if (form.outline !== null)
    facts.push({
      label: "Corners",
      value: cornersWords(form.outline, write),
    });
  for (const groove of form.grooves) {
    const { width: wide, depth, settings, edges, alongLength, rebate } = fromBothEdges(form, groove);
    const [from, to, run] = alongLength
      ? [groove.x0, groove.x1, form.lengthNm]
      : [groove.y0, groove.y1, form.widthNm];
    const whole = from <= 0 && to >= run;
    const along = alongLength ? "left" : "front";
    const stopped = whole ? "" : `, from ${write(fromNm(from))} to ${write(fromNm(to))} from ${along}`;
    facts.push({
      label: rebate ? "Rebate" : "Groove",
      value: `${write(wide)} wide, ${write(depth)} deep, ${groove.face} face, ${rebate ? `along the ${rebate} edge` : `${write(settings[0])} from ${edges[0]}, ${write(settings[1])} from ${edges[1]}`}${stopped}`,
    });
  }
  facts.push(...holeFacts(form, write));
  for (const { x0, x1, y0, y1 } of form.notches)
    facts.push({
      label: "Notch",
      value: `${write(fromNm(x1 - x0))} × ${write(fromNm(y1 - y0))}, from ${write(fromNm(x0))} from left and ${write(fromNm(y0))} from front`,
    });
  for (const corners of form.cutOuts) facts.push({ label: "Cut-out", value: cornersWords(corners, write) });
  return facts;
}

const cornersWords = (corners: readonly CornerForm[], write: Write): string =>
  `from left / front: ${corners
    .map(({ x, y, radiusNm }) => {
      const round = radiusNm === 0 ? "" : ` R ${write(fromNm(radiusNm))}`;
      return `${write(fromNm(x))} / ${write(fromNm(y))}${round}`;
    })
    .join(", ")}`;

/** Holes of one size in one row together. */
function holeFacts(form: PanelForm, write: Write): readonly CardFact[] {
  const rows = new Map<string, HoleForm[]>();
  for (const hole of form.holes) {
    const { diameterNm, depthNm, face, y } = hole;
    const key = `${diameterNm} ${depthNm} ${face} ${y}`;
    addTo(rows, key, hole);
  }
  return [...rows.values()].map((holes) => {
    const { diameterNm, depthNm, face, y } = at(holes, 0);
    const how = depthNm === null ? "through" : `${write(fromNm(depthNm))} deep, ${face} face`;
    const places = evenRuns(holes.map(({ x }) => x)).map((run) => runWords(run, write));
    return {
      label: holes.length === 1 ? "Hole" : `${holes.length} holes`,
      value: `⌀ ${write(fromNm(diameterNm))}, ${how}, ${write(fromNm(y))} from front; from left ${places.join(", ")}`,
    };
  });
}

/** Numbers one after the other at even steps. */
export type EvenRun = { readonly first: number; readonly step: number; readonly count: number };

/** Steps are told as such from this many places on. */
const LEAST_RUN = 4;
/** Nanometres. Computed places at even steps may differ by rounding. */
const SAME_NM = 5;

/** Places in order, those of at least four at even steps together. */
export function evenRuns(places: readonly Nm[]): readonly EvenRun[] {
  const sorted = [...new Set(places)].sort((a, b) => a - b);
  const runs: EvenRun[] = [];
  for (let i = 0; i < sorted.length; ) {
    const first = at(sorted, i);
    const step = (sorted[i + 1] ?? first) - first;
    let count = 1;
    const isNext = (k: number) => Math.abs((sorted[k] ?? 0) - at(sorted, k - 1) - step) < SAME_NM;
    while (i + count < sorted.length && isNext(i + count)) count++;
    if (count < LEAST_RUN) count = 1;
    runs.push({ first, step, count });
    i += count;
  }
  return runs;
}

const runWords = ({ first, step, count }: EvenRun, write: Write): string =>
  count === 1 ? write(fromNm(first)) : `${write(fromNm(first))} and on, ${count} at ${write(fromNm(step))}`;
