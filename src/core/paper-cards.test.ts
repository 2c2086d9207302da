/** Cards: from what is printed on one, and from nothing else, its piece is made again. */
import { describe, expect, it } from "vitest";
import { noticeBoard } from "../../demo/notice-board";
import { pottingBench } from "../../demo/potting-bench";
import { seedPacketCabinet } from "../../demo/seed-packet-cabinet";
import { shelfBrackets } from "../../demo/shelf-brackets";
import { demoStockroom } from "../../demo/stockroom";
import type { DrawItem } from "./drawing";
import { kindOf, lengthsBetween, tipOf } from "./ends";
import { endFromWords } from "./ends/told.fixture";
import { type Job, jobStyle, NO_ASSETS, type Page, type PageItem, plainCard, plainPage } from "./job";
import { fromNm } from "./kernel";
import { areaOfPanel } from "./layout";
import { type LengthStyle, parseLength } from "./measure";
import { pagesForFile } from "./paper-set";
import { done, withItems } from "./paper-set.fixture";
import { createPipeline } from "./pipeline";
import { type SectionShape, sectionProperties, stockroomOf } from "./stockroom";
import type { MemberForm, PanelForm, TallyRow } from "./tally";

const stockroom = stockroomOf(demoStockroom);
const JOBS: readonly (readonly [string, Job])[] = [
  ["potting bench", pottingBench()],
  ["notice board", noticeBoard()],
  ["shelf brackets", shelfBrackets()],
  ["seed-packet cabinet", seedPacketCabinet()],
];
const SIZE = { width: 186, height: 130 };

/** The card of each row on a page of its own, as it is written to files. */
function cardsOf(job: Job): readonly (readonly [TallyRow, readonly DrawItem[]])[] {
  const results = createPipeline()(job, null, stockroom, []);
  const rows = results.tally.rows.filter(({ shown }) => shown.form.kind !== "none");
  const pages = rows.map(
    (_, i): Page =>
      plainPage({ id: `card${i}` as Page["id"], paper: "a4", lying: false, titleBlock: false, position: i }),
  );
  const cards = rows.map((row, i) =>
    plainCard({
      id: `c${i}` as PageItem["id"],
      page: `card${i}`,
      record: row.pieces[0]?.id ?? "",
      at: [22, 12],
      ...SIZE,
      sits: i === 0,
    }),
  );
  const drawn = withItems(done(job, { kind: "setPages", pages }), ...cards);
  const head = { info: job.info.job, revision: 1, date: "", variantName: null, shop: "" };
  const inputs = { job: drawn, results, stockroom, assets: NO_ASSETS, layouts: [], variant: null, head };
  return pagesForFile(pages, inputs).map(({ items }, i) => [rows[i] as TallyRow, items]);
}

/** The facts as they stand on a card: a grey label at the left, what it says at its right, going on in the lines under it. */
function printedFacts(items: readonly DrawItem[]): readonly (readonly [string, string])[] {
  const words = items.flatMap((item) => (item.kind === "text" ? [item] : []));
  const labels = words.filter(({ ink, align, at }) => ink === "soft" && align === "left" && at[0] < 26);
  const values = words.filter(({ ink, at }) => ink === "ink" && Math.abs(at[0] - (22 + 3 + 24)) < 1e-6);
  const facts: [string, string][] = [];
  for (const { at, text } of [...values].sort((a, b) => a.at[1] - b.at[1])) {
    const label = labels.find((one) => Math.abs(one.at[1] - at[1]) < 0.1);
    const last = facts.at(-1);
    if (label) facts.push([label.text, text]);
    else if (last) last[1] += ` ${text}`;
  }
  return facts;
}

const fact = (facts: readonly (readonly [string, string])[], label: string): string =>
  facts.find(([one]) => one === label)?.[1] ?? "";

/** Half of the last place in which lengths are printed, with what ≈ may hide. */
const roundingOf = ({ unit }: LengthStyle) => (unit === "in" ? 25.4 / 16 : 0.06);

function reader(style: LengthStyle) {
  const length = (text: string): number => {
    const read = parseLength(text.replace("≈", "").trim(), style.unit);
    if (!read.ok) throw new Error(`${text} is no length`);
    return read.value;
  };
  return length;
}

describe("what is printed on the card of a member makes it again", () => {
  it.each(JOBS)("%s", (_, job) => {
    const style = jobStyle(job);
    const [length, rounding] = [reader(style), roundingOf(style)];
    let count = 0;
    for (const [row, items] of cardsOf(job)) {
      const { form } = row.shown;
      if (form.kind !== "member") continue;
      count++;
      const facts = printedFacts(items);
      const shape = shapeNamed(fact(facts, "Stock"), form);
      const ends = [
        endFromWords(fact(facts, "Start"), length),
        endFromWords(fact(facts, "End"), length),
      ] as const;
      const cut = length(fact(facts, "Cut length"));
      const made = lengthsBetween(shape, cut - tipOf(shape, ends[0]) - tipOf(shape, ends[1]), ...ends);
      const { areaMm2 } = sectionProperties(shape);
      // Angles are printed to a hundredth of a degree.
      const off = rounding + 0.02 * Math.max(...sectionProperties(shape).extent);
      expect(Math.abs(made.centre - fromNm(form.centreNm)) * areaMm2, row.mark).toBeLessThan(off * areaMm2);
      expect(Math.abs(made.shortestEdge - fromNm(form.shortestNm)), row.mark).toBeLessThan(off);
      // A twin by the tally's own measure, as near as what is printed.
      ends.forEach((end, i) => {
        const drawn = form.ends[i as 0 | 1];
        expect(end.kind).toBe(drawn.kind);
        const tolerance = { lengthNm: rounding * 1e6, slope: 4e-4 };
        expect(kindOf(end).apart(end, drawn, tolerance), `${row.mark} ${i}`).toBeLessThanOrEqual(1);
      });
    }
    expect(count > 0).toBe(Object.keys(job.members).length > 0);
  });
});

/** The section by the name that is printed. */
function shapeNamed(stock: string, form: MemberForm): SectionShape {
  const entry = [...stockroom.sectionById.values()].find(({ name }) => stock.startsWith(name));
  expect(entry?.shape).toEqual(form.shape);
  if (!entry) throw new Error(`${stock} is no section`);
  return entry.shape;
}

describe("what is printed on the card of a panel makes it again", () => {
  it.each(JOBS)("%s", (_, job) => {
    const style = jobStyle(job);
    const [length, rounding] = [reader(style), roundingOf(style)];
    const near = (a: number, b: number, what: string) => expect(Math.abs(a - b), what).toBeLessThan(rounding);
    for (const [row, items] of cardsOf(job)) {
      const { form } = row.shown;
      if (form.kind !== "panel") continue;
      const facts = printedFacts(items);
      const sizes = fact(facts, "Finished").split(" × ").map(length);
      near(sizes[0] ?? 0, fromNm(form.lengthNm), row.mark);
      near(sizes[1] ?? 0, fromNm(form.widthNm), row.mark);
      if (form.thicknessNm !== null) near(sizes[2] ?? 0, fromNm(form.thicknessNm), row.mark);
      const edged = facts.filter(([label]) => label.startsWith("Edging")).map(([label]) => label.slice(8));
      expect(edged.sort()).toEqual(
        Object.entries(form.edging)
          .flatMap(([edge, id]) => (id === null ? [] : [edge]))
          .sort(),
      );
      expect(fact(facts, "Grain") === "along the length").toBe(form.grain);
      expectGrooves(facts, form, length, near);
      expectHoles(facts, form, length, near);
      const notches = facts.filter(([label]) => label === "Notch");
      expect(notches).toHaveLength(form.notches.length);
      const corners = fact(facts, "Corners").replace("from left / front: ", "");
      if (form.outline === null) expect(corners).toBe("");
      else expectOutline(corners, form, length, rounding);
    }
  });
});

type Near = (a: number, b: number, what: string) => void;
type Facts = readonly (readonly [string, string])[];

function expectGrooves(facts: Facts, form: PanelForm, length: (text: string) => number, near: Near): void {
  const grooves = facts.filter(([label]) => label === "Groove" || label === "Rebate");
  expect(grooves).toHaveLength(form.grooves.length);
  grooves.forEach(([label, told], i) => {
    const groove = form.grooves[i];
    if (!groove) throw new Error(told);
    // A rebate is told by the edge that it stands at: nought from there, the rest from the other one.
    const words = label === "Rebate" ? fromEdges(told, form, length) : told;
    const read = words.match(
      /^(.+?) wide, (.+?) deep, (good|other) face, (.+?) from (front|left), (.+?) from (back|right)(?:, from (.+?) to (.+?) from (left|front))?$/,
    );
    if (!read) throw new Error(words);
    const along = read[5] === "front";
    const [across, run] = along ? [form.widthNm, form.lengthNm] : [form.lengthNm, form.widthNm];
    const [low, high] = along ? [groove.y0, groove.y1] : [groove.x0, groove.x1];
    const [from, to] = along ? [groove.x0, groove.x1] : [groove.y0, groove.y1];
    near(length(read[1] ?? ""), fromNm(high - low), words);
    near(length(read[2] ?? ""), fromNm(groove.depthNm), words);
    near(length(read[4] ?? ""), fromNm(low), words);
    near(length(read[6] ?? ""), fromNm(across - high), words);
    near(read[8] ? length(read[8]) : 0, Math.max(0, fromNm(from)), words);
    near(read[9] ? length(read[9]) : fromNm(run), Math.min(fromNm(run), fromNm(to)), words);
    expect(read[3]).toBe(groove.face);
  });
}

/** "along the back edge" as the places of a groove: in mm, which is the unit of the jobs here with rebates. */
function fromEdges(told: string, form: PanelForm, length: (text: string) => number): string {
  const [, wide = "", edge = ""] = told.match(/^(.+?) wide.* along the (front|back|left|right) edge/) ?? [];
  const [near, far, across] =
    edge === "front" || edge === "back" ? ["front", "back", form.widthNm] : ["left", "right", form.lengthNm];
  const rest = fromNm(across) - length(wide);
  const places =
    edge === near ? `0 from ${near}, ${rest} from ${far}` : `${rest} from ${near}, 0 from ${far}`;
  return told.replace(`along the ${edge} edge`, places);
}

/** All holes by their middles, made again from the rows that are printed. */
function expectHoles(facts: Facts, form: PanelForm, length: (text: string) => number, near: Near): void {
  const made = facts
    .filter(([label]) => /^(Hole|\d+ holes)$/.test(label))
    .flatMap(([, words]) => {
      const read = words.match(
        /^⌀ (.+?), (through|(.+?) deep, (good|other) face), (.+?) from front; from left (.+)$/,
      );
      if (!read) throw new Error(words);
      const y = length(read[5] ?? "");
      const xs = (read[6] ?? "").match(/[^,]+ and on, \d+ at [^,]+|[^,]+/g) ?? [];
      return xs.flatMap((one) => {
        const run = one.match(/^(.+) and on, (\d+) at (.+)$/);
        const [first, count, step] = run
          ? [length(run[1] ?? ""), Number(run[2]), length(run[3] ?? "")]
          : [length(one), 1, 0];
        return Array.from({ length: count }, (_, k) => ({
          x: first + k * step,
          y,
          diameter: length(read[1] ?? ""),
          depth: read[3] ? length(read[3]) : null,
        }));
      });
    });
  expect(made).toHaveLength(form.holes.length);
  const order = <T extends { x: number; y: number }>(holes: readonly T[]) =>
    [...holes].sort((a, b) => a.y - b.y || a.x - b.x);
  const drawn = order(form.holes.map((hole) => ({ ...hole, x: fromNm(hole.x), y: fromNm(hole.y) })));
  order(made).forEach((hole, i) => {
    const other = drawn[i];
    if (!other) throw new Error("a hole more");
    near(hole.x, other.x, "from left");
    near(hole.y, other.y, "from front");
    near(hole.diameter, fromNm(other.diameterNm), "diameter");
    if (other.depthNm === null) expect(hole.depth).toBeNull();
    else near(hole.depth ?? 0, fromNm(other.depthNm), "depth");
  });
}

function expectOutline(
  words: string,
  form: PanelForm,
  length: (text: string) => number,
  rounding: number,
): void {
  const corners = words.split(", ").map((one) => {
    const read = one.match(/^(.+?) \/ (.+?)(?: R (.+))?$/);
    if (!read) throw new Error(one);
    return { x: length(read[1] ?? ""), y: length(read[2] ?? ""), radius: read[3] ? length(read[3]) : 0 };
  });
  expect(corners).toHaveLength(form.outline?.length ?? 0);
  // The area by the shoelace formula, less what rounded corners take off where two edges meet square or at their angle.
  let area = 0;
  corners.forEach((corner, i) => {
    const [before, next] = [corners.at(i - 1), corners[(i + 1) % corners.length]];
    if (!before || !next) return;
    area += (corner.x * next.y - next.x * corner.y) / 2;
    const [ax, ay, bx, by] = [before.x - corner.x, before.y - corner.y, next.x - corner.x, next.y - corner.y];
    const theta = Math.acos((ax * bx + ay * by) / (Math.hypot(ax, ay) * Math.hypot(bx, by)));
    const turn = Math.sign(-(ax * by - ay * bx));
    area -= turn * corner.radius ** 2 * (1 / Math.tan(theta / 2) - (Math.PI - theta) / 2);
  });
  const around = 2 * (fromNm(form.lengthNm) + fromNm(form.widthNm));
  expect(Math.abs(area - areaOfPanel(form))).toBeLessThan(around * rounding);
}

describe("a card", () => {
  it("has room for all that it says, on every demo job", () => {
    for (const [, job] of JOBS)
      for (const [row, items] of cardsOf(job))
        expect(
          items.filter((item) => "ink" in item && item.ink === "oxide"),
          row.mark,
        ).toEqual([]);
  });

  it("shows where its piece sits", () => {
    const [first] = cardsOf(pottingBench());
    const drawn = first?.[1].filter((item) => item.kind === "paths" && item.stroke?.ink === "seam");
    expect(drawn).toHaveLength(1);
  });
});
