/**
 * Building steps: held against the tally (each piece once) and against a solid kernel that shares nothing with the method (nothing runs
 * into anything on its way in, manifold-3d over the meshes of the pictures).
 */
import fc from "fast-check";
import Module, { type Manifold } from "manifold-3d";
import { describe, expect, it } from "vitest";
import { generatedJob } from "../../../bench/generated";
import { noticeBoard } from "../../../demo/notice-board";
import { pottingBench } from "../../../demo/potting-bench";
import { seedPacketCabinet } from "../../../demo/seed-packet-cabinet";
import { shelfBrackets } from "../../../demo/shelf-brackets";
import { demoStockroom } from "../../../demo/stockroom";
import { arriving, unitNamesOf } from "../apart";
import type { Vec3 } from "../geometry";
import { manifoldOf } from "../geometry/manifold.fixture";
import {
  allOf,
  type Home,
  type Job,
  NO_ASSETS,
  newJob,
  type Page,
  plainPage,
  plainView,
  resolveSizes,
  type StepItem,
  type StepPart,
  withEdit,
} from "../job";
import { at } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import { createPipeline } from "../pipeline";
import { type Shape, shapeJob } from "../shape";
import { picturedMeshes } from "../shape/mesh.fixture";
import { stockroomOf } from "../stockroom";
import {
  builtIn,
  findSteps,
  joinedWithBefore,
  partedStep,
  proposedSteps,
  standingSteps,
  stepsBeside,
} from ".";

const kernel = await Module();
kernel.setup();
const stockroom = stockroomOf(demoStockroom);
const shapeOf = (job: Job): Shape => shapeJob(job, resolveSizes(job, null), stockroom);

const JOBS: readonly (readonly [string, Job])[] = [
  ["potting bench", pottingBench()],
  ["notice board", noticeBoard()],
  ["shelf brackets", shelfBrackets()],
  ["seed-packet cabinet", seedPacketCabinet()],
];

const pageNumber = (n: number): Page =>
  plainPage({ id: `page${n}` as Page["id"], heading: `Step ${n}`, position: n });

/** A step on a page of its own, with a view of it. */
function put(job: Job, n: number, step: Partial<StepItem> & Pick<StepItem, "home" | "comes">): Job {
  const page = pageNumber(n);
  const item: StepItem = {
    id: `step${n}` as StepItem["id"],
    page: page.id,
    kind: "step",
    at: [0, 0],
    width: 80,
    heading: `Step ${n}`,
    text: "",
    ...step,
  };
  const view = plainView({ id: `view${n}` as never, page: page.id, step: item.id });
  const edited = withEdit(job, {
    kind: "together",
    what: "a step",
    edits: [
      { kind: "setPages", pages: [page] },
      { kind: "setPageItems", items: [item, view] },
    ],
  });
  if (!edited.ok) throw new Error("the step fits");
  return edited.value;
}

/** A job with the steps that are proposed for all that stands in it. */
function withSteps(job: Job): Job {
  const shape = shapeOf(job);
  let [now, n] = [job, 0];
  for (const home of shape.places.keys())
    for (const { heading, text, comes } of proposedSteps(job, shape, home, NO_ASSETS))
      now = put(now, ++n, { home, heading, text, comes: [...comes] });
  return now;
}

const stepsOf = (job: Job, home: Home): readonly StepItem[] =>
  Object.values(job.pageItems)
    .filter((item): item is StepItem => item.kind === "step" && item.home === home)
    .sort((a, b) => at([job.pages[a.page]?.position ?? 0], 0) - at([job.pages[b.page]?.position ?? 0], 0));

/** Pieces by their records as often as they are built in, walking the steps and what their placements hold; by nothing of the module. */
function builtPieces(job: Job, shape: Shape): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  const walk = (home: Home, times: number): void => {
    for (const step of stepsOf(job, home))
      for (const { record, repeat } of step.comes) {
        const placement = job.placements[record];
        if (!placement) {
          counts.set(record, (counts.get(record) ?? 0) + times);
          continue;
        }
        // As often as it stands there: instances whose way ends with it, in one of its home.
        const repeats = new Set(
          (shape.places.get(placement.assembly) ?? []).flatMap(({ key }) => {
            const last = key.split("/").filter(Boolean).at(-1) ?? "";
            return last.startsWith(`${record}:`) ? [last] : [];
          }),
        );
        const own = repeat === null ? repeats.size : 1;
        // An assembly with nothing to put together has no steps of its own.
        if (stepsOf(job, placement.assembly).length > 0) walk(placement.assembly, times * own);
        else
          for (const { record: inner } of unitNamesOf(shape, placement.assembly))
            counts.set(inner, (counts.get(inner) ?? 0) + times * own);
      }
  };
  walk(null, 1);
  return counts;
}

describe.each(JOBS)("the steps of the %s", (_, start) => {
  const job = withSteps(start);
  const shape = shapeOf(job);

  it("build in each piece as often as the tally counts it", () => {
    const { tally } = createPipeline()(job, null, stockroom, []);
    const built = builtPieces(job, shape);
    const { batch } = job.info.job;
    let rows = 0;
    for (const row of tally.rows) {
      if (row.pieces.every(({ id }) => job.boughtParts[id])) continue;
      const count =
        [...new Set(row.pieces.map(({ id }) => id))].reduce((sum, id) => sum + (built.get(id) ?? 0), 0) *
        batch;
      expect(count, row.name).toBe(row.hands.asDrawn + row.hands.opposite);
      rows++;
    }
    expect(rows).toBeGreaterThan(3);
    for (const { steps, never, uneven } of standingSteps(job, shape).values()) {
      expect([never, uneven]).toEqual([[], []]);
      expect(steps.flatMap(({ again, gone }) => [...again, ...gone])).toEqual([]);
    }
  });

  it("take every bought part of their home", () => {
    for (const { part, count } of shape.bought) {
      if (count === null || count === 0) continue;
      const taking = stepsOf(job, part.assembly).filter(({ comes }) =>
        comes.some(({ record }) => record === part.id),
      );
      expect(taking.length, part.name).toBe(1);
    }
  });

  it("leave nothing blocked, and no piece runs into another on its way in, by another kernel", () => {
    const solids = new Map<string, Manifold>();
    for (const { record, mesh } of picturedMeshes(shape)) {
      const solid = manifoldOf(kernel, mesh);
      if (solid.status() === "NoError" && !solid.isEmpty() && !solids.has(record)) solids.set(record, solid);
    }
    const moved = (solid: Manifold, way: Vec3, by: number) =>
      solid.translate([way[0] * by, way[1] * by, way[2] * by]);
    let tried = 0;
    const hits = new Set<string>();
    const find = findSteps(job);
    for (const step of stepsOf(job, null)) {
      const asked = find(step.id);
      if (!asked) throw new Error("it is there");
      const { there, coming } = builtIn(asked, shape);
      const { removals, blocked } = arriving(shape, null, NO_ASSETS, { there, coming });
      expect(blocked).toEqual([]);
      const left = new Set(there);
      for (const { units } of removals) {
        for (const { key, way } of units) {
          const solid = solids.get(key);
          if (!solid) continue;
          for (const other of left) {
            const against = solids.get(other);
            if (!against) continue;
            const rest = solid.intersect(against).volume();
            for (const by of [1, 6, 25, 150, 1_000]) {
              tried++;
              if (moved(solid, way, by).intersect(against).volume() - rest > 50) hits.add(`${key} ${other}`);
            }
          }
        }
        for (const { key } of units) left.add(key);
      }
    }
    expect([...hits].join("; ")).toBe("");
    expect(tried).toBeGreaterThan(20);
  });
});

describe("a frame of metal", () => {
  it("is built before what lies on it, in the order of its joints", () => {
    const job = pottingBench();
    const steps = proposedSteps(job, shapeOf(job), null, NO_ASSETS);
    const stepOf = (name: string) =>
      steps.findIndex(({ comes }) => comes.some(({ record }) => job.members[record]?.name === name));
    expect(stepOf("Front leg")).toBeGreaterThan(stepOf("Top rail"));
    expect(stepOf("Low rail")).toBeGreaterThan(stepOf("Front leg"));
    expect(stepOf("Shelf rail")).toBeGreaterThan(stepOf("Low rail"));
    expect(stepOf("Hanging rail")).toBeGreaterThan(stepOf("Rear post"));
    expect(stepOf("Shelf slat")).toBeGreaterThan(stepOf("Shelf rail"));
    expect(steps.find(({ heading }) => heading.includes("Shelf rail"))?.text).toBe(
      "Shelf rail: against Low rail.",
    );
  });
});

it("frames that are alike are built side by side: ten bays have no more steps than one", () => {
  // Bays of two widths.
  const stepsOfBays = (pieces: number, widths: number) => {
    const shape = shapeOf(generatedJob(pieces, widths));
    const steps = proposedSteps(generatedJob(pieces, widths), shape, null, NO_ASSETS);
    const records = steps.flatMap(({ comes }) => comes.map(({ record }) => record));
    expect(new Set(records).size).toBe(records.length);
    expect(records.length).toBe(unitNamesOf(shape, null).length);
    // A ring is mitred before its legs are cut against it.
    const stepOf = (record: string) =>
      steps.findIndex(({ comes }) => comes.some((part) => part.record === record));
    for (let bay = 0; bay < pieces / 20; bay++)
      expect(stepOf(`leg0-${bay}`)).toBeGreaterThan(stepOf(`rail0-${bay}`));
    return steps.length;
  };
  expect(stepsOfBays(200, 1)).toBe(stepsOfBays(20, 1));
  expect(stepsOfBays(200, 2)).toBe(stepsOfBays(40, 2));
});

describe("a step whose way is barred", () => {
  const job = seedPacketCabinet();
  const shape = shapeOf(job);
  const home = (Object.values(job.assemblies).find(({ name }) => name === "Drawer")?.id ?? null) as Home;
  const names = unitNamesOf(shape, home);
  const bottom = names.find(({ record }) => job.panels[record]?.name === "Drawer bottom")?.key ?? "";

  it("says what cannot get in: a bottom in grooves after all four sides", () => {
    const there = names.map(({ key }) => key).filter((key) => key !== bottom);
    expect(arriving(shape, home, NO_ASSETS, { there, coming: [bottom] }).blocked).toEqual([bottom]);
    expect(arriving(shape, home, NO_ASSETS, { there: [bottom], coming: there }).blocked).toEqual([]);
  });

  it("says what comes near to nothing that is there", () => {
    const knob = names.find(({ record }) => job.boughtParts[record]?.name === "Knob")?.key ?? "";
    const front = names.find(({ record }) => job.panels[record]?.name === "Drawer front")?.key ?? "";
    const looseWith = (there: readonly string[]) =>
      arriving(shape, home, NO_ASSETS, { there, coming: [knob] }).loose;
    expect(looseWith([bottom])).toEqual([knob]);
    expect(looseWith([bottom, front])).toEqual([]);
  });
});

describe("steps by hand", () => {
  const start = seedPacketCabinet();
  const shape = shapeOf(start);
  const units = unitNamesOf(shape, null);
  const records = [...new Set(units.map(({ record }) => record))];

  it("count each unit once, where it is named first; the rest is never, or again, or gone", () => {
    const partOf = fc.oneof(
      fc.constantFrom(...records).map(allOf),
      fc.constantFrom(...units).map(({ record, repeat }): StepPart => ({ record, repeat, count: null })),
      fc.constant(allOf("nobody")),
    );
    const plans = fc.array(fc.array(partOf, { maxLength: 6 }), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(plans, (plan) => {
        const job = plan.reduce((now, comes, i) => put(now, i + 1, { home: null, comes }), start);
        const found = standingSteps(job, shapeOf(job)).get(null);
        if (!found) throw new Error("there are steps");
        // By the words of the document, unit by unit.
        const named = (unit: (typeof units)[number]) =>
          plan.flat().some(({ record, repeat }) => repeat !== null && `${record}:${repeat}` === unit.key);
        const isIn = (unit: (typeof units)[number], part: StepPart) =>
          part.record === unit.record &&
          (part.repeat === unit.repeat || (part.repeat === null && !named(unit)));
        for (const unit of units) {
          const first = plan.findIndex((comes) => comes.some((part) => isIn(unit, part)));
          const where = found.steps.flatMap(({ coming }, i) =>
            coming.some(({ key }) => key === unit.key) ? [i] : [],
          );
          expect(where).toEqual(first < 0 ? [] : [first]);
          expect(found.never.some(({ key }) => key === unit.key)).toBe(first < 0);
        }
        found.steps.forEach(({ gone }, i) => {
          expect(gone.includes("nobody")).toBe(at(plan, i).some(({ record }) => record === "nobody"));
        });
      }),
      { numRuns: lawRuns(40) },
    );
  });

  it("tell of what is built in twice", () => {
    const [first] = records;
    if (first === undefined) throw new Error("there are pieces");
    const once = put(start, 1, { home: null, comes: [allOf(first)] });
    const twice = put(once, 2, { home: null, comes: [allOf(first)] });
    const found = standingSteps(twice, shape).get(null);
    expect(found?.steps.map(({ again }) => again)).toEqual([[], [first]]);
  });

  it("share a bought part by numbers; too few and too many are told", () => {
    const screws = Object.values(start.boughtParts).find(({ name }) => name === "Screws")?.id ?? "";
    const wanted = shape.bought.find(({ part }) => part.id === screws)?.count ?? 0;
    expect(wanted).toBeGreaterThan(10);
    const some = (count: number | null): StepPart => ({ record: screws, repeat: null, count });
    const plan = (...parts: readonly StepPart[]) =>
      standingSteps(
        parts.reduce((now, part, i) => put(now, i + 1, { home: null, comes: [part] }), start),
        shapeOf(start),
      ).get(null);
    expect(plan(some(4), some(null))?.steps.map(({ bought }) => bought[0]?.count)).toEqual([4, wanted - 4]);
    expect(plan(some(4), some(null))?.uneven).toEqual([]);
    expect(plan(some(4))?.uneven).toEqual([{ record: screws, wanted, taken: 4 }]);
    expect(plan(some(4), some(wanted))?.uneven).toEqual([{ record: screws, wanted, taken: wanted + 4 }]);
  });
});

describe("edits of steps", () => {
  const start = withSteps(pottingBench());
  const shape = shapeOf(start);
  let n = 0;
  const newId = () => `new${++n}`;
  const done = (job: Job, edit: Parameters<typeof withEdit>[1] | null | undefined): Job => {
    const next = edit ? withEdit(job, edit) : null;
    if (!next?.ok) throw new Error("the edit fits");
    return next.value;
  };
  const isComplete = (job: Job) => {
    const home = standingSteps(job, shape).get(null);
    return home?.never.length === 0 && home.steps.every(({ again }) => again.length === 0);
  };

  it("join a step with the one before it; its page goes, and each piece is built in once as before", () => {
    const second = at(stepsOf(start, null), 1);
    const job = done(start, joinedWithBefore(start, second));
    expect(stepsOf(job, null).length).toBe(stepsOf(start, null).length - 1);
    expect(job.pages[second.page]).toBeUndefined();
    expect(isComplete(job)).toBe(true);
    expect(joinedWithBefore(start, at(stepsOf(start, null), 0))).toBeNull();
  });

  it("part a step: a page right after it shows what was chosen", () => {
    const first = at(stepsOf(start, null), 0);
    const parts = first.comes.slice(0, 1);
    const made = partedStep(start, first, parts, newId);
    const job = done(start, made?.edit);
    const { after } = stepsBeside(job, first);
    expect(after?.comes).toEqual(parts);
    expect(job.pages[made?.page ?? ""]?.heading).toBe(after?.heading);
    const views = Object.values(job.pageItems).filter(
      (item) => item.kind === "view" && item.step === after?.id,
    );
    expect(views.map(({ page }) => page)).toEqual([made?.page]);
    expect(isComplete(job)).toBe(true);
    expect(partedStep(start, first, first.comes, newId)).toBeNull();
    expect(partedStep(start, first, [], newId)).toBeNull();
  });

  it("leave other things of a page where they are when its step is joined", () => {
    const second = at(stepsOf(start, null), 1);
    const note = {
      id: "note",
      page: second.page,
      kind: "note",
      at: [0, 0],
      text: "Mind the paint",
      letters: 3.5,
      width: null,
      strong: false,
    };
    const noted = done(start, { kind: "setPageItems", items: [note as never] });
    const job = done(noted, joinedWithBefore(noted, second));
    expect(job.pageItems["note"]?.page).toBe(second.page);
    expect(Object.values(job.pageItems).filter(({ page }) => page === second.page).length).toBe(1);
  });
});

it("a job without pieces has no steps", () => {
  const job = newJob({ info: { code: "T", title: "T" } });
  expect(proposedSteps(job, shapeOf(job), null, NO_ASSETS)).toEqual([]);
});
