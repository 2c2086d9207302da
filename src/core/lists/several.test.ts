/** Rows whose pieces say different things, and rows that keep their place by hand. */
import { describe, expect, it } from "vitest";
import { plainColumn } from "../job";
import { smallFrame } from "../pipeline.fixture";
import { fieldText, handOrderOf, ownList, severalWords } from ".";
import { cellIn, groundOf, made, over, own, rowsOf, setup, value } from "./list.fixture";

const legs = ["legLeft", "legRight"];
const column = plainColumn("own:finish");

describe("a row whose pieces differ", () => {
  const job = made(
    smallFrame(),
    own("Finish"),
    value("finish", legs, "powder black"),
    value("finish", ["legRight"], "galvanised", "other"),
  );
  const list = setup({ kinds: ["member"], columns: [plainColumn("name"), column] });

  it("says so with each value and how many have it, in the list and in files", () => {
    const cell = cellIn(ownList(list, groundOf(job)), "legLeft", "own:finish");
    expect(cell).toMatchObject({
      text: "several",
      value: null,
      several: [
        { text: "powder black", count: 1 },
        { text: "galvanised", count: 1 },
      ],
    });
    expect(fieldText(cell)).toBe("several: powder black × 1, galvanised × 1");
    expect(severalWords([{ text: "a", count: 3 }])).toBe("a × 3");
  });

  it("counts pieces, not records, and those that nobody gave a value", () => {
    const unset = made(smallFrame(), own("Finish"), value("finish", ["legLeft"], "oiled"));
    expect(cellIn(ownList(list, groundOf(unset)), "legLeft", "own:finish")?.several).toEqual([
      { text: "oiled", count: 1 },
      { text: "not set", count: 1 },
    ]);
    const batch = groundOf({ ...job, info: { job: { ...job.info.job, batch: 3 } } } as never);
    expect(cellIn(ownList(list, batch), "legLeft", "own:finish")?.several?.[0]?.count).toBe(3);
  });

  it("agrees again when all say the same, and for all without a value of their own", () => {
    const same = made(job, value("finish", ["legLeft"], "galvanised", "third"));
    expect(cellIn(ownList(list, groundOf(same)), "legLeft", "own:finish")?.text).toBe("galvanised");
    const forAll = made(
      smallFrame(),
      own("Finish", { forAll: "oiled" }),
      value("finish", ["legLeft"], "oiled"),
    );
    expect(cellIn(ownList(list, groundOf(forAll)), "legLeft", "own:finish")?.text).toBe("oiled");
  });

  it("typed over in some of its pieces, it tells the computed value of the others", () => {
    const base = made(smallFrame(), {
      kind: "setList",
      list: setup({ columns: [plainColumn("name")] }),
    } as never);
    const partly = made(base, over("name", ["legLeft"], "Post", "Leg"));
    const cell = cellIn(
      ownList(setup({ columns: [plainColumn("name")] }), groundOf(partly)),
      "legLeft",
      "name",
    );
    expect(cell?.several).toEqual([
      { text: "Post", count: 1 },
      { text: "Leg", count: 1 },
    ]);
  });

  it("has no number: what is computed from it is missing, and its sum incomplete", () => {
    const priced = made(
      smallFrame(),
      own("Price", { kind: "number" }),
      own("Total", { kind: "formula", formula: "{count} * {price}", id: "total" as never }),
      value("price", ["legLeft"], "2"),
      value("price", ["legRight"], "3", "dear"),
    );
    const sums = setup({
      kinds: ["member"],
      columns: [{ ...plainColumn("own:price"), adds: true }, plainColumn("own:total")],
      totals: true,
    });
    const table = ownList(sums, groundOf(priced));
    expect(cellIn(table, "legLeft", "own:total")).toMatchObject({ text: "several values", lack: "missing" });
    expect(table.foot[0]?.cells["own:price"]?.text).toMatch(/^incomplete/);
  });
});

describe("an order by hand", () => {
  it("keeps the place of a row when a piece of it is left out", () => {
    const list = setup({ kinds: ["member"], columns: [plainColumn("name")] });
    const rows = rowsOf(ownList(list, groundOf(smallFrame())));
    const turned = handOrderOf([...rows].reverse());
    const names = (job: ReturnType<typeof smallFrame>) =>
      rowsOf(ownList({ ...list, handOrder: turned }, groundOf(job))).map(({ cells }) => cells["name"]?.text);
    const before = names(smallFrame());
    for (const id of ["front", "back", "legLeft", "legRight", "left"]) {
      const out = made(smallFrame(), { kind: "changeMembers", ids: [id], set: { leftOut: true } });
      expect(names(out)).toEqual(before);
    }
  });
});
