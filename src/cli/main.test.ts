import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { pathToFileURL } from "node:url";
import { describe, expect, it } from "vitest";
import { NO_ASSETS, withEdit } from "@/core/job";
import { LIST_STARTS, startList } from "@/core/lists";
import { stockroomOf } from "@/core/stockroom";
import { writeJobFile } from "@/formats/job-file";
import { withPages } from "../../demo/pages";
import { pottingBench } from "../../demo/potting-bench";
import { demoStockroom } from "../../demo/stockroom";
import { answer } from "./main";

const folder = mkdtempSync(path.join(tmpdir(), "tally-cli-"));
const file = (name: string, content: string) => {
  const place = path.join(folder, name);
  writeFileSync(place, content);
  return place;
};
/** A command in this process; one test below starts the program itself. */
async function run(...words: string[]) {
  const said = await answer(words);
  const stdout = typeof said.stdout === "string" ? said.stdout : new TextDecoder().decode(said.stdout);
  return { status: said.code, stdout, stderr: said.stderr, json: () => JSON.parse(stdout) };
}

describe("rustic-tally", () => {
  it("draw: the pages of a job file as PDF, one as SVG or DXF; a page that is not there is told", async () => {
    const stockroom = stockroomOf(demoStockroom);
    const job = file(
      "pages.tally.json",
      writeJobFile(withPages(pottingBench(), stockroom), stockroom, { assets: NO_ASSETS }),
    );
    const pdf = await run("draw", job);
    expect([pdf.status, pdf.stdout.slice(0, 5)]).toEqual([0, "%PDF-"]);
    const svg = await run("draw", job, "--page", "General view", "--format", "svg");
    expect(svg.stdout).toContain("Hanging rail");
    const dxf = await run("draw", job, "--page", "Frame, three views", "--format", "dxf");
    expect(dxf.stdout).toContain("OUTLINES");
    expect((await run("draw", job, "--format", "dxf")).stderr).toContain(
      "dxf holds one page; say which with --page",
    );
    expect((await run("draw", job, "--page", "Roof")).stderr).toContain(
      'there is no page "Roof"; there are General view',
    );
    const bare = file("bare.tally.json", writeJobFile(pottingBench(), stockroom, { assets: NO_ASSETS }));
    expect(await run("draw", bare)).toMatchObject({
      status: 2,
      stderr: "rustic-tally: the job has no pages",
    });
    // With what the set still needs there are pages, and a card and a template of the coped rail among them.
    const card = await run("draw", bare, "--set", "whole", "--page", "Template G", "--format", "svg");
    expect(card.stdout).toContain("Print at 100 %");
  });

  it("tally: a job file as JSON and CSV", async () => {
    const job = file(
      "bench.tally.json",
      writeJobFile(pottingBench(), stockroomOf(demoStockroom), { assets: NO_ASSETS }),
    );
    const asJson = await run("tally", job, "--format", "json");
    expect(asJson.status).toBe(0);
    const { rows, balance } = asJson.json();
    expect(rows.find((row: { name: string }) => row.name === "Top rail")).toMatchObject({
      kind: "member",
      count: 2,
      hands: { asDrawn: 2, opposite: 0 },
      section: { kind: "squareTube", size: [40, 40, 3] },
      material: "S235",
      length: 1400,
      ends: [
        { kind: "plane", angle: 45 },
        { kind: "plane", angle: 45 },
      ],
      stand: "opposed",
      typed: false,
    });
    expect(balance.design).toBe(balance.inRows + balance.bought + balance.leftOut);
    const asCsv = await run("tally", job, "--list", "cut", "--format", "csv");
    expect(asCsv.stdout.split("\r\n")[0]).toBe(
      "Stock,Material,Mark,Name,Count,Cut length (mm),Width (mm),Thick (mm),End 1 °,End 2 °,End direction,Note,Grain,Edging",
    );
    expect((await run("tally", job, "--variant", "1000 wide")).stdout).toContain('"length": 1000');
  });

  it("tally: a list of the job's own by its name, capitals or not; a name that is none says which there are", async () => {
    const [, buying] = LIST_STARTS;
    if (!buying) throw new Error("there is one");
    const job = withEdit(pottingBench(), { kind: "setList", list: startList(buying, "own", "To buy", 0) });
    if (!job.ok) throw new Error("the list is fine");
    const path = file(
      "own.tally.json",
      writeJobFile(job.value, stockroomOf(demoStockroom), { assets: NO_ASSETS }),
    );
    const own = await run("tally", path, "--list", "to BUY", "--format", "csv");
    expect(own.stdout.split("\r\n")[0]).toBe("Stock,Material,Mark,Count,Net,In,kg");
    expect(own.stdout).toMatch(/Square tube 40 × 40 × 3,S235,[A-Z ]+,12,11\.080,m,/);
    const table = JSON.parse((await run("tally", path, "--list", "To buy", "--format", "json")).stdout);
    expect([table.title, table.job.code]).toEqual(["To buy", "HL-204"]);
    expect(table.columns.map((column: { id: string }) => column.id).slice(0, 3)).toEqual([
      "stock",
      "material",
      "mark",
    ]);
    const svg = await run("tally", path, "--list", "to buy", "--format", "svg");
    expect(svg.stdout).toContain("<svg ");
    const sheet = await run("tally", path, "--list", "To buy", "--format", "xlsx");
    expect([sheet.status, sheet.stdout.slice(0, 2)]).toEqual([0, "PK"]);
    const none = await run("tally", path, "--list", "nothing", "--format", "csv");
    expect([none.status, none.stderr]).toEqual([2, expect.stringContaining("there are cut, buying, To buy")]);
  });

  it("tally: a cutting list; unreadable rows are checks, the good ones are printed, exit 1", async () => {
    const list = file(
      "list.csv",
      "Mark;Name;Qty;Length;Section\nA;Rail;2;1200;SHS 40 x 40 x 3\nB;Post;1,5;900;SHS 40 x 40 x 3\n",
    );
    const result = await run("tally", list);
    expect(result.status).toBe(1);
    const { rows, checks } = result.json();
    expect(rows).toHaveLength(1);
    expect(rows[0]).toMatchObject({
      mark: "A",
      count: 2,
      length: 1200,
      section: { kind: "squareTube", size: [40, 40, 3] },
      typed: true,
      pieces: ["T1", "T1#2"],
    });
    expect(checks[0]).toMatchObject({
      kind: "unreadableRow",
      row: 3,
      text: "B | Post | 1,5 | 900 | SHS 40 x 40 x 3",
    });
    expect(result.stderr).toContain("--unit");
  });

  it("check: exit 1 when there is something to look at", async () => {
    const job = file(
      "bench2.tally.json",
      writeJobFile(pottingBench(), stockroomOf(demoStockroom), { assets: NO_ASSETS }),
    );
    const result = await run("check", job);
    expect(result.status).toBe(1);
    expect(result.json().checks[0].kind).toBe("nearTwins");
  });

  it("bars and sheets: the formats of docs/formats.md", async () => {
    const bars = await run(
      "bars",
      file(
        "bars.json",
        JSON.stringify({
          kerf: 2.5,
          trim: 5,
          stock: [{ length: 6000, price: 21.6, count: null }],
          pieces: [
            { length: 1200, qty: 4 },
            { length: 7000, qty: 1 },
          ],
        }),
      ),
    );
    expect(bars.status).toBe(1);
    expect(bars.json()).toMatchObject({
      bars: [{ stock: 0, times: 1, pieces: [0, 0, 0, 0], remainder: 1180 }],
      cost: 21.6,
      count: 1,
      lowerBound: 21.6,
      proven: true,
      unplaced: [{ piece: 1, qty: 1 }],
    });
    const sheets = await run(
      "sheets",
      file(
        "sheets.json",
        JSON.stringify({
          kerf: 3.2,
          trim: 10,
          stages: null,
          stock: [{ length: 2440, width: 1220, price: 54, count: null, grain: "length" }],
          panels: [{ length: 720, width: 400, qty: 2, grain: true }],
        }),
      ),
      "--seconds",
      "1",
    );
    expect(sheets.status).toBe(0);
    expect(sheets.json()).toMatchObject({ count: 1, cost: 54, proven: true, unplaced: [] });
  });

  it("nested shapes lie where the answer says; locks that cannot be are a sentence", async () => {
    const gusset = [
      [0, 0],
      [100, 0],
      [0, 100],
    ];
    const shapes = await run(
      "shapes",
      file(
        "shapes.json",
        JSON.stringify({
          gap: 3,
          margin: 8,
          stock: [{ length: 300, width: 200, price: 9 }],
          shapes: [{ outline: gusset, qty: 4 }],
        }),
      ),
      "--seconds",
      "1",
    );
    expect(shapes.status).toBe(0);
    expect(shapes.json()).toMatchObject({ count: 1, cost: 9, proven: true });
    const bars = await run(
      "bars",
      file(
        "locked.json",
        JSON.stringify({
          kerf: 2,
          stock: [{ length: 1000 }],
          pieces: [{ length: 600, qty: 2 }],
          fixed: [
            {
              stock: 0,
              pieces: [
                { piece: 0, place: 0 },
                { piece: 0, place: 1 },
              ],
            },
          ],
        }),
      ),
    );
    expect(bars.status).toBe(2);
    expect(bars.stderr).toContain(
      "its locked pieces are not possible: on bar 1 they are 202 mm too long together",
    );
  });

  it.each([
    [[]],
    [["dance"]],
    [["constructor", "a.csv"]],
    [["tally"]],
    [["tally", "nowhere.csv"]],
    [["tally", "a.csv", "b.csv"]],
    [["bars", file("broken.json", "{")]],
    [["bars", file("negative.json", '{"kerf":-1,"stock":[],"pieces":[]}')]],
    [["sheets", file("nan.json", '{"kerf":0,"stock":[],"panels":[{"length":"x","width":1,"qty":1}]}')]],
    [["tally", file("empty.csv", "")]],
    [["tally", file("odd.tally.json", "[]")]],
    [["tally", file("twice.csv", "Name,Length,Length\nA,1,2\n")]],
    [["tally", file("fine.csv", "Name,Length\nA,1\n"), "--unit", "cubit"]],
  ])("exit 2 and one line on bad use or a malformed file: %j", async (words) => {
    const result = await run(...words);
    expect(result.status).toBe(2);
    expect(result.stdout).toBe("");
    if (words.length > 0) expect(result.stderr.trim().split("\n")).toHaveLength(1);
    expect(result.stderr).not.toContain("    at ");
  });

  it("the program itself writes the answer and ends with its code", () => {
    const list = file("one.csv", "Name,Length\nA,1\n");
    const start = (...words: string[]) =>
      spawnSync(process.execPath, ["bin/rustic-tally.mjs", ...words], { encoding: "utf8" });
    const [good, bad] = [start("tally", list, "--unit", "mm"), start("dance")];
    expect([good.status, JSON.parse(good.stdout).rows.length]).toEqual([0, 1]);
    expect([bad.status, bad.stdout]).toEqual([2, ""]);
    expect(bad.stderr).toMatch(/^rustic-tally: unknown command "dance".*\n$/);
  });

  it("the sources that a start puts together are those of the moment, each where it stands", () => {
    const source = "node_modules/.cache/rustic-tally-test.ts";
    const start = () => {
      const code = `import { fromSources } from "./bin/sources.mjs";
        const { value, place } = await fromSources("${source}"); console.log(value, place);`;
      return spawnSync(process.execPath, ["--input-type=module", "-e", code], { encoding: "utf8" }).stdout;
    };
    mkdirSync("node_modules/.cache", { recursive: true });
    for (const value of [1, 1, 22]) {
      writeFileSync(source, `export const value: number = ${value}; export const place = import.meta.url;`);
      expect(start()).toBe(`${value} ${pathToFileURL(source).href}\n`);
    }
    rmSync(source);
  });
});
