import { describe, expect, it } from "vitest";
import { withEdit } from "@/core/job";
import { createPipeline } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { balances } from "@/core/tally";
import { noticeBoard } from "./notice-board";
import { pottingBench } from "./potting-bench";
import { seedPacketCabinet } from "./seed-packet-cabinet";
import { shelfBrackets } from "./shelf-brackets";
import { demoStockroom } from "./stockroom";

const stockroom = stockroomOf(demoStockroom);
const results = (job: ReturnType<typeof pottingBench>) => createPipeline()(job, null, stockroom, []);

describe("demo jobs", () => {
  it("the potting bench is computed whole, balances, and shows its one near twin with a fix", () => {
    const { tally, shape } = results(pottingBench());
    expect(shape.uncomputed).toEqual([]);
    expect(balances(tally.balance)).toBe(true);
    expect(tally.checks.map((check) => check.kind)).toEqual(["nearTwins"]);
    expect(tally.checks[0]?.fix?.label).toBe("Join points");
    const lengths = Object.fromEntries(
      tally.rows
        .filter((row) => row.shown.form.kind === "member")
        .map((row) => [
          `${row.name} ${row.count}`,
          row.shown.form.kind === "member" ? row.shown.form.cutNm / 1e6 : 0,
        ]),
    );
    // By hand: ring 1400 × 600 mitred; 850 − 40; rear legs 850, posts 650 above them; 1400 − 2 × 40; 600 − 40;
    // 600 − 40. The hanging rail: 1360 between the axes less two 90° copes of 17.3003 (section 8 of the design).
    expect(lengths).toEqual({
      "Front leg 2": 810,
      "Rear leg 2": 850,
      "Rear post 2": 650,
      "Hanging rail 1": expect.closeTo(1360 - 2 * 17.3003, 3),
      "Top rail 2": 1400,
      "Top end rail 2": 600,
      "Low rail 2": 1320,
      "Low end rail 2": 560,
      "Shelf rail 2": 560,
      "Shelf slat 4": 1380,
      "Shelf slat 1": 1377.5,
    });
    expect(tally.rows.find((row) => row.name === "Tray side")?.hands).toEqual({ asDrawn: 1, opposite: 1 });
  });

  it("the bench without its tray has five panels and its chain less", () => {
    const job = pottingBench();
    const without = withEdit(job, { kind: "setKeySize", id: "size-with_tray", formula: "no", variant: null });
    if (!without.ok) throw new Error("the tray goes");
    const [whole, rest] = [results(job).tally.balance, results(without.value).tally.balance];
    expect([whole.inRows - rest.inRows, whole.bought - rest.bought]).toEqual([5, 2]);
  });

  it("the seed-packet cabinet counts through its rows, is handed where it is mirrored, and its shelf follows its sides", () => {
    const { tally, shape } = results(seedPacketCabinet());
    expect(shape.uncomputed).toEqual([]);
    expect(tally.checks).toEqual([]);
    expect(balances(tally.balance)).toBe(true);
    const sizes = Object.fromEntries(
      tally.rows.flatMap(({ name, hands, shown: { form } }) =>
        form.kind === "panel"
          ? [[name, [hands.asDrawn, hands.opposite, form.lengthNm / 1e6, form.widthNm / 1e6]]]
          : [],
      ),
    );
    // By hand, 620 × 900 × 320 in 18 mm: clear inside 584; grooves 6; 4 rows of 3 drawers; drawer (584 − 4·2)/3 = 192
    // wide, 270 deep, 82 high in 12 mm; doors up to 900 − 18 − 4·102 = 474, each 620/2 − 2 wide, 2 short above and below.
    expect(sizes).toEqual({
      Side: [1, 1, 900, 320],
      Bottom: [2, 0, 584 + 12, 320],
      Shelf: [1, 0, 584 + 12, 320 - 20 - 16],
      Back: [1, 0, 900 - 36 + 12, 584 + 12],
      "Row shelf": [4, 0, 583, 320 - 36],
      "Drawer side": [24, 0, 270, 82],
      "Drawer front": [24, 0, 192 - 24, 82],
      "Drawer bottom": [12, 0, 192 - 14, 270 - 14],
      "Door leaf": [1, 1, 474 - 4, 308],
    });
    const bought = Object.fromEntries(
      tally.rows.filter((row) => row.kind === "bought").map((row) => [row.name, row.count]),
    );
    expect(bought).toEqual({
      Screws: 8 * 12 + 4 * 2,
      "Cup hinge": 4,
      Knob: 12 + 2,
      "Label frame": 12,
      "Shelf pin": 16,
    });
  });

  it("the cabinet's variants: six rows, and no doors below", () => {
    const counts = (id: string) =>
      Object.fromEntries(
        createPipeline()(seedPacketCabinet(), id as never, stockroom, []).tally.rows.map((row) => [
          row.name,
          row.count,
        ]),
      );
    expect(counts("tall")).toMatchObject({ "Row shelf": 6, "Drawer bottom": 18, "Shelf pin": 24 });
    expect(counts("open")["Door leaf"]).toBeUndefined();
    expect(counts("open")["Cup hinge"]).toBeUndefined();
  });

  it("the notice board is computed whole in inches, for a batch of two", () => {
    const { tally, shape, cutList } = results(noticeBoard());
    expect(shape.uncomputed).toEqual([]);
    expect(tally.checks).toEqual([]);
    const rows = cutList.groups.flatMap((group) =>
      group.rows.map((row) => [
        row.cells["name"]?.text,
        row.cells["count"]?.text,
        row.cells["length"]?.text,
        row.cells["stand"]?.text,
      ]),
    );
    // By hand: 84 + 30; between faces 48 + 4; 48 and 36 on the long edge of the mitred frame.
    expect(rows).toContainEqual(["Leg", "4", "114", "square"]);
    expect(rows).toContainEqual(["Rail", "4", "52", "square"]);
    expect(rows).toContainEqual(["Frame board", "4", "48", "opposed"]);
    expect(rows).toContainEqual(["Frame side board", "4", "36", "opposed"]);
    // Placed on the left leg and mirrored on the right, in a batch of two; neither piece has a hand.
    expect(rows).toContainEqual(["Ledge back", "4", "8", "grain long"]);
    expect(rows).toContainEqual(["Ledge", "4", "8", "grain long"]);
    expect(tally.rows.find((row) => row.name === "Ledge back")?.hands).toEqual({ asDrawn: 4, opposite: 0 });
    expect(rows.find(([name]) => name === "Knee brace")?.slice(0, 2)).toEqual(["Knee brace", "4"]);
    expect(balances(tally.balance)).toBe(true);
  });

  it("the shelf brackets are computed whole; their plates have the areas that were worked out by hand", () => {
    const { tally, shape, quantities, tasks } = results(shelfBrackets());
    expect(shape.uncomputed).toEqual([]);
    expect([...shape.checks, ...tally.checks]).toEqual([]);
    expect(balances(tally.balance)).toBe(true);
    expect(tasks.map(({ kind }) => kind)).toEqual(["bars", "shapes"]);
    const areas = Object.fromEntries(shape.panels.map(({ panel, outline }) => [panel.name, outline?.area]));
    // The gusset's legs are 0.4 · 320 = 128: a square less the triangle between its two blunt ends of 20, less the snip.
    expect(areas["Gusset"]).toBeCloseTo(128 ** 2 - (128 - 20) ** 2 / 2 - 12 ** 2 / 2, 6);
    expect(areas["Lug"]).toBeCloseTo(40 * 35 + (Math.PI * 20 ** 2) / 2, 6);
    expect(areas["Wall plate"]).toBeCloseTo(360 * 100 - (4 - Math.PI) * 15 ** 2, 6);
    const mass = quantities.lines.find(({ name }) => name === "Steel plate 6")?.massKg ?? 0;
    const sum = Object.values(areas).reduce<number>((all, area) => all + (area ?? 0), 0);
    expect(mass).toBeCloseTo(12 * sum * 6 * 7850e-9, 6);
  });
});
