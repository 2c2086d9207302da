import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { newJob, plainColumn } from "../job";
import { edited, refusal } from "../job/edit.fixture";
import { sentence } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { LIST_COLUMNS, LIST_STARTS, ownList, readSizePattern, startList, tableAsTabs } from ".";
import { columns, groundOf, setup, texts } from "./list.fixture";
import { SIZE_NAMES, writeSize } from "./size-text";

describe("lists by their setup", () => {
  it("order by several columns, numbers by value and what has none last", () => {
    const list = setup({
      columns: columns("name", "length"),
      order: [
        { column: "length", descending: true },
        { column: "name", descending: false },
      ],
    });
    // By hand: 600 and 400 mitred, legs 450 − 20; shelves 520; bought parts have no cut length.
    expect(texts(list)).toEqual([
      ["Rail", "600"],
      ["Shelf", "520"],
      ["Leg", "430"],
      ["End rail", "400"],
      ["Chain", "–"],
      ["Feet", "–"],
      ["Screws", "–"],
    ]);
  });

  it("a buying list adds the rows of one stock up and names the marks that it combines", () => {
    const [, buying] = LIST_STARTS;
    if (!buying) throw new Error("there is one");
    const list = startList(buying, "b", "To buy", 0);
    const table = ownList(list, groundOf(smallFrame()));
    const rows = table.groups.flatMap((group) => group.rows.map((row) => row.cells));
    // By hand: tube 2 · 0.6 + 2 · 0.4 + 2 · 0.43 = 2.86 m; its centre length 2 · 560 + 2 · 360 + 2 · 430 = 2.7 m at 3.30 kg/m.
    const tube = rows.find((cells) => cells["stock"]?.text.startsWith("Square tube"));
    expect([tube?.["count"]?.text, tube?.["net"]?.text, tube?.["measure"]?.text]).toEqual([
      "6",
      "2.860",
      "m",
    ]);
    expect(tube?.["mass"]?.value).toBeWithinMm(2.7 * 3.3, 0.03);
    expect(tube?.["mark"]?.text.split(" ")).toHaveLength(3);
    // Shelves 520 × 320, their front edging of 1 deducted: 2 · 0.520 · 0.319.
    const ply = rows.find((cells) => cells["stock"]?.text === "Birch ply 18");
    expect([ply?.["count"]?.text, ply?.["net"]?.text]).toEqual(["2", "0.332"]);
    // m and m² stand side by side in the total, never added up.
    const [total] = table.foot;
    expect([total?.cells["count"]?.text, total?.cells["net"]?.text]).toEqual(["8", "2.860 m · 0.332 m²"]);
  });

  it("a costed list has subtotals and a total, and a missing price makes both incomplete", () => {
    const costed = LIST_STARTS.find((start) => start.name === "Costed cut list");
    if (!costed) throw new Error("there is one");
    const list = startList(costed, "c", "Costed", 0);
    const whole = ownList(list, groundOf(smallFrame()));
    // Tube 24 for 6 m: 2.86 m at 4.00 is 11.44. Screws 121, so two boxes of 100 at 6.40, feet 2 · 2.35, chain 2 · 0.2 m at 3.20.
    const summaries = Object.fromEntries(whole.groups.map((group) => [group.heading, group.summary]));
    expect(summaries["member"]).toBe("6 pieces · 2.860 m · 11.44 EUR");
    expect(summaries["bought"]).toBe("125 pieces · 0.400 m · 123 each · 18.78 EUR");
    const lath = smallFrame({ members: { lath: { name: "Lath", from: "E", to: "F", section: "lath" } } });
    const short = ownList(list, groundOf(lath));
    expect(short.groups.find((group) => group.heading === "member")?.summary).toContain(
      "incomplete: 11.44 EUR",
    );
    // Sum, edging (whose price is known), waste and total.
    expect(short.foot.map(({ cells }) => cells["cost"]?.text)).toEqual([
      expect.stringMatching(/^incomplete: /),
      "1.68 EUR",
      expect.stringMatching(/^incomplete: /),
      expect.stringMatching(/^incomplete: /),
    ]);
  });

  it("of one assembly counts only what stands in it, nested ones included", () => {
    const job = newJob({
      info: { code: "T", title: "T", batch: 2 },
      panels: { loose: { name: "Panel", board: "ply", length: "300", width: "200" } },
      assemblies: {
        inner: {
          name: "Inner",
          panels: { own: { name: "Panel", board: "ply", length: "300", width: "200" } },
        },
        outer: { name: "Outer" },
      },
      placements: { a: { assembly: "outer" }, b: { assembly: "inner", into: "outer", count: "3" } },
    });
    const list = (assembly: string | null) =>
      setup({ columns: columns("name", "count"), assembly: assembly as never });
    expect(texts(list(null), job)).toEqual([["Panel", "8"]]);
    expect(texts(list("outer"), job)).toEqual([["Panel", "6"]]);
    expect(texts(list("inner"), job)).toEqual([["Panel", "6"]]);
  });

  it("columns have their own heading, order, format; key sizes stand in every row", () => {
    const list = setup({
      kinds: ["member"],
      columns: [
        ...columns("name"),
        {
          ...plainColumn("length"),
          heading: "Saw to",
          align: "centre",
          width: 20,
          format: { kind: "fraction", denominator: 16 },
        },
        ...columns("key:width", "key:nothing", "gone"),
      ],
    });
    const table = ownList(list, groundOf(smallFrame({ info: { code: "T", title: "T", unit: "in" } })));
    expect(table.columns[1]).toEqual({
      id: "length",
      heading: "Saw to",
      align: "centre",
      width: 20,
      writes: { kind: "length", style: { unit: "in", format: { kind: "fraction", denominator: 16 } } },
    });
    const metric = ownList(list, groundOf(smallFrame()));
    const [row] = metric.groups[0]?.rows ?? [];
    expect([
      row?.cells["key:width"]?.text,
      row?.cells["key:nothing"]?.text,
      row?.cells["gone"]?.text,
    ]).toEqual(["600", "missing", "no such column"]);
  });

  it("a panel has its finished size and that of its blank, which the deducted edging makes less", () => {
    // Shelves of 520 × 320 with 1 mm of edging at the front, deducted.
    const list = setup({
      kinds: ["panel", "bought"],
      columns: columns("length", "width", "blankLength", "blankWidth"),
    });
    expect(texts(list).slice(0, 2)).toEqual([
      ["520", "320", "520", "319"],
      ["–", "–", "–", "–"],
    ]);
  });

  it("every column says something for every row: missing and not applicable are told apart from nothing", () => {
    const job = smallFrame({
      members: { bare: { name: "Bare", from: "E", to: "F", section: null } },
      panels: { thin: { name: "Thin", board: null, length: "100", width: "50" } },
    });
    const all = LIST_COLUMNS.map((column) => column.id);
    for (const row of texts(setup({ columns: columns(...all) }), job))
      row.forEach((text, i) => {
        // A silhouette is drawn; a note may have nothing to say.
        if (all[i] !== "silhouette" && all[i] !== "note") expect([all[i], text]).not.toEqual([all[i], ""]);
      });
    const bare = texts(setup({ columns: columns("name", "length", "width", "stock") }), job);
    expect(bare).toContainEqual(["Bare", "missing", "–", "missing"]);
    expect(bare).toContainEqual(["Thin", "100", "50", "missing"]);
  });

  it("adding a group's counts up gives the tally's own, whatever the columns and the grouping", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("stock", "kind", "name", "material", "length", null),
        fc.boolean(),
        fc.subarray(["member", "panel", "bought"] as const, { minLength: 1 }),
        (groupBy, showRows, kinds) => {
          const job = smallFrame();
          const list = setup({ columns: columns("count"), groupBy, showRows, kinds: [...kinds] });
          const { tally } = resultsOf(job);
          const expected = tally.rows
            .filter((row) => (kinds as readonly string[]).includes(row.kind))
            .reduce((sum, row) => sum + row.count, 0);
          const found = texts(list, job).reduce((sum, [count]) => sum + Number(count), 0);
          expect(found).toBe(expected);
        },
      ),
      { numRuns: lawRuns(40) },
    );
  });
});

describe("size texts", () => {
  it("follow the shop's order, for panels and members apart", () => {
    const list = setup({
      kinds: ["member", "panel"],
      columns: columns("name", "size"),
      sizeOfPanel: "{thickness} x {width} x {length}",
      sizeOfMember: "{stock}: {length} lg",
    });
    expect(texts(list)).toContainEqual(["Shelf", "18 x 320 x 520"]);
    expect(texts(list)).toContainEqual(["Rail", "Square tube 40 × 40 × 3: 600 lg"]);
  });

  it("write lengths as their own column does, whatever other columns do, and say what is computed", () => {
    const list = setup({
      kinds: ["panel"],
      columns: [
        { ...plainColumn("length"), unit: "in", format: { kind: "fraction", denominator: 16 } },
        { ...plainColumn("size"), unit: "cm", format: { kind: "decimal", places: 1, trailingZeros: false } },
      ],
    });
    expect(texts(list)).toEqual([["≈20 1/2", "52 × 32 × 1.8"]]);
  });

  it.each([
    ["{length", "has an unmatched { or }"],
    ["length}", "has an unmatched { or }"],
    ["{lenght}", "uses {lenght}, which it does not know"],
    ["{}", "uses {}, which it does not know"],
  ])("%s is refused with a sentence", (text, words) => {
    const read = readSizePattern(text);
    expect(read.ok ? "" : sentence(read.problem)).toContain(words);
  });

  it("what is written between the braces stays, and each value stands in its place", () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.constantFrom(...SIZE_NAMES), fc.stringMatching(/^[ a-z×.,]{1,6}$/)), {
          maxLength: 8,
        }),
        (parts) => {
          const isName = (part: string) => (SIZE_NAMES as readonly string[]).includes(part);
          const text = parts.map((part) => (isName(part) ? `{${part}}` : part)).join("");
          const read = readSizePattern(text);
          if (!read.ok) throw new Error(sentence(read.problem));
          expect(writeSize(read.value, (name) => `<${name}>`)).toBe(
            parts.map((part) => (isName(part) ? `<${part}>` : part)).join(""),
          );
        },
      ),
    );
  });
});

describe("a table as text", () => {
  it("parts cells by tabs, numbers as they are, what does not apply empty", () => {
    const list = setup({
      kinds: ["panel", "bought"],
      columns: columns("name", "count", "length"),
      groupBy: "kind",
    });
    const table = ownList(list, groundOf(smallFrame()));
    expect(
      tableAsTabs(table)
        .split("\n")
        .map((line) => line.split("\t")),
    ).toEqual([
      ["Kind", "Name", "Count", "Cut length"],
      ["panel", "Shelf", "2", "520"],
      ["bought", "Screws", "121", ""],
      ["bought", "Feet", "2", ""],
      ["bought", "Chain", "2", ""],
    ]);
  });
});

describe("lists in the job", () => {
  it("have names of their own; another setup replaces the one before, and one can be removed", () => {
    const list = setup({});
    const job = edited({ kind: "setList", list }, smallFrame());
    expect(refusal({ kind: "setList", list: setup({ id: "other" as never }) }, job)).toContain(
      'There is already a list "List"',
    );
    const changed = edited({ kind: "setList", list: setup({ name: "Saw list" }) }, job);
    expect(Object.values(changed.lists).map(({ name }) => name)).toEqual(["Saw list"]);
    expect(edited({ kind: "removeList", id: "list" }, changed).lists).toEqual({});
  });
});
