import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { volumeOf } from "../geometry/mesh.fixture";
import {
  type Axis,
  assemblyOf,
  buttEnd,
  copyOfPieces,
  type Edit,
  type Groove,
  type Job,
  MIRROR_AXES,
  mitreEnd,
  newJob,
  type PanelParts,
  type PlacementParts,
  putBackEdits,
  readJob,
  resolveSizes,
  takenApart,
} from "../job";
import { edited, refusal } from "../job/edit.fixture";
import { sentence } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { resultsOf, STOCK, smallFrame } from "../pipeline.fixture";
import { balances } from "../tally";
import { createShaper } from ".";
import { picturedMeshes, reflected, sameVertices } from "./mesh.fixture";

const newIds = () => {
  let count = 0;
  return (kind: string) => `new-${kind}-${++count}`;
};
const groove = (from: Groove["from"]): Groove => ({
  id: "g",
  kind: "groove",
  face: "good",
  from,
  distance: "10",
  width: "6",
  depth: "5",
  stopAtStart: "0",
  stopAtEnd: "40",
});

/** A box with one side whose groove makes it left- or right-handed, a plain floor, and a rail between two posts. */
const side: PanelParts = { name: "Side", board: "ply", length: "300", width: "100", work: [groove("front")] };
const box = {
  name: "Box",
  points: { P: ["0", "0", "200"], Q: ["0", "300", "200"], R: ["160", "300", "200"] },
  members: {
    rail: { name: "Rail", from: "P", to: "Q", section: "tube", end: mitreEnd("strut") },
    strut: { name: "Strut", from: "Q", to: "R", section: "tube", start: mitreEnd("rail") },
  },
  panels: {
    side,
    floor: { name: "Floor", board: "ply", origin: ["0", "0", "20"], length: "300", width: "280" },
  },
  boughtParts: { pull: { name: "Pull", entry: "foot", count: "2" } },
} as const;

function boxes(placements: Readonly<Record<string, Omit<PlacementParts, "assembly">>>, more = {}): Job {
  return newJob({
    info: { code: "T", title: "Boxes" },
    keySizes: { rows: { formula: "3", measure: "number" } },
    assemblies: { box, ...more },
    placements: Object.fromEntries(
      Object.entries(placements).map(([id, placement]) => [id, { assembly: "box", ...placement }]),
    ),
  });
}

const counts = (job: Job) =>
  Object.fromEntries(
    resultsOf(job).tally.rows.map((row) => [row.name, [row.hands.asDrawn, row.hands.opposite]]),
  );

describe("counts of assemblies", () => {
  it("multiply through repeats, nesting and the batch, and balance", () => {
    const job = newJob({
      info: { code: "T", title: "Nested", batch: 2 },
      keySizes: { rows: { formula: "3", measure: "number" } },
      assemblies: { box, unit: { name: "Unit" } },
      placements: {
        inUnit: { assembly: "box", into: "unit", count: "rows", step: ["0", "0", "150"] },
        units: { assembly: "unit", count: "2", step: ["500", "0", "0"] },
      },
    });
    // By hand: 3 boxes in a unit, 2 units, made twice: 12 boxes.
    expect(counts(job)).toEqual({
      Rail: [12, 0],
      Strut: [12, 0],
      Side: [12, 0],
      Floor: [12, 0],
      Pull: [24, 0],
    });
    const { balance } = resultsOf(job).tally;
    expect([balance.design, balance.inRows, balance.bought, balances(balance)]).toEqual([72, 48, 24, true]);
    expect(picturedMeshes(resultsOf(job).shape)).toHaveLength(6 * 4);
  });

  it("mirrored, a handed piece counts as the opposite hand and a plain one as itself", () => {
    const job = boxes({
      left: {},
      right: { mirror: "width", at: ["900", "0", "0"] },
      third: { at: ["0", "900", "0"] },
    });
    expect(counts(job)["Side"]).toEqual([2, 1]);
    expect(counts(job)["Floor"]).toEqual([3, 0]);
    // A plane mitre frame's rail is its own mirror image.
    expect(counts(job)["Rail"]).toEqual([3, 0]);
  });

  it("a hand of which nothing is drawn is never called as drawn, however many there are of it", () => {
    const job = boxes({ one: {}, others: { mirror: "depth", count: "4", step: ["400", "0", "0"] } });
    expect(counts(job)["Side"]).toEqual([1, 4]);
  });

  it("single ones of a row are left out by their numbers, and put back from any piece in them", () => {
    const job = boxes({ row: { count: "4", step: ["400", "0", "0"], without: [2, 4, 9] } });
    const { balance, rows } = resultsOf(job).tally;
    expect(rows.find(({ name }) => name === "Floor")?.count).toBe(2);
    // Six pieces each, two of them pulls: 4 × 6 in the design, half of it left out.
    expect([balance.design, balance.inRows + balance.bought, balance.leftOut]).toEqual([24, 12, 12]);
    expect(balances(balance)).toBe(true);
    const back = putBackEdits(job, ["floor"]).reduce((now, edit) => edited(edit, now), job);
    expect(resultsOf(back).tally.balance.leftOut).toBe(0);
  });

  it("bought as a whole it is priced as the bought part that it is", () => {
    const job = boxes({ row: { count: "3", step: ["400", "0", "0"] } });
    const bought = edited({ kind: "changeAssemblies", ids: ["box"], set: { role: "bought" } }, job);
    const line = (of: Job) => resultsOf(of).quantities.lines.find(({ group }) => group === "bought");
    expect(line(bought)).toMatchObject({ name: "Box", net: 3, cost: null });
    const priced = edited({ kind: "changeAssemblies", ids: ["box"], set: { entry: "foot" } }, bought);
    // A foot is 2.35 each.
    expect(line(priced)).toMatchObject({ name: "Foot M10", net: 3, unitPrice: 2.35, cost: 705 });
  });

  it("left out, bought as a whole and guide: each is counted where it belongs", () => {
    const job = boxes({ a: {}, b: { at: ["500", "0", "0"], leftOut: true } });
    const { balance } = resultsOf(job).tally;
    expect([balance.design, balance.inRows, balance.bought, balance.leftOut]).toEqual([12, 4, 2, 6]);
    const bought = edited({ kind: "changeAssemblies", ids: ["box"], set: { role: "bought" } }, job);
    const whole = resultsOf(bought).tally;
    expect(whole.rows.map((row) => [row.name, row.kind, row.count])).toEqual([["Box", "bought", 1]]);
    expect([whole.balance.design, whole.balance.bought, whole.balance.leftOut]).toEqual([2, 1, 1]);
    const guide = edited({ kind: "changeAssemblies", ids: ["box"], set: { role: "guide" } }, job);
    const seen = resultsOf(guide).tally;
    expect([seen.rows.length, seen.balance.design, seen.balance.guides]).toEqual([0, 0, 12]);
    // Still in the picture.
    expect(picturedMeshes(resultsOf(guide).shape)).toHaveLength(8);
  });

  it("a single member or panel can be bought cut, with its size told, or be a guide", () => {
    const cut = edited({ kind: "changePanels", ids: ["shelfLow"], set: { role: "bought" } }, smallFrame());
    const row = resultsOf(cut).tally.rows.find((one) => one.kind === "bought" && one.name === "Shelf");
    expect([row?.count, row?.stockName]).toEqual([1, "Birch ply 18, 520 × 320 mm"]);
    const guide = edited({ kind: "changeMembers", ids: ["legLeft"], set: { role: "guide" } }, smallFrame());
    expect(resultsOf(guide).tally.rows.find((one) => one.name === "Leg")?.count).toBe(1);
    expect(balances(resultsOf(guide).tally.balance)).toBe(true);
  });

  it("a count can follow the count of other things, nested ones included", () => {
    const job = edited(
      { kind: "changeBoughtParts", ids: ["pull"], set: { count: 'count("Rail") + 3 * count("Floor")' } },
      boxes({ a: { count: "2" } }),
    );
    expect(counts(job)["Pull"]).toEqual([8, 0]);
    const wider = newJob({
      info: { code: "T", title: "T" },
      assemblies: { box },
      placements: { a: { assembly: "box", count: "5", step: ["400", "0", "0"] } },
      boughtParts: {
        plates: { name: "Plates", entry: "foot", count: 'count("Box") + count("Screws")' },
        screws: { name: "Screws", entry: "screw", count: '4 * count("Pull")' },
        lost: { name: "Lost", entry: "foot", count: 'count("Nowhere")' },
        loop: { name: "Loop", entry: "foot", count: 'count("Loop") + 1' },
      },
    });
    const { rows, checks } = resultsOf(wider).tally;
    expect(rows.find((row) => row.stock === "screw")?.count).toBe(40);
    const plates = resultsOf(wider).shape.bought.find(({ part }) => part.id === "plates");
    expect(plates?.count).toBe(45);
    const words = checks.map((check) => check.message);
    expect(words).toContain('Lost: nothing in this job is named "Nowhere", so it cannot be counted.');
    expect(words).toContain("Loop: its count needs itself, by way of other counts.");
  });
});

describe("assemblies that cannot stand", () => {
  it.each([
    ["0 - 1", "Box: its count would be -1; it must be a whole number from 0 to 10,000."],
    ["1.5", "Box: its count would be 1.5; it must be a whole number from 0 to 10,000."],
    ["1e7", "Box: its count would be 10000000; it must be a whole number from 0 to 10,000."],
    [
      "nothing",
      'Box: "nothing" uses nothing, which is no key size of this job; check the spelling or add it.',
    ],
  ])("a count of %s is told at its place and the rest goes on", (count, words) => {
    const { checks, rows } = resultsOf(boxes({ good: {}, bad: { count } })).tally;
    expect(checks.map((check) => check.message)).toContain(words);
    expect(rows.find((row) => row.name === "Floor")?.count).toBe(1);
  });

  it("too many in all are told once and bounded", () => {
    const job = boxes({ a: { count: "9000" }, b: { count: "9000" }, c: { count: "9000" } });
    const shape = createShaper()(job, resolveSizes(job, null), STOCK);
    expect(shape.places.get("box" as never)?.length).toBe(18_000);
    expect(shape.checks.filter((check) => check.message.includes("more than 20000 times"))).toHaveLength(1);
  });

  it("one that is not placed says that its pieces are in no list", () => {
    const { checks } = resultsOf(boxes({})).shape;
    expect(checks.map((check) => check.message)).toEqual([
      "Box is not placed anywhere, so nothing of it is in the lists; place it or remove it.",
    ]);
  });

  it("none stands in itself, directly or by way of another", () => {
    const job = boxes({ inUnit: { into: "unit" } }, { unit: { name: "Unit" } });
    const insert = (assembly: string, into: string): Edit => {
      const placed = newJob({ info: { code: "T", title: "T" }, placements: { p: { assembly, into } } });
      const nothing = { points: [], lines: [], members: [], panels: [], boughtParts: [], assemblies: [] };
      return { kind: "insert", what: "Place", ...nothing, placements: Object.values(placed.placements) };
    };
    expect(refusal(insert("box", "box"), job)).toBe(
      'Assembly "Box" cannot stand inside itself; place it somewhere else.',
    );
    expect(refusal(insert("unit", "box"), job)).toContain("cannot stand inside itself");
    // A file from elsewhere can say so all the same: it is read, marked, and the rest goes on.
    const odd = readJob({
      ...job,
      placements: {
        ...job.placements,
        loop: { ...job.placements["inUnit"], id: "loop", assembly: "unit", into: "box" },
        top: { ...job.placements["inUnit"], id: "top", into: null },
      },
    });
    if (!odd.ok) throw new Error(sentence(odd.problem));
    expect(resultsOf(odd.value).shape.checks.map((check) => check.message)).toContain(
      "Unit contains itself. Delete one placement.".replace("Unit", "Box"),
    );
  });

  it("an end is not cut to a member of another assembly", () => {
    const job = newJob({
      info: { code: "T", title: "T" },
      points: { A: ["0", "0", "0"], B: ["500", "0", "0"] },
      members: { bar: { name: "Bar", from: "A", to: "B", section: "tube" } },
      assemblies: { box },
      placements: { a: { assembly: "box" } },
    });
    expect(refusal({ kind: "changeMembers", ids: ["bar"], set: { end: buttEnd("rail") } }, job)).toBe(
      'The end of "Bar" cannot be cut to Rail, which stands in Box.',
    );
  });
});

const turns = fc.tuple(
  ...[0, 1, 2].map(() => fc.constantFrom("0", "90", "180", "30", "-45")),
) as fc.Arbitrary<[string, string, string]>;
const places = fc.tuple(
  ...[0, 1, 2].map(() => fc.integer({ min: -900, max: 900 }).map(String)),
) as fc.Arbitrary<[string, string, string]>;
const mirrors = fc.constantFrom(null, ...MIRROR_AXES);

describe("laws of assemblies", () => {
  it("a placement mirrored in the job shows the mirror image of every solid, and keeps their volume", () => {
    fc.assert(
      fc.property(places, turns, mirrors, fc.constantFrom<Axis>(0, 1, 2), (at, turn, mirror, axis) => {
        const job = boxes({ a: { at, turn, mirror } });
        const edit = copyOfPieces(job, ["a"], { kind: "mirror", axis, plane: "75" }, newIds());
        if (!edit.ok) throw new Error(sentence(edit.problem));
        const meshes = picturedMeshes(resultsOf(edited(edit.value, job)).shape);
        const of = (placement: string) => meshes.filter(({ instance }) => instance.path[0] === placement);
        const [first, second] = [of("a"), of(edit.value.placements[0]?.id ?? "")];
        first.forEach(({ mesh, record }) => {
          const image = second.find((other) => other.record === record)?.mesh;
          if (!image) throw new Error("both are computed");
          expect(sameVertices(reflected(mesh, axis, 75), image)).toBe(true);
          expect(volumeOf(image) / volumeOf(mesh)).toBeWithinMm(1, 1e-9);
        });
        expect(volumeOf(first[0]?.mesh ?? { vertices: [], triangles: [], edges: [] })).toBeGreaterThan(0);
      }),
      { numRuns: lawRuns(25) },
    );
  });

  it("the rows are the same however the assembly is turned and moved; mirrored, the hands change places", () => {
    const plain = counts(boxes({ a: {} }));
    fc.assert(
      fc.property(places, turns, mirrors, (at, turn, mirror) => {
        const rows = counts(boxes({ a: { at, turn, mirror } }));
        expect(rows).toEqual(mirror === null ? plain : { ...plain, Side: [0, 1] });
      }),
      { numRuns: lawRuns(20) },
    );
  });

  it("made of a selection, everything stands where it stood and counts as it counted", () => {
    fc.assert(
      fc.property(places, (at) => {
        const job = smallFrame();
        const ids = [...Object.keys(job.members), ...Object.keys(job.panels), "feet"];
        const edit = assemblyOf(job, ids, { name: "Frame", at }, newIds());
        if (!edit.ok) throw new Error(sentence(edit.problem));
        const after = edited(edit.value, job);
        const [before, now] = [resultsOf(job), resultsOf(after)];
        const rows = (results: typeof now) =>
          results.tally.rows.map((row) => [row.name, row.count, row.hands]);
        expect(rows(now)).toEqual(rows(before));
        const all = picturedMeshes(now.shape);
        for (const { record, mesh } of picturedMeshes(before.shape)) {
          const same = all.find((other) => other.record === record)?.mesh;
          expect(same && sameVertices(mesh, same)).toBe(true);
        }
      }),
      { numRuns: 8 },
    );
  });

  it("taken apart again, rows, marks and key sizes are as they were", () => {
    const job = smallFrame();
    const marked = edited({ kind: "keepMarks", marks: [...resultsOf(job).tally.newMarks], drop: [] }, job);
    const ids = [...Object.keys(job.members), ...Object.keys(job.panels)];
    const made = assemblyOf(marked, ids, { name: "Frame", at: ["width / 2", "0", "0"] }, newIds());
    if (!made.ok) throw new Error(sentence(made.problem));
    const whole = edited(made.value, marked);
    const placement = Object.keys(whole.placements)[0] ?? "";
    const apart = takenApart(whole, placement, newIds());
    if (!apart.ok) throw new Error(sentence(apart.problem));
    const after = edited(apart.value, whole);
    expect([Object.keys(after.assemblies), Object.keys(after.placements)]).toEqual([[], []]);
    const rows = (one: Job) => resultsOf(one).tally.rows.map((row) => [row.mark, row.name, row.count]);
    expect(rows(after)).toEqual(rows(marked));
    const wide = edited({ kind: "setKeySize", id: "size-width", formula: "900", variant: null }, after);
    const same = edited({ kind: "setKeySize", id: "size-width", formula: "900", variant: null }, marked);
    expect(rows(wide)).toEqual(rows(same));
  });
});

describe("making an assembly", () => {
  it("leaves shared points behind for the lines that stay", () => {
    const job = smallFrame();
    const squared = edited(
      {
        kind: "changeMembers",
        ids: ["legLeft"],
        set: { end: { kind: "square", offset: "0 - 20", past: null } },
      },
      job,
    );
    const edit = assemblyOf(squared, ["legLeft"], { name: "Foot", at: ["0", "0", "0"] }, newIds());
    if (!edit.ok) throw new Error(sentence(edit.problem));
    const after = edited(edit.value, squared);
    expect(after.points["A"]?.assembly).toBe(null);
    expect(after.points["E"]?.assembly).not.toBe(null);
    expect(resultsOf(after).tally.rows.find((row) => row.name === "Leg")?.count).toBe(2);
  });

  it("is refused where an end would lose what it is cut to", () => {
    const edit = assemblyOf(smallFrame(), ["legLeft"], { name: "Foot", at: ["0", "0", "0"] }, newIds());
    if (!edit.ok) throw new Error(sentence(edit.problem));
    expect(refusal(edit.value)).toBe(
      'Member "Leg" is cut to Rail, which is not selected; select both, or change the end cut.',
    );
  });

  it("removing the assembly takes all that is in it; removing one placement leaves the others", () => {
    const job = boxes({ a: {}, b: { at: ["500", "0", "0"] } });
    const one = edited({ kind: "remove", ids: ["b"] }, job);
    expect(counts(one)["Floor"]).toEqual([1, 0]);
    const none = edited({ kind: "remove", ids: ["box"] }, job);
    expect([none.points, none.lines, none.members, none.panels, none.boughtParts, none.placements]).toEqual([
      {},
      {},
      {},
      {},
      {},
      {},
    ]);
  });
});

describe("what is usual", () => {
  const job = newJob({
    info: { code: "T", title: "T" },
    assemblies: {
      unit: { name: "Unit", usual: { board: "ply" }, panels: { shelf: { name: "Shelf", board: null } } },
      inner: { name: "Inner", panels: { fin: { name: "Fin", board: null, material: "oak" } } },
    },
    placements: {
      a: { assembly: "unit" },
      b: { assembly: "inner", into: "unit" },
    },
  });

  it("the narrower choice wins, and an inner assembly follows the one around it", () => {
    const rows = resultsOf(job).tally.rows.map((row) => [row.name, row.stockName, row.material]);
    expect(rows).toContainEqual(["Shelf", "Birch ply 18", "birch ply"]);
    expect(rows).toContainEqual(["Fin", "Birch ply 18", "oak"]);
  });

  it("the job's own choice holds where no assembly says anything", () => {
    const wide = edited(
      {
        kind: "changeInfo",
        set: { usual: { section: "tube", board: null, memberMaterial: "S355", panelMaterial: null } },
      },
      smallFrame({ members: { bare: { name: "Bare", from: "E", to: "F", section: null } } }),
    );
    const bare = resultsOf(wide).tally.rows.find((row) => row.pieces.some(({ id }) => id === "bare"));
    expect([bare?.stock, bare?.material]).toEqual(["tube", "S355"]);
  });

  it("surroundings that differ are told, and nothing is guessed", () => {
    const two = newJob({
      info: { code: "T", title: "T" },
      assemblies: {
        unit: { name: "Unit", usual: { panelMaterial: "oak" } },
        other: { name: "Other", usual: { panelMaterial: "ash" } },
        inner: { name: "Inner", panels: { fin: { name: "Fin", board: "ply" } } },
      },
      placements: {
        a: { assembly: "unit" },
        b: { assembly: "other" },
        c: { assembly: "inner", into: "unit" },
        d: { assembly: "inner", into: "other" },
      },
    });
    const { rows, checks } = resultsOf(two, STOCK).tally;
    expect(rows.map((row) => row.material)).toEqual(["birch ply"]);
    expect(checks.map((check) => check.message)).toContain(
      "Inner stands in Unit and Other, which differ in the material of panels; say on Inner which one it has.",
    );
  });
});
