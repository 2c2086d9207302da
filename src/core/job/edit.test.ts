import fc from "fast-check";
import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { sentence } from "../kernel";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import {
  applyDiff,
  applyEdit,
  type Edit,
  EditSchema,
  editName,
  type Job,
  newKeySize,
  readJob,
  resolveSizes,
  reverseDiff,
  touchedRecords,
} from ".";
import { isEmptyDiff } from "./diff";
import { edited, job, refusal } from "./edit.fixture";

const setSize = (name: string, formula: string, variant: string | null = null): Edit => ({
  kind: "setKeySize",
  id: `size-${name}`,
  formula,
  variant,
});

describe("key sizes", () => {
  it("are computed in the order in which they need one another, with a variant's values in place", () => {
    expect(Object.fromEntries(resolveSizes(job, null).scope)).toEqual({
      width: 600,
      depth: 400,
      height: 450,
    });
    const wide = resolveSizes(job, job.variants["wide"]?.id ?? null);
    expect(wide.scope.get("width")).toBe(900);
  });

  it("a loop is named member by member, and what hangs on it is told where it lies", () => {
    const looped: Job = {
      ...job,
      keySizes: {
        a: newKeySize("a", "a", "b + 1"),
        b: newKeySize("b", "b", "c + 1"),
        c: newKeySize("c", "c", "a + 1"),
        d: newKeySize("d", "d", "a * 2"),
      },
    };
    const { problems, scope } = resolveSizes(looped, null);
    expect(problems.get("a")).toEqual({ kind: "formulaLoop", names: ["a", "b", "c"] });
    expect(problems.get("c")).toEqual({ kind: "formulaLoop", names: ["a", "b", "c"] });
    expect(problems.get("d")).toEqual({ kind: "dependsOnBroken", name: "a" });
    expect(scope.size).toBe(0);
  });
});

describe("edits", () => {
  it("set a key size, in the job or in a variant", () => {
    expect(edited(setSize("width", "700")).keySizes["size-width"]?.formula).toBe("700");
    const inVariant = edited(setSize("width", "950", "wide"));
    expect(inVariant.variants["wide"]?.formulas["width"]).toBe("950");
    expect(inVariant.keySizes).toBe(job.keySizes);
  });

  it.each([
    [setSize("width", "200"), "width would be 200, but it must be from 300 to 1200."],
    [setSize("depth", "height"), "The formulas of depth, height form a loop. Replace one by a value."],
    [setSize("depth", "1/0"), '"1/0" divides by zero with the present key sizes.'],
    [
      setSize("depth", "widht"),
      '"widht" uses widht, which is no key size of this job; check the spelling or add it.',
    ],
    [
      setSize("nothing", "1"),
      "The key size size-nothing is no longer in this job; someone may have removed it.",
    ],
    [
      { kind: "changeKeySize", id: "size-width", set: { least: "2000" } },
      "width: the minimum 2000 is above the maximum 1200. Change one.",
    ],
    [
      { kind: "removeKeySize", id: "size-width" },
      'Key size "width" is used by point B, point C, point F and 2 more; change those first.',
    ],
    [
      { kind: "addKeySize", keySize: newKeySize("x", "width", "1") },
      "There is already a key size named width; choose another name.",
    ],
    [
      { kind: "addKeySize", keySize: newKeySize("x", "sqrt", "1") },
      'The name "sqrt" means something else in formulas; choose another.',
    ],
    [
      { kind: "changeMembers", ids: ["front", "gone"], set: { roll: "90" } },
      "The member gone is no longer in this job; someone may have removed it.",
    ],
  ] satisfies readonly (readonly [Edit, string])[])("refuses %j with a sentence", (edit, words) => {
    expect(refusal(edit)).toBe(words);
  });

  it("refuses a locked size and takes it unlocked", () => {
    const locked = edited({ kind: "changeKeySize", id: "size-width", set: { locked: true } });
    expect(refusal(setSize("width", "700"), locked)).toContain("width is locked");
    const open = edited({ kind: "changeKeySize", id: "size-width", set: { locked: false } }, locked);
    expect(refusal(setSize("width", "700"), open)).toBe("");
  });

  it("several together stand or fall together", () => {
    const good: Edit = {
      kind: "together",
      edits: [
        { kind: "changeMembers", ids: ["front"], set: { name: "Front rail" } },
        { kind: "setMeant", id: "A ~ B", meant: true },
      ],
    };
    expect(edited(good).members["front"]?.name).toBe("Front rail");
    const bad: Edit = {
      kind: "together",
      edits: [
        { kind: "changeMembers", ids: ["front"], set: { name: "X" } },
        { kind: "setKeySize", id: "size-width", formula: "1", variant: null },
      ],
    };
    expect(refusal(bad)).toContain("width would be 1");
  });

  it("an edit that changes nothing has an empty diff only if the record is the same object", () => {
    const diff = applyEdit(job, { kind: "keepMarks", marks: [], drop: [] });
    expect(diff.ok && diff.value.added.length + diff.value.removed.length).toBe(0);
  });

  it("names the records that it touches, but not the marks that follow from it", () => {
    const diff = applyEdit(job, {
      kind: "together",
      edits: [
        { kind: "changePanels", ids: ["shelfLow"], set: { name: "Low shelf" } },
        { kind: "keepMarks", marks: [{ id: "front", mark: "A" }], drop: [] },
      ],
    });
    expect(diff.ok && [...touchedRecords(diff.value)]).toEqual(["panels/shelfLow"]);
  });

  it("have a name for undo, whatever they are", () => {
    expect(editName(setSize("width", "700"))).toBe("Set a key size to 700");
    expect(
      editName({
        kind: "together",
        edits: [
          { kind: "keepMarks", marks: [], drop: [] },
          { kind: "changePoint", id: "A", set: {} },
        ],
      }),
    ).toBe("Move a point");
  });
});

const anyEdit: fc.Arbitrary<Edit> = fc.oneof(
  fc.record({
    kind: fc.constant("setKeySize" as const),
    id: fc.constantFrom("size-width", "size-depth"),
    formula: fc.integer({ min: 250, max: 1300 }).map(String),
    variant: fc.constantFrom(null, "wide"),
  }),
  fc.record({
    kind: fc.constant("changeMembers" as const),
    ids: fc.constantFrom<string[]>(["front"], ["front", "back"], ["legLeft"]),
    set: fc.record({ name: fc.constantFrom("P", "Q"), leftOut: fc.boolean() }),
  }),
  fc.record({
    kind: fc.constant("changePoint" as const),
    id: fc.constantFrom("A", "F"),
    set: fc.record({ at: fc.constant(["1", "2", "3"] as [string, string, string]) }),
  }),
  fc.record({
    kind: fc.constant("keepMarks" as const),
    marks: fc.array(fc.record({ id: fc.constantFrom("front", "back"), mark: fc.constantFrom("A", "B") }), {
      maxLength: 2,
    }),
    drop: fc.constantFrom<string[]>([], ["front"]),
  }),
  fc.record({
    kind: fc.constant("setMeant" as const),
    id: fc.constantFrom("A ~ B", "C ~ D"),
    meant: fc.boolean(),
  }),
  fc.constant<Edit>({ kind: "addKeySize", keySize: newKeySize("size-extra", "extra", "width / 2") }),
  fc.constant<Edit>({ kind: "removeKeySize", id: "size-extra" }),
);

describe("laws of edits", () => {
  it("undoing every edit in turn gives the first document back, and doing them again the last", () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 12 }), (edits) => {
        let now = job;
        const diffs = edits.flatMap((edit) => {
          const diff = applyEdit(now, edit);
          if (!diff.ok) return [];
          now = applyDiff(now, diff.value);
          return [diff.value];
        });
        const back = [...diffs]
          .reverse()
          .reduce((document, diff) => applyDiff(document, reverseDiff(diff)), now);
        expect(back).toEqual(job);
        expect(diffs.reduce(applyDiff, back)).toEqual(now);
      }),
    );
  });

  it("the same edit gives the same diff, and tables that it does not touch stay the same objects", () => {
    fc.assert(
      fc.property(anyEdit, (edit) => {
        const [first, second] = [applyEdit(job, edit), applyEdit(job, edit)];
        expect(first).toEqual(second);
        if (!first.ok) return;
        const changed = applyDiff(job, first.value);
        expect(changed.lines).toBe(job.lines);
        if (isEmptyDiff(first.value)) expect(changed).toEqual(job);
      }),
    );
  });

  it("every edit survives being written and read", () => {
    fc.assert(
      fc.property(anyEdit, (edit) => {
        const read = v.safeParse(EditSchema, JSON.parse(JSON.stringify(edit)));
        expect(read.success && applyEdit(job, read.output)).toEqual(applyEdit(job, edit));
      }),
    );
  });
});

describe("the job document", () => {
  it("comes back from JSON as it was", () => {
    const read = readJob(JSON.parse(JSON.stringify(job)));
    expect(read.ok && read.value).toEqual(job);
  });

  it.each([
    [null, "it is not a JSON object"],
    [[], "it is not a JSON object"],
    [{}, "its schemaVersion is missing"],
    [{ ...job, schemaVersion: 99 }, "its schemaVersion is 99"],
    [
      { ...job, points: { A: { id: "B", name: "A", assembly: null, at: ["0", "0", "0"] } } },
      "points.A carries the id B",
    ],
    [{ ...job, members: { m: { id: "m" } } }, "members.m.name"],
    [{ ...job, info: { job: { ...job.info.job, batch: 0 } } }, "info.job.batch"],
  ])("refuses what is not one: %#", (data, why) => {
    const read = readJob(data);
    expect(read.ok ? "" : sentence(read.problem)).toContain(why);
  });
});

describe("conditions, choices and names", () => {
  const withChoice = edited({
    kind: "together",
    edits: [
      { kind: "addKeySize", keySize: newKeySize("size-shelf", "with_shelf", "yes", { measure: "yesNo" }) },
      {
        kind: "addKeySize",
        keySize: newKeySize("size-wood", "wood", "oak", { measure: "choice", choices: ["oak", "larch"] }),
      },
      { kind: "changePanels", ids: ["shelfHigh"], set: { when: 'with_shelf and wood == "oak"' } },
      { kind: "changeMembers", ids: ["front"], set: { when: "width > 500" } },
    ],
  });
  const pieces = (from: Job) => resultsOf(from).tally.balance.inRows;

  it("parts of the design are there only while their condition holds", () => {
    expect(pieces(withChoice)).toBe(8);
    expect(pieces(edited(setSize("shelf", "no"), withChoice))).toBe(7);
    expect(pieces(edited(setSize("wood", "larch"), withChoice))).toBe(7);
    const narrow = resultsOf(edited(setSize("width", "450"), withChoice));
    expect(narrow.shape.absent).toEqual(new Set(["front"]));
    // What was cut against the absent rail is square for the time being, not an error.
    expect(narrow.shape.uncomputed).toEqual([]);
    expect(narrow.tally.balance).toMatchObject({ design: 7 + 125, inRows: 7 });
  });

  it("a value that is no choice and a condition that is no yes or no are told", () => {
    expect(refusal(setSize("wood", "elm"), withChoice)).toBe('wood "elm" must be one of oak, larch.');
    expect(refusal(setSize("shelf", "3"), withChoice)).toContain("yes or no is needed here");
    const odd = edited({ kind: "changePanels", ids: ["shelfLow"], set: { when: "width + 1" } });
    expect(resultsOf(odd).shape.checks.map((check) => check.message)).toEqual([
      'Shelf: its condition: "width + 1": yes or no is needed here.',
    ]);
  });

  it("a renamed key size is renamed wherever formulas name it, and nowhere else", () => {
    const renamed = edited({ kind: "renameKeySize", id: "size-width", name: "over_all" }, withChoice);
    expect(renamed.points["B"]?.at).toEqual(["over_all - 20", "20", "height"]);
    expect(renamed.points["A"]).toBe(withChoice.points["A"]);
    expect(renamed.panels["shelfLow"]?.length).toBe("over_all - 80");
    expect(renamed.members["front"]?.when).toBe("over_all > 500");
    expect(renamed.variants["wide"]?.formulas).toEqual({ over_all: "900" });
    expect(resultsOf(renamed).cutList).toEqual(resultsOf(withChoice).cutList);
    // A choice of the same word in quotation marks is no name.
    const wood = edited({ kind: "renameKeySize", id: "size-wood", name: "oak" }, withChoice);
    expect(wood.panels["shelfHigh"]?.when).toBe('with_shelf and oak == "oak"');
    expect(refusal({ kind: "renameKeySize", id: "size-width", name: "depth" })).toContain(
      "already a key size named depth",
    );
    expect(refusal({ kind: "renameKeySize", id: "size-width", name: "sqrt" })).toContain(
      "means something else in formulas",
    );
  });
});

describe("variants", () => {
  const variant = { id: "narrow", name: "450 wide", formulas: {}, position: 1 } as never;

  it("are added under a name of their own, set by themselves, and removed", () => {
    const added = edited({ kind: "addVariant", variant });
    const set = edited(setSize("width", "450", "narrow"), added);
    expect(resolveSizes(set, "narrow" as never).scope.get("width")).toBe(450);
    expect(resolveSizes(set, null).scope.get("width")).toBe(600);
    expect(
      refusal({ kind: "addVariant", variant: { ...(variant as object), id: "other" } as never }, added),
    ).toContain('There is already a variant "450 wide"');
    expect(edited({ kind: "removeVariant", id: "narrow" }, set).variants["narrow"]).toBeUndefined();
    expect(refusal({ kind: "removeVariant", id: "narrow" })).toContain("no longer in this job");
  });
});

describe("marks that are held", () => {
  const marked = (
    marks: { id: string; mark: string; held?: boolean }[],
    drop: string[] = [],
    job = smallFrame(),
  ) => edited({ kind: "keepMarks", marks, drop }, job);

  it("stay held when the same mark is said again, and are let go only by saying so", () => {
    const held = marked([{ id: "front", mark: "A", held: true }]);
    expect(held.marks["front"]).toEqual({ id: "front", mark: "A", held: true });
    expect(marked([{ id: "front", mark: "A" }], [], held).marks["front"]?.held).toBe(true);
    expect(marked([{ id: "front", mark: "A", held: false }], [], held).marks["front"]?.held).toBe(false);
    // A mark that is not held becomes held by saying so alone.
    const plain = marked([{ id: "front", mark: "A" }]);
    expect(marked([{ id: "front", mark: "A", held: true }], [], plain).marks["front"]?.held).toBe(true);
  });

  it("another mark takes the place of a held one as it is said; dropped ones are gone, the others stay", () => {
    const held = marked([
      { id: "front", mark: "A", held: true },
      { id: "back", mark: "B" },
    ]);
    expect(marked([{ id: "front", mark: "C" }], [], held).marks["front"]).toEqual({ id: "front", mark: "C" });
    const dropped = marked([], ["front"], held).marks;
    expect(Object.keys(dropped)).toEqual(["back"]);
  });
});

describe("typed-in pieces", () => {
  const common = {
    mark: null,
    quantity: 2,
    stockText: null,
    stock: null,
    material: null,
    leftOut: false,
    position: 0,
  };
  const panel = {
    ...common,
    id: "top",
    name: "Top",
    kind: "panel",
    length: 600,
    width: 300,
    thickness: 18,
    grain: true,
    edged: [],
    edgingText: null,
  };
  const bar = {
    ...common,
    id: "rail",
    name: "Rail",
    kind: "member",
    length: 900,
    shape: null,
    angles: [0, 0],
    stand: null,
  };
  const screw = { ...common, id: "screw", name: "Screw", kind: "other" };
  const listed = edited({ kind: "addTypedPieces", pieces: [panel, bar, screw] as never }, job);
  const set = (ids: readonly string[], values: object): Edit =>
    ({ kind: "changeTypedPieces", ids, set: values }) as Edit;

  it("a panel is sized and edged as it is typed, tape by tape", () => {
    const after = edited(
      set(["top"], { length: 620, width: 310.5, edged: ["front", "left"], edgingTexts: { front: "Birch" } }),
      listed,
    );
    expect(after.typedPieces["top"]).toMatchObject({ length: 620, width: 310.5, edged: ["front", "left"] });
    const row = resultsOf(after).tally.rows.find(({ name }) => name === "Top");
    expect(row?.shown.form).toMatchObject({ lengthNm: 620e6, widthNm: 310.5e6, edging: { back: null } });
  });

  it("what only a panel has is refused for others, and a length where there is none", () => {
    expect(refusal(set(["top", "rail"], { width: 40 }), listed)).toContain("is no panel");
    expect(refusal(set(["screw"], { length: 40 }), listed)).toContain("no length");
    expect(edited(set(["rail"], { length: 950 }), listed).typedPieces["rail"]).toMatchObject({ length: 950 });
  });
});
