/** Perforated pieces: what was drilled in rows comes back in rows, whatever number of holes there are. */
import { describe, expect, it } from "vitest";
import { modelOf } from "@/core/brep";
import { imported } from "@/core/imports";
import { emptyJob, NO_ASSETS, newJob, panelHolesInRows, type Work, withEdit } from "@/core/job";
import { seededRandom } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import { loadStepReader } from "@/engines/step-reader";
import { foundInStep } from "./read";
import { STOCKROOM } from "./round-trip.fixture";
import { writeStep } from "./write";

const reader = await loadStepReader();

const hole = (
  id: string,
  x: string,
  y: string,
  more: Partial<Extract<Work, { kind: "hole" }>> = {},
): Work => ({
  id,
  kind: "hole",
  face: "good",
  x,
  y,
  diameter: "5",
  depth: null,
  count: "1",
  step: "0",
  along: "length",
  ...more,
});

describe("holes at even steps", () => {
  it("are rows along either way; three are none, and holes of another size stay by themselves", () => {
    const line = Array.from({ length: 6 }, (_, i) => hole(`a${i}`, String(40 + 32 * i), "37"));
    const upright = Array.from({ length: 5 }, (_, i) => hole(`b${i}`, "300", String(50 + 25.4 * i)));
    const three = Array.from({ length: 3 }, (_, i) => hole(`c${i}`, String(400 + 50 * i), "300"));
    const large = hole("d", "232", "37", { diameter: "8" });
    const rows = panelHolesInRows([...line, large, ...upright, ...three], "mm");
    expect(rows).toEqual([
      { ...line[0], count: "6", step: "32" },
      large,
      { ...upright[0], count: "5", step: "25.4", along: "width" },
      ...three,
    ]);
  });

  it("read with rounding are the row that was meant; a hole beside its place is none of it", () => {
    const random = seededRandom(4);
    const line = Array.from({ length: 60 }, (_, i) =>
      hole(`a${i}`, (20 + 12.5 * i + (random.next() - 0.5) * 2e-4).toFixed(4), "9"),
    );
    expect(panelHolesInRows(line, "mm")).toMatchObject([{ count: "60" }]);
    const off = line.map((one, i) => (i === 30 && one.kind === "hole" ? { ...one, x: "395.1" } : one));
    const rows = panelHolesInRows(off, "mm");
    expect(rows.map((one) => (one.kind === "hole" ? one.count : ""))).toEqual(["30", "1", "29"]);
  });
});

it("a side with 120 holes and a rail with 60 come back with as many, in rows", () => {
  const row = (id: string, y: string) => hole(id, "20", y, { count: "60", step: "10" });
  const job = newJob({
    info: { code: "P", title: "Perforated" },
    points: { A: ["0", "0", "500"], B: ["2000", "0", "500"] },
    panels: {
      p: {
        name: "Side",
        board: "ply",
        length: "800",
        width: "200",
        work: [row("a", "40"), row("b", "150.5")],
      },
    },
    members: {
      m: {
        name: "Rail",
        from: "A",
        to: "B",
        section: "section0",
        work: [
          {
            id: "h",
            kind: "hole",
            face: "top",
            from: "start",
            along: "50",
            across: "0",
            diameter: "8",
            slot: "0",
            walls: "one",
            count: "60",
            step: "30",
          },
        ],
      },
    },
  });
  const { shape } = createPipeline()(job, null, STOCKROOM, []);
  const text = writeStep(modelOf(job, shape, NO_ASSETS), { name: "x", made: new Date(0), shop: "" });
  const found = foundInStep("x.step", new TextEncoder().encode(text), reader);
  if (!found.ok) throw new Error("not read");
  const into = emptyJob({ code: "B", title: "Back", unit: "mm" });
  let count = 0;
  const entered = imported(found.value, {}, into, STOCKROOM, (kind) => `${kind}${++count}`);
  const after = withEdit(into, entered.edit);
  if (!after.ok) throw new Error("refused");
  const [panel] = Object.values(after.value.panels);
  const [member] = Object.values(after.value.members);
  expect(panel?.work.map((one) => one.kind === "hole" && [one.count, one.step])).toEqual([
    ["60", "10"],
    ["60", "10"],
  ]);
  expect(member?.work.map((one) => one.kind === "hole" && [one.count, one.step])).toEqual([["60", "30"]]);
  const back = createPipeline()(after.value, null, entered.stockroom, []).shape;
  expect(back.panels[0]?.holes).toHaveLength(120);
});
