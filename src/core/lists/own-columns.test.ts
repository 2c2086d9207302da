import { describe, expect, it } from "vitest";
import { plainColumn } from "../job";
import { edited, refusal } from "../job/edit.fixture";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import { renumber } from "../tally";
import { ownList, tableAsTabs } from ".";
import { cellIn, columns, groundOf, made, own, setup, texts, value } from "./list.fixture";

const _withList = (list = setup({})) => edited({ kind: "setList", list }, smallFrame());

describe("own columns", () => {
  const job = made(smallFrame(), own("Finish"), value("finish", ["front", "back"], "oiled"));

  it("have values for single marks, and say where there is none", () => {
    const list = setup({ kinds: ["member"], columns: columns("name", "own:finish") });
    const table = ownList(list, groundOf(job));
    expect(texts(list, job)).toEqual([
      ["Rail", "oiled"],
      ["Leg", "not set"],
      ["End rail", "not set"],
    ]);
    expect(table.notes).toContain("Finish is not set in 2 rows.");
    expect(tableAsTabs(table).split("\n")[2]).toBe("Leg\t");
  });

  it("have one value for all, which single ones go before", () => {
    const all = edited(own("Finish", { forAll: "raw" }), job);
    expect(texts(setup({ kinds: ["member"], columns: columns("own:finish") }), all)).toEqual([
      ["oiled"],
      ["raw"],
      ["raw"],
    ]);
  });

  it("keep their values through new marks, and give them along to pieces that leave the row", () => {
    const { tally } = resultsOf(job);
    const numbered = renumber(job, tally, {
      style: "numbers",
      start: 7,
      step: 2,
      order: "listed",
      prefix: { member: "", panel: "", other: "" },
    });
    if (!numbered.ok) throw new Error("it can be");
    const list = setup({ kinds: ["member"], columns: columns("mark", "own:finish") });
    expect(texts(list, edited(numbered.value, job))[0]).toEqual(["7", "oiled"]);
    const apart = edited(
      { kind: "changeMembers", ids: ["back"], set: { start: { kind: "square", offset: "-7", past: null } } },
      job,
    );
    expect(texts(list, apart).filter(([, finish]) => finish === "oiled")).toHaveLength(2);
  });

  it("read lengths and numbers, and refuse what is none of their kind", () => {
    const typed = made(
      smallFrame(),
      own("Gap", { kind: "length" }),
      own("Price", { kind: "number" }),
      own("Where", { kind: "choice", choices: ["top", "foot"] }),
      own("Sheet", { kind: "link" }),
      value("gap", ["front", "back"], '1 1/2"'),
      value("price", ["front", "back"], "2,50"),
      value("where", ["front", "back"], "top"),
      value("sheet", ["front", "back"], "https://example.org/rail"),
    );
    const list = setup({
      marks: ["A"],
      columns: [
        { ...plainColumn("own:gap"), unit: "in", format: { kind: "fraction", denominator: 16 } },
        ...columns("own:price", "own:where", "own:sheet"),
      ],
    });
    const table = ownList(list, groundOf(typed));
    expect(texts(list, typed)).toEqual([["1 1/2", "2,50", "top", "https://example.org/rail"]]);
    expect(cellIn(table, "front", "own:gap")?.value).toBeWithinMm(38.1, 1e-9);
    expect(cellIn(table, "front", "own:price")?.value).toBe(2.5);
    expect(cellIn(table, "front", "own:sheet")?.link).toBe("https://example.org/rail");
    // A column of texts that becomes one of links makes no link of what may not be followed.
    const text = made(
      smallFrame(),
      own("Sheet", { kind: "text" }),
      value("sheet", ["front", "back"], "javascript:alert(1)"),
    );
    const turned = made(text, own("Sheet", { kind: "link" }));
    const linked = cellIn(
      ownList({ ...list, columns: columns("own:sheet") }, groundOf(turned)),
      "front",
      "own:sheet",
    );
    expect([linked?.text, linked?.link]).toEqual(["javascript:alert(1)", undefined]);
    for (const bad of [
      "javascript:alert(1)",
      "data:text/html,x",
      "file:///etc/passwd",
      "https://a b",
      " //x",
    ])
      expect(refusal(value("sheet", ["front", "back"], bad), typed)).toContain("must start with");
    expect(refusal(value("gap", ["front", "back"], "wide"), typed)).toContain("wide");
    expect(refusal(value("price", ["front", "back"], "1,400"), typed)).toContain("must be a number");
    expect(refusal(value("where", ["front", "back"], "side"), typed)).toContain("must be one of top, foot");
    expect(refusal(value("sheet", ["front", "back"], "javascript:alert(1)"), typed)).toContain(
      "must start with",
    );
  });

  it("compute over other columns, lengths in the job's unit; what one lacks, the formula lacks", () => {
    const typed = made(
      smallFrame(),
      own("Apiece", { kind: "number" }),
      own("Whole", { kind: "formula", formula: "{Count} * {apiece} + {cut length} / width" }),
      own("Twice", { kind: "formula", formula: 'if({material} == "S235", {WHOLE} * 2, 0)' }),
      value("apiece", ["front", "back"], "2.5"),
    );
    const list = setup({ kinds: ["member"], columns: columns("name", "own:whole", "own:twice") });
    // 2 · 2.5 + 600 / 600.
    expect(texts(list, typed)).toEqual([
      ["Rail", "6", "12"],
      ["Leg", "missing", "missing"],
      ["End rail", "missing", "missing"],
    ]);
  });

  it("have one name however it is typed, and are called by the new one wherever braces name them", () => {
    const job = made(
      smallFrame(),
      own("Paint code"),
      own("Line", { kind: "formula", formula: "{paint-code} == 5" }),
    );
    expect(refusal({ ...own("PAINT  CODE", { id: "other" as never }) }, job)).toContain(
      'is the column "Paint code"',
    );
    expect(refusal(own("cut LENGTH"), job)).toContain("is that of a computed column");
    expect(refusal(own("…"), job)).toContain("needs a letter or a digit");
    const list = setup({ sizeOfMember: "{length} {PaintCode}" });
    const renamed = made(job, { kind: "setList", list }, own("Colour", { id: "paint-code" as never }));
    expect(renamed.ownColumns["line"]?.formula).toBe("{Colour} == 5");
    expect(renamed.lists["list"]?.sizeOfMember).toBe("{length} {Colour}");
    expect(
      texts({ ...list, sizeOfMember: "{length} {colour}", columns: columns("size"), marks: ["A"] }, renamed),
    ).toEqual([["–"]]);
  });

  it.each([
    ["{nothing} + 1", "names {nothing}, which is no column"],
    ["{count} + price", "names price, which is no key size"],
    ["{count", "has an unmatched { or }"],
    ["{self} + 1", "refers to itself"],
    ["{count} +", "cannot be read"],
  ])("the formula %s is refused with a sentence", (formula, words) => {
    expect(refusal(own("Self", { kind: "formula", formula }))).toContain(words);
  });

  it("are taken out of lists and values with them; not while a formula needs them", () => {
    const list = setup({ columns: columns("mark", "own:finish"), groupBy: "own:finish" });
    const full = made(job, { kind: "setList", list }, own("Shout", { kind: "formula", formula: "{finish}" }));
    expect(refusal({ kind: "removeOwnColumn", id: "finish" }, full)).toContain("formula of Shout");
    const gone = made(
      full,
      { kind: "removeOwnColumn", id: "shout" },
      { kind: "removeOwnColumn", id: "finish" },
    );
    expect([gone.lists["list"]?.columns.length, gone.lists["list"]?.groupBy, gone.listCells]).toEqual([
      1,
      null,
      {},
    ]);
    const only = made(job, { kind: "setList", list: setup({ columns: columns("own:finish") }) });
    expect(refusal({ kind: "removeOwnColumn", id: "finish" }, only)).toContain("is all that list List shows");
  });
});
