/** What the fields of the stockroom take and refuse. */
import { describe, expect, it } from "vitest";
import { type AnyEntry, COLUMNS, layoutColumns, priceFault } from "./entry-columns";
import { type EntryFault, entryFaultWords } from "./entry-fault";
import { newEntry, newSection } from "./new-entry";

const made = newSection("square tube 40 x 40 x 3");
if (!made.ok) throw new Error("it can be read");
const tube: AnyEntry = made.value;

function written(id: string, text: string, entry: AnyEntry = tube): unknown {
  const columns = [...COLUMNS.section, ...layoutColumns("section", entry)];
  const column = columns.find((one) => one.id === id);
  const done = column?.write(entry, text, "mm");
  return done?.ok ? (done.value as Record<string, unknown>)[id] : done?.problem;
}

describe("the fields of a section", () => {
  it("take lengths in any notation, numbers and nothing where that is meant", () => {
    expect(written("kerf", "1/8 in")).toBeCloseTo(3.175, 9);
    expect([written("densityKgM3", "7850"), written("densityKgM3", " ")]).toEqual([7850, null]);
    expect(written("material", " ")).toBeNull();
  });

  it.each<[string, string, EntryFault]>([
    ["name", " ", { kind: "noName" }],
    ["name", "x".repeat(81), { kind: "tooLong", most: 80 }],
    ["kerf", "-1", { kind: "negative" }],
    ["densityKgM3", "heavy", { kind: "notANumber", text: "heavy" }],
    ["shape", "something", { kind: "unknownSection", in: "field" }],
  ])("%s refuses %j with a reason", (id, text, fault) => {
    expect(written(id, text)).toEqual(fault);
    expect(entryFaultWords(fault)).toMatch(/\.$/);
  });

  it("a wall that is thicker than its tube cannot be", () => {
    expect(written("shape", "square tube 40 x 40 x 30")).toEqual({
      kind: "impossibleSection",
      why: "wallFillsTube",
    });
  });
});

describe("new entries", () => {
  it("of sections say their kind and sizes by their name, in inches where it does", () => {
    expect(newSection("angle 2 x 2 x 1/8 in")).toMatchObject({ ok: true, value: { unit: "in" } });
    expect(newSection("a nice bar")).toEqual({ ok: false, problem: { kind: "unknownSection", in: "name" } });
  });

  it("of boards are as thick as boards usually are in their unit", () => {
    expect(newEntry("board", "Ply")).toMatchObject({ value: { thickness: 18 } });
    expect(newEntry("board", 'Ply 3/4"')).toMatchObject({ value: { thickness: 19.05 } });
  });

  it("with a price by mass need a mass", () => {
    const timber = newSection("timber 88 x 18");
    if (!timber.ok) throw new Error("it can be read");
    const stock = [{ length: 6000, price: 3, per: "kg", count: null }] as const;
    expect(priceFault({ ...timber.value, stock: [...stock] } as AnyEntry)).toEqual({
      kind: "massNeeded",
      of: "section",
    });
    const known = { ...timber.value, densityKgM3: 590, stock: [...stock] } as AnyEntry;
    expect(priceFault(known)).toBeNull();
  });
});
