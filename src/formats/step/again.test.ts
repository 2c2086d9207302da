/** A file that was changed and is read again over its earlier state: the trolley of the demo, made wider, with and without a castor. */
import { describe, expect, it } from "vitest";
import { modelOf } from "@/core/brep";
import {
  acceptedChanges,
  chosenBefore,
  type Difference,
  exists,
  type FoundFile,
  imported,
  keptPrints,
  keptWith,
  readAgain,
  scaledFile,
  type TakeWay,
  type Ways,
  withClosed,
} from "@/core/imports";
import { type Asset, type Assets, assetIdOf, emptyJob, type Job, NO_ASSETS, withEdit } from "@/core/job";
import { seededRandom, sentence } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import type { Stockroom } from "@/core/stockroom";
import { loadStepReader } from "@/engines/step-reader";
import { trolleyStep } from "../../../demo/trolley";
import { openBoardStep } from "./open-shell.fixture";
import { foundInStep } from "./read";
import { randomPieces, STOCKROOM } from "./round-trip.fixture";
import { writeStep } from "./write";

const reader = await loadStepReader();
const SIZES = { wide: 900, deep: 520, high: 760 };

function fileOf(text: string): FoundFile {
  const found = foundInStep("trolley.step", new TextEncoder().encode(text), reader);
  if (!found.ok) throw new Error(sentence(found.problem));
  return found.value;
}

let count = 0;
const newId = (kind: string) => `${kind}-${++count}`;
const orThrow = <T>(result: { ok: true; value: T } | { ok: false; problem: unknown }): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.problem));
  return result.value;
};

type Desk = { readonly job: Job; readonly stockroom: Stockroom; readonly assets: Assets };

const withAssets = (assets: Assets, more: readonly Asset[]): Assets =>
  new Map([...assets, ...more.map((asset) => [assetIdOf(asset), asset] as const)]);

function entered(file: FoundFile, ways: Ways = new Map()): Desk {
  const job = emptyJob({ code: "T", title: "T" });
  const first = imported(file, { ways }, job, STOCKROOM, newId);
  const { edit, assets } = keptWith(first, file.name, newId);
  return {
    job: orThrow(withEdit(job, edit)),
    stockroom: first.stockroom,
    assets: withAssets(new Map(), assets),
  };
}

/** What is told when a file is read again, and the job after some of it was accepted. */
function again(desk: Desk, file: FoundFile, take: (one: Difference) => boolean = () => true) {
  const [kept] = Object.values(desk.job.imports);
  if (!kept) throw new Error("nothing was kept");
  const before = orThrow(keptPrints(desk.assets.get(kept.asset), kept.name));
  const now = imported(file, {}, desk.job, desk.stockroom, newId);
  const told = readAgain(before, now.prints, (id) => exists(desk.job, id));
  const { edit, assets } = acceptedChanges(
    told,
    new Set(told.differences.filter(take)),
    now,
    desk.job,
    kept,
    newId,
  );
  return {
    told,
    desk: {
      ...desk,
      job: orThrow(withEdit(desk.job, edit)),
      assets: withAssets(desk.assets, assets),
    },
  };
}

const rowsOf = ({ job, stockroom }: Desk) => {
  const { tally } = createPipeline()(job, null, stockroom, []);
  expect(
    tally.checks.filter(({ severity, kind }) => severity === "error" && kind !== "noBoughtEntry"),
  ).toEqual([]);
  return tally.rows
    .map(({ name, count, shown: { form } }) => ({
      name,
      count,
      sizes:
        form.kind === "member"
          ? [form.cutNm]
          : form.kind === "panel"
            ? [form.lengthNm, form.widthNm].sort()
            : [],
    }))
    .sort((a, b) => (a.name < b.name ? -1 : 1));
};

describe("a file read again", () => {
  const first = fileOf(trolleyStep(SIZES));
  const wider = fileOf(trolleyStep({ ...SIZES, wide: 1100 }));

  it("begins with what was chosen for its parts: bought, left out, closed", () => {
    const keysOf = (file: FoundFile, start: string) =>
      file.products.flatMap(({ name, parts }) => (name.startsWith(start) ? parts.map(({ key }) => key) : []));
    const ways = new Map<string, TakeWay>([
      ...keysOf(first, "Deck").map((key) => [key, "bought"] as const),
      ...keysOf(first, "Castor").map((key) => [key, "leave"] as const),
    ]);
    const desk = entered(first, ways);
    const [kept] = Object.values(desk.job.imports);
    const { choices } = orThrow(keptPrints(kept && desk.assets.get(kept.asset), "trolley.step"));
    const { ways: now, gaps } = chosenBefore(wider, choices);
    for (const [start, way] of [
      ["Deck", "bought"],
      ["Castor", "leave"],
    ] as const) {
      expect(keysOf(wider, start).length).toBeGreaterThan(0);
      for (const key of keysOf(wider, start)) expect(now.get(key)).toBe(way);
    }
    expect(gaps.size).toBe(0);
    const read = imported(wider, { ways: now }, desk.job, desk.stockroom, newId);
    const names = (all: readonly { readonly name: string }[]) => all.map(({ name }) => name).toSorted();
    expect(names(read.edit.boughtParts)).toEqual(names(Object.values(desk.job.boughtParts)));
    expect(names(read.edit.boughtParts)).toContain("Deck");
    expect(names(read.edit.panels)).toEqual(names(Object.values(desk.job.panels)));

    const open = fileOf(openBoardStep("Shelf", [600, 300, 18], 0.2));
    const part = open.products.flatMap(({ parts }) => parts)[0];
    if (!part) throw new Error("no part");
    const closed = withClosed(open, new Map([[part.key, 0.3]]));
    const { prints } = imported(closed, {}, desk.job, desk.stockroom, newId);
    expect([...chosenBefore(open, prints.choices).gaps]).toEqual([[part.key, 0.3]]);
    expect([
      prints.scale,
      imported(scaledFile(closed, 25.4), {}, desk.job, desk.stockroom, newId).prints.scale,
    ]).toEqual([1, 25.4]);
    // What was kept before choices were kept has none.
    const { choices: _, scale: __, ...old } = prints;
    const asset = { kind: "read" as const, data: JSON.stringify(old) };
    expect(orThrow(keptPrints(asset, "old.step"))).toMatchObject({ choices: [], scale: 1 });
  });

  it("that says the same says no difference, and nothing changes", () => {
    const desk = entered(first);
    const { told, desk: after } = again(desk, first);
    expect([told.differences, told.same]).toEqual([[], 18]);
    expect({ ...after.job, imports: {} }).toEqual({ ...desk.job, imports: {} });
  });

  it("made wider: what moved and what grew is told with its values, the rest is not", () => {
    const { told } = again(entered(first), wider);
    const words = told.differences.map(({ kind, before, words }) => `${kind} ${before?.name}: ${words[0]}`);
    // Four long rails and two plates are longer; on the right stand two short rails a ring, two posts and two castors.
    expect(words.toSorted()).toEqual(
      [
        "changed Deck: size 940 × 560 → 1140 × 560",
        "changed Top: size 940 × 560 → 1140 × 560",
        ...Array.from({ length: 4 }, () => "changed Long rail: length 900 → 1100"),
        "moved Castor 80 mm with brake: moved by 200; 0; 0",
        "moved Castor 80 mm with brake: moved by 200; 0; 0",
        "moved Post: moved by 200; 0; 0",
        "moved Post: moved by 200; 0; 0",
        "moved Short rail: moved by 200; 0; 0",
        "moved Short rail: moved by 200; 0; 0",
      ].toSorted(),
    );
    expect(told.same).toBe(6);
  });

  it("accepted as a whole the job is what the file says, its points and joints are the same records", () => {
    const desk = entered(first);
    const { desk: after } = again(desk, wider);
    expect(rowsOf(after)).toEqual(rowsOf(entered(wider)));
    expect(Object.keys(after.job.points).toSorted()).toEqual(Object.keys(desk.job.points).toSorted());
    for (const [id, { line, start, end }] of Object.entries(desk.job.members))
      expect(after.job.members[id]).toMatchObject({ line, start, end });
    // Once more it says nothing new.
    expect(again(after, wider).told.differences).toEqual([]);
  });

  it("what was done by hand stays: a name, a role, a hole, a piece that was removed", () => {
    const desk = entered(first);
    const [rail] = Object.values(desk.job.members).filter(({ name }) => name === "Long rail");
    const [post] = Object.values(desk.job.members).filter(({ name }) => name === "Post");
    if (!rail || !post) throw new Error("no rail");
    const hole = {
      id: "hole-by-hand",
      kind: "hole" as const,
      face: "top" as const,
      from: "start" as const,
      along: "200",
      across: "0",
      diameter: "9",
      slot: "0",
      walls: "one" as const,
      count: "1",
      step: "0",
    };
    const hand = orThrow(
      withEdit(desk.job, {
        kind: "together",
        edits: [
          { kind: "changeMembers", ids: [rail.id], set: { name: "Handle rail", work: [hole] } },
          { kind: "remove", ids: [post.id] },
        ],
      }),
    );
    const { told, desk: after } = again({ ...desk, job: hand }, wider);
    expect(told.differences.some(({ before }) => before?.id === post.id)).toBe(false);
    expect(after.job.members[post.id]).toBeUndefined();
    expect(after.job.members[rail.id]).toMatchObject({ name: "Handle rail", work: [hole] });
    const rows = rowsOf(after);
    expect(rows.find(({ name }) => name === "Handle rail")?.sizes).toEqual([1140e6]);
  });

  it("holes of the file are known again where a piece moves", () => {
    const random = randomPieces(seededRandom(20), 40);
    const holed = Object.values(random.members).filter(({ work }) => work.length > 0);
    expect(holed.length).toBeGreaterThan(2);
    const stepOf = (job: Job) => {
      const { shape } = createPipeline()(job, null, STOCKROOM, []);
      return writeStep(modelOf(job, shape, NO_ASSETS), { name: "Holed", made: new Date(0), shop: "" });
    };
    // Everything stands a hundred farther up.
    const raised: Job = {
      ...random,
      points: Object.fromEntries(
        Object.entries(random.points).map(([id, point]) => [
          id,
          { ...point, at: [point.at[0], point.at[1], String(Number(point.at[2]) + 100)] as const },
        ]),
      ) as Job["points"],
    };
    const desk = entered(fileOf(stepOf(random)));
    const { told } = again(desk, fileOf(stepOf(raised)));
    const members = told.differences.filter(({ before }) => before?.kind === "member");
    expect(members.length).toBeGreaterThan(10);
    expect(members.map(({ kind, words }) => `${kind} ${words.join()}`)).toEqual(
      members.map(() => "moved moved by 0; 0; 100"),
    );
  });

  it("a point that somebody gave a formula is told before it loses it", () => {
    const desk = entered(first);
    const [kept] = Object.values(desk.job.imports);
    if (!kept) throw new Error("nothing was kept");
    // The corner of the lower ring on the right, which moves.
    const bound = Object.values(desk.job.points).find(({ at: [x] }) => Number(x) === 900);
    if (!bound) throw new Error("no corner");
    const job = orThrow(
      withEdit(desk.job, {
        kind: "changePoint",
        id: bound.id,
        set: { at: ["2 * 450", bound.at[1], bound.at[2]] },
      }),
    );
    const now = imported(wider, {}, job, desk.stockroom, newId);
    const told = readAgain(
      orThrow(keptPrints(desk.assets.get(kept.asset), kept.name)),
      now.prints,
      () => true,
    );
    const change = (taken: readonly Difference[]) =>
      acceptedChanges(told, new Set(taken), now, job, kept, newId).told;
    expect(change(told.differences).join()).toContain(
      `1 point with formulas would stand at plain numbers from then on: ${bound.name}`,
    );
    expect(change(told.differences.filter(({ before }) => before?.kind === "panel"))).toEqual([]);
  });

  it("accepted in part: what is not taken stays, stands for itself, and is told again", () => {
    const desk = entered(first);
    const isPlate = ({ before }: Difference) => before?.kind === "panel";
    const { desk: after } = again(desk, wider, isPlate);
    expect(rowsOf(after).find(({ name }) => name === "Deck")?.sizes).toEqual([1140e6, 560e6].sort());
    expect(rowsOf(after).find(({ name }) => name === "Long rail")?.sizes).toEqual([940e6]);
    expect(again(after, wider).told.differences).toHaveLength(10);
    // One rail alone: its far end leaves the corner that the others keep.
    let isFirst = true;
    const one = again(after, wider, ({ before }) => {
      const take = before?.name === "Long rail" && isFirst;
      if (take) isFirst = false;
      return take;
    }).desk;
    // Its mitre does not meet what stayed, which a check says; nobody else moves.
    const { tally } = createPipeline()(one.job, null, one.stockroom, []);
    const faults = tally.checks.filter(
      ({ severity, kind }) => severity === "error" && kind !== "noBoughtEntry",
    );
    expect(faults.length).toBeGreaterThan(0);
    expect(tally.rows.find(({ name }) => name === "Long rail")?.count).toBe(3);
    expect(again(one, wider).told.differences).toHaveLength(9);
  });

  it("pieces that came and went", () => {
    const desk = entered(first);
    const few = {
      ...first,
      products: first.products.map((product) => ({
        ...product,
        parts: product.name === "Post" ? [] : product.parts,
      })),
    };
    const less = again(desk, few);
    expect(less.told.differences.map(({ kind, before }) => `${kind} ${before?.name}`)).toEqual(
      Array.from({ length: 4 }, () => "went Post"),
    );
    expect(rowsOf(less.desk).some(({ name }) => name === "Post")).toBe(false);
    const back = again(less.desk, first);
    expect(back.told.differences.map(({ kind, now }) => `${kind} ${now?.name}`)).toEqual(
      Array.from({ length: 4 }, () => "came Post"),
    );
    expect(rowsOf(back.desk)).toEqual(rowsOf(desk));
  });
});
