/** Nothing is stored that cannot be read again, no name that every table answers to is a key, nothing is absurdly long. */
import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { sentence } from "../kernel";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import {
  applyDiff,
  applyEdit,
  type Edit,
  EditSchema,
  type Job,
  lawFault,
  newBoughtPart,
  newInsert,
  newKeySize,
  newPoint,
  readJob,
  resolveSizes,
  storedFault,
} from ".";
import { edited, job, refusal } from "./edit.fixture";

/** constructor, __proto__, toString, valueOf … */
const PROTOTYPE = Object.getOwnPropertyNames(Object.prototype);
const asData = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;

describe("names that every table answers to", () => {
  const edits = (name: string): readonly unknown[] => [
    { kind: "changeMembers", ids: [name], set: { name: "x" } },
    { kind: "changePanels", ids: [name], set: { name: "x" } },
    { kind: "changeBoughtParts", ids: [name], set: { name: "x" } },
    { kind: "changeTypedPieces", ids: [name], set: { name: "x" } },
    { kind: "removeTypedPieces", ids: [name] },
    { kind: "remove", ids: [name] },
    { kind: "changePoint", id: name, set: { at: ["0", "0", "0"] } },
    { kind: "setKeySize", id: name, formula: "1", variant: null },
    { kind: "setKeySize", id: "size-width", formula: "1", variant: name },
    { kind: "changeKeySize", id: name, set: { note: "" } },
    { kind: "removeKeySize", id: name },
    { kind: "removeVariant", id: name },
    { kind: "removeList", id: name },
    { kind: "removeOwnColumn", id: name },
    { kind: "joinPoints", from: name, into: "A" },
    { kind: "keepMarks", marks: [{ id: name, mark: "A" }], drop: [] },
    { kind: "keepMarks", marks: [], drop: [name] },
    { kind: "setMeant", id: name, meant: true },
    { kind: "addKeySize", keySize: { ...newKeySize("fine", "fine", "1"), name } },
    { kind: "addVariant", variant: { id: "fine", name: "x", position: 1, formulas: { [name]: "1" } } },
    newInsert("Point", { points: [{ ...newPoint("p", "P", ["0", "0", "0"]), id: name as never }] }),
    newInsert("Point", { points: [{ ...newPoint("p", "P", ["0", "0", "0"]), assembly: name as never }] }),
  ];

  it.each(PROTOTYPE)("%s is refused in every edit", (name) => {
    for (const edit of edits(name).map(asData)) {
      const read = v.safeParse(EditSchema, edit);
      // What the reader drops ("__proto__" as a key of values) never arrives.
      if (read.success) expect(JSON.stringify(read.output)).not.toContain(name);
    }
    for (const edit of edits("fine")) expect(v.safeParse(EditSchema, asData(edit)).issues ?? []).toEqual([]);
  });

  it("is looked up by own keys only, also where an edit gets round the schema", () => {
    for (const name of PROTOTYPE) {
      expect(refusal({ kind: "changeMembers", ids: [name as never], set: {} })).toContain(name);
      expect(refusal({ kind: "removeTypedPieces", ids: [name as never] })).toContain(name);
    }
  });

  it("is no key of a document", () => {
    const points = { toString: { ...newPoint("p", "P", ["0", "0", "0"]), id: "toString" } };
    expect(readJob(asData({ ...job, points: { ...job.points, ...points } })).ok).toBe(false);
  });
});

describe("lengths beyond the greatest", () => {
  const point = (text: string): Edit => ({ kind: "changePoint", id: "B", set: { at: [text, "0", "0"] } });

  it.each(["1e12", "1e9 * 1", "width * 1000", "-1e7 - 1"])(
    "a point at %s is told, and nothing is computed from it",
    (text) => {
      const { shape } = resultsOf(edited(point(text)));
      const told = shape.checks.map(({ message }) => message).join(" ");
      expect(told).toMatch(/100 m/);
      expect(shape.members.map(({ member }) => member.id)).not.toContain("front");
    },
  );

  it("a stand-in, a step and a panel of a thousand kilometres are told", () => {
    const stand = (size: string, step: string) => ({
      ...newBoughtPart("pump", { name: "Pump", entry: "foot", count: "3" }),
      stand: {
        at: ["0", "0", "0"] as [string, string, string],
        turn: ["0", "0", "0"] as [string, string, string],
        step: [step, "0", "0"] as [string, string, string],
        as: { kind: "box" as const, size: [size, "10", "10"] as [string, string, string] },
      },
    });
    for (const part of [stand("1e12", "0"), stand("10", "1e12")]) {
      const placed = edited(newInsert("Part", { boughtParts: [part] }));
      const { shape } = resultsOf(placed);
      expect(shape.checks.some(({ message }) => /Pump.*100 m/.test(message))).toBe(true);
    }
    const wide = edited({ kind: "changePanels", ids: ["shelfLow" as never], set: { length: "1e9" } });
    expect(resultsOf(wide).shape.checks.some(({ message }) => /100 m/.test(message))).toBe(true);
  });

  it("a key size for lengths is bounded in the job's unit, one for numbers is not", () => {
    expect(refusal({ kind: "setKeySize", id: "size-depth", formula: "2e5", variant: null })).toContain(
      "100 m",
    );
    const inch = smallFrame({ info: { unit: "in" } as never });
    expect(refusal({ kind: "setKeySize", id: "size-depth", formula: "4000", variant: null }, inch)).toContain(
      "100 m",
    );
    expect(refusal({ kind: "setKeySize", id: "size-depth", formula: "3800", variant: null }, inch)).toBe("");
    const many = edited({
      kind: "addKeySize",
      keySize: newKeySize("n", "many", "1e7", { measure: "number" }),
    });
    expect(resolveSizes(many, null).scope.get("many")).toBe(1e7);
  });

  it("a frame as large as may be is computed: boxes over too many cells are compared with all", () => {
    const huge = smallFrame({
      points: {
        P: ["-99000", "-99000", "-99000"],
        Q: ["99000", "99000", "99000"],
        R: ["-99000", "99000", "0"],
        S: ["99000", "-99000", "0"],
      },
      members: {
        one: { name: "One", section: "tube", from: "P", to: "Q" },
        two: { name: "Two", section: "tube", from: "R", to: "S" },
      },
    });
    const { shape } = resultsOf(huge);
    expect(
      shape.checks.filter(({ kind }) => kind === "overlap").map(({ records }) => records),
    ).toContainEqual(["one", "two"]);
  });
});

describe("what an edit makes", () => {
  it("can be read again, and keeps the laws across records", () => {
    expect(lawFault(job)).toBeNull();
    const broken: readonly [Job, RegExp][] = [
      [{ ...job, points: {} }, /line .* names/],
      [{ ...job, lines: {} }, /member .* names/],
      [
        {
          ...job,
          panels: { ...job.panels, x: { ...job.panels["shelfLow"], id: "x", assembly: "gone" } as never },
        },
        /panel Shelf names gone/,
      ],
    ];
    for (const [after, words] of broken) expect(lawFault(after)).toMatch(words);
  });

  it("is refused where a record of it does not fit its schema or names what is not there", () => {
    const fault = (records: Parameters<typeof storedFault>[1]["added"]) => {
      const found = storedFault(job, { added: records, updated: [], removed: [] });
      return found.ok ? "" : sentence(found.problem);
    };
    expect(
      fault([
        { table: "points", record: { id: "Z", name: "", assembly: null, at: ["0", "0", "0"] } as never },
      ]),
    ).toMatch(/cannot be stored/);
    expect(
      fault([{ table: "points", record: newPoint("Z", "Z", ["0", "0", "0"], "gone" as never) }]),
    ).toMatch(/names gone/);
    expect(fault([{ table: "points", record: newPoint("Z", "Z", ["0", "0", "0"]) }])).toBe("");
    const diff = applyEdit(job, { kind: "remove", ids: ["front"] });
    if (!diff.ok) throw new Error("it can be removed");
    expect(storedFault(job, diff.value).ok).toBe(true);
    expect(readJob(asData(applyDiff(job, diff.value))).ok).toBe(true);
  });

  it("never takes the place of a record that has its id", () => {
    const size = newKeySize("size-width", "other", "5");
    expect(refusal({ kind: "addKeySize", keySize: size })).toContain("already");
    const variant = { id: "wide" as never, name: "Other", formulas: {}, position: 9 };
    expect(refusal({ kind: "addVariant", variant })).toContain("already");
    const twice = [newPoint("new", "N", ["0", "0", "0"]), newPoint("new", "M", ["1", "0", "0"])];
    expect(refusal(newInsert("Points", { points: twice }))).toContain("already");
    expect(refusal(newInsert("Points", { points: [newPoint("A", "N", ["0", "0", "0"])] }))).toContain(
      "already",
    );
    const piece = {
      id: "t1",
      name: "Rail",
      mark: null,
      quantity: 1,
      material: null,
      leftOut: false,
      position: 0,
      length: 100,
      kind: "member",
      stock: null,
      stockText: null,
      shape: { kind: "flat", size: [40, 5] },
      angles: [0, 0],
      stand: null,
    } as never;
    expect(refusal({ kind: "addTypedPieces", pieces: [piece, piece] })).toContain("already");
    const once = edited({ kind: "addTypedPieces", pieces: [piece] });
    expect(refusal({ kind: "addTypedPieces", pieces: [piece] }, once)).toContain("already");
  });
});
