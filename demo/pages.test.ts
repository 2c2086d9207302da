/** The drawing pages of the demo jobs: nothing on them is at fault, and what leaves is read by programs of others. */
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { arrangedOn, balloonRows, borderOf, type DrawnPage, type DrawnView, titleBox } from "@/core/drawing";
import type { PlaneBox } from "@/core/geometry";
import {
  type Edit,
  type Job,
  movesWith,
  NO_ASSETS,
  type Page,
  type PageItem,
  pagesInOrder,
  plainPage,
  withEdit,
} from "@/core/job";
import { at, sentence } from "@/core/kernel";
import { asksOfPages, createPageDrawing, pagesForFile } from "@/core/paper-set";
import { createPipeline } from "@/core/pipeline";
import { createViews } from "@/core/views";
import { pagesFile } from "@/formats/pages-file";
import { drawnJob, STOCKROOM } from "./drawn-jobs.fixture";
import { noticeBoard } from "./notice-board";
import { pottingBench } from "./potting-bench";
import { seedPacketCabinet } from "./seed-packet-cabinet";
import { shelfBrackets } from "./shelf-brackets";

const folder = mkdtempSync(path.join(tmpdir(), "tally-pages-"));

function inputsOf(job: Job) {
  const results = createPipeline()(job, null, STOCKROOM, []);
  const head = { info: job.info.job, revision: 3, date: "2026-11-27", variantName: null, shop: "A shop" };
  return { job, results, stockroom: STOCKROOM, layouts: [], assets: NO_ASSETS, head };
}

const viewOfDesk = createViews();

/** A page as it is drawn, with its views. */
function drawnPage(job: Job, page: Page): DrawnPage {
  const views = new Map<string, DrawnView>(
    asksOfPages(job, [page], null).map((asked) => [
      asked.id,
      viewOfDesk({ job, stockroom: STOCKROOM, assets: NO_ASSETS }, asked),
    ]),
  );
  return createPageDrawing()(page, { ...inputsOf(job), views });
}

/** The room of each item that stands by itself or is a view, where it stands. */
const boxesOf = ({ placed }: DrawnPage) =>
  placed
    .filter(({ item }) => movesWith(item) === null || item.kind === "view")
    .map(({ item, at: [x, y], box }) => ({
      id: item.id as string,
      box: { x0: box.x0 + x, y0: box.y0 + y, x1: box.x1 + x, y1: box.y1 + y },
    }));

const meet = (a: PlaneBox, b: PlaneBox): boolean => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1;

async function fileOf(job: Job, format: "pdf" | "dxf", name: string): Promise<string> {
  const drawings = pagesForFile(pagesInOrder(job), { ...inputsOf(job), variant: null });
  const content = await pagesFile(format, drawings, { info: job.info.job, made: new Date(0) });
  const file = path.join(folder, `${name}.${format}`);
  writeFileSync(file, content ?? "");
  return file;
}

/** What ezdxf, a reader of others, finds in a file: errors and repairs, and how many of each kind on which layer. */
const AUDIT = `
import collections, json, sys, ezdxf
doc = ezdxf.readfile(sys.argv[1])
audit = doc.audit()
kinds = collections.Counter(e.dxf.layer + " " + e.dxftype() for e in doc.modelspace())
print(json.dumps({"errors": len(audit.errors), "fixes": len(audit.fixes), "kinds": kinds, "units": doc.header.get("$INSUNITS", 0)}))
`;
type Audit = {
  readonly errors: number;
  readonly fixes: number;
  readonly units: number;
  readonly kinds: Readonly<Record<string, number>>;
};
const audited = (file: string): Audit =>
  JSON.parse(execFileSync("/usr/bin/python3", ["-c", AUDIT, file], { encoding: "utf8" }));

describe.each([
  ["potting bench", pottingBench(), 4],
  ["seed-packet cabinet", seedPacketCabinet(), 4],
  ["notice board", noticeBoard(), 1],
  ["shelf brackets", shelfBrackets(), 4],
] as const)("the pages of the %s", (name, start, units) => {
  const job = drawnJob(start);

  it("show all that is on them, and name every row", () => {
    const inputs = inputsOf(job);
    for (const page of pagesInOrder(job)) {
      const drawn = drawnPage(job, page);
      for (const { item, fault } of drawn.placed) expect([item.id, fault]).toEqual([item.id, null]);
      // What stands on the page stands on it: within its sheet.
      for (const {
        at: [x, y],
        box,
      } of drawn.placed) {
        expect(x + box.x0).toBeGreaterThan(0);
        expect(y + box.y0).toBeGreaterThan(0);
        expect(x + box.x1).toBeLessThan(drawn.size.width);
        expect(y + box.y1).toBeLessThan(drawn.size.height);
      }
    }
    const { all, without } = balloonRows(job, inputs.results);
    expect(all.length).toBeGreaterThan(4);
    expect(without.map(({ name }) => name)).toEqual([]);
  });

  it("are arranged again on another sheet, with nothing off it, on the title block or on one another", () => {
    for (const page of pagesInOrder(job))
      for (const sheet of [
        { paper: "a3", lying: false },
        { paper: "a2", lying: true },
      ] as const) {
        const before = drawnPage(job, page);
        const title = titleBox(borderOf(sheet), STOCKROOM.titleBlock);
        const after = arrangedOn(before, sheet, title, job.info.job.unit).reduce((one, edit) => {
          const made = withEdit(one, edit);
          if (!made.ok) throw new Error(sentence(made.problem));
          return made.value;
        }, job);
        const drawn = drawnPage(after, { ...page, ...after.pages[page.id], ...sheet });
        expect(drawn.placed.map(({ fault }) => fault)).toEqual(before.placed.map(({ fault }) => fault));
        const border = borderOf(sheet);
        const standing = boxesOf(drawn);
        for (const { id, box } of standing) {
          const out = [border.x0 - box.x0, border.y0 - box.y0, box.x1 - border.x1, box.y1 - border.y1];
          expect([sheet, id, Math.max(...out) < 0.5]).toEqual([sheet, id, true]);
          expect([sheet, id, meet(box, title)]).toEqual([sheet, id, false]);
        }
        const were = boxesOf(before);
        const over = standing.flatMap((a, i) =>
          standing.slice(i + 1).flatMap((b, k) => {
            const [wasA, wasB] = [at(were, i), at(were, i + 1 + k)];
            return meet(a.box, b.box) && !meet(wasA.box, wasB.box) ? [`${a.id} ${b.id}`] : [];
          }),
        );
        expect([sheet, over]).toEqual([sheet, []]);
      }
  });

  it("leave as DXF that another reader audits without errors, each line on the layer of its kind", async () => {
    const { errors, fixes, kinds, units: told } = audited(await fileOf(job, "dxf", name));
    expect([errors, fixes, told]).toEqual([0, 0, units]);
    const layers = new Set(Object.keys(kinds).map((key) => key.split(" ")[0]));
    for (const layer of ["OUTLINES", "EDGES", "BALLOONS", "LISTS", "TEXTS", "BORDER"])
      expect(layers).toContain(layer);
  });
});

const PAGE: Page = plainPage({
  id: "p" as Page["id"],
  heading: "Measured",
  paper: "a4",
  lying: false,
  border: false,
  titleBlock: false,
  scale: 1,
});

/** Grey values of a strip of a rendered page, at 20 pixels a millimetre. */
function strip(file: string, [x, y, width, height]: readonly [number, number, number, number]) {
  const out = path.join(folder, "strip");
  const px = (mm: number) => String(Math.round(mm * 20));
  const crop = ["-x", px(x), "-y", px(y), "-W", px(width), "-H", px(height)];
  execFileSync("pdftoppm", ["-r", "508", "-gray", "-singlefile", ...crop, file, out]);
  const bytes = readFileSync(`${out}.pgm`);
  const head = bytes
    .subarray(0, 40)
    .toString("latin1")
    .match(/^P5\s+(\d+)\s+(\d+)\s+255\s/);
  const wide = Number(head?.[1]);
  return { wide, pixels: bytes.subarray(head?.[0].length ?? 0) };
}

describe("a PDF of a page", () => {
  it.each([
    ["a4", 210, 297],
    ["a1", 594, 841],
  ] as const)("on %s is true to scale within 0.05 mm", async (paper, width, height) => {
    // An upright line at either end of 120 mm.
    const rule = (id: string, x: number): PageItem => ({
      id: id as PageItem["id"],
      page: "p",
      kind: "rule",
      at: [x, 50],
      to: [x, 60],
      frame: false,
    });
    const page = { ...PAGE, paper };
    const job = [
      { kind: "setPages", pages: [page] } satisfies Edit,
      { kind: "setPageItems", items: [rule("a", 40), rule("b", 160)] } satisfies Edit,
    ].reduce<Job>((one, edit) => {
      const next = withEdit(one, edit);
      if (!next.ok) throw new Error(sentence(next.problem));
      return next.value;
    }, shelfBrackets());
    const file = await fileOf(job, "pdf", paper);
    const told = execFileSync("pdfinfo", [file], { encoding: "utf8" }).match(
      /Page size:\s+([\d.]+) x ([\d.]+)/,
    );
    expect((Number(told?.[1]) * 25.4) / 72).toBeCloseTo(width, 1);
    expect((Number(told?.[2]) * 25.4) / 72).toBeCloseTo(height, 1);
    const { wide, pixels } = strip(file, [30, 54, 140, 1]);
    const dark = Array.from({ length: wide }, (_, i) => i).filter((i) => at(pixels, 5 * wide + i) < 128);
    const middle = (from: number, to: number) => {
      const own = dark.filter((i) => i >= from && i < to);
      return (at(own, 0) + at(own, own.length - 1) + 1) / 2;
    };
    expect(dark.length).toBeGreaterThan(4);
    const apart = (middle(wide / 2, wide) - middle(0, wide / 2)) / 20;
    expect(Math.abs(apart - 120)).toBeLessThan(0.05);
  });
});
