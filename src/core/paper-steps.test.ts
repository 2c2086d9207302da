/** Sizes of equal steps: proposed, drawn, counted for the places of pieces, and told when they are not equal any more. */
import { describe, expect, it } from "vitest";
import { itemFaultWords, joinedSteps, partedSteps } from "./drawing";
import { type Job, jobStyle, NO_ASSETS, newJob, type PageItem, type PanelParts, resolveSizes } from "./job";
import { at, LENGTH_TOLERANCE_MM } from "./kernel";
import { formatLength, parseLength } from "./measure";
import { catchGrounds } from "./paper-set";
import { done, drawn, faultOf, PAGE, placed, view, withItems } from "./paper-set.fixture";
import { STOCK } from "./pipeline.fixture";
import { changedShapes, itemsOfSizes, placingOf, toldByDesign, verifyPlacing } from "./placing";
import { rebuilt } from "./placing/placing.oracle";
import { createPlacings } from "./placings";
import { shapeJob } from "./shape";

/** A side with shelves on it, one above the other. */
function shelvesAt(...heights: readonly number[]): Job {
  const shelf = (z: number): PanelParts => ({
    name: "Shelf",
    board: "ply",
    origin: ["18", "0", String(z)],
    lengthAxis: ["1", "0", "0"],
    faceAxis: ["0", "0", "1"],
    length: "500",
    width: "300",
  });
  const job = newJob({
    info: { code: "S", title: "Shelves" },
    panels: {
      side: {
        name: "Side",
        board: "ply",
        origin: ["0", "300", "0"],
        lengthAxis: ["0", "0", "1"],
        faceAxis: ["1", "0", "0"],
        length: "900",
        width: "300",
      },
      ...Object.fromEntries(heights.map((z, i) => [`shelf${i + 1}`, shelf(z)])),
    },
  });
  return withItems(
    done(job, { kind: "setPages", pages: [PAGE] }),
    view("v", { from: { kind: "named", side: "front" } }),
  );
}

function withSizes(job: Job): { readonly job: Job; readonly sizes: readonly PageItem[] } {
  const { page, results } = drawn(job, [], NO_ASSETS, true);
  const inputs = { job, results, stockroom: STOCK, assets: NO_ASSETS, variant: null };
  const proposed = createPlacings().propose(inputs, "p", null);
  let count = 0;
  const newId = () => `s${++count}` as PageItem["id"];
  const sizes = itemsOfSizes(proposed, page, catchGrounds(page, inputs), jobStyle(job), newId);
  return { job: withItems(job, ...sizes), sizes };
}

const stepped = (sizes: readonly PageItem[]) =>
  sizes.flatMap((item) => (item.kind === "size" && item.between.length > 0 ? [item] : []));
const textsOf = (job: Job, id: string) =>
  placed(job, id).items.flatMap((item) => (item.kind === "text" ? [item.text] : []));

function homeOf(job: Job) {
  const shape = shapeJob(job, resolveSizes(job, null), STOCK);
  const others = changedShapes({ job, variant: null, shape }, STOCK, () => shapeJob);
  return at(placingOf(toldByDesign(job, shape, others, NO_ASSETS), job, shape, null, NO_ASSETS).homes, 0);
}

describe("steps by hand", () => {
  const { sizes } = withSizes(shelvesAt(90, 223.36, 356.72, 490.08, 623.44));
  const [steps] = stepped(sizes);
  if (!steps) throw new Error("there is a size of steps");
  let count = 0;
  const newId = () => `new${++count}` as PageItem["id"];

  it("are parted into sizes from place to place, and joined again in whatever order they are picked", () => {
    const parted = partedSteps(steps, newId);
    expect(parted).toHaveLength(4);
    expect(parted[0]?.id).toBe(steps.id);
    expect(parted.map(({ from }) => from.record)).toEqual(["shelf5", "shelf4", "shelf3", "shelf2"]);
    for (const one of parted) expect(one).toMatchObject({ between: [], side: steps.side, out: steps.out });
    const shuffled = [2, 0, 3, 1].map((i) => at(parted, i));
    expect(joinedSteps(shuffled)).toEqual({ ...steps, id: at(shuffled, 0).id });
    // One that was picked from its far end is turned round.
    const [first, second, ...others] = parted;
    if (!first || !second?.to) throw new Error("there are four");
    const turned = { ...second, from: second.to, to: second.from };
    expect(joinedSteps([first, turned, ...others])).toEqual({ ...steps, id: first.id });
  });

  it("are not joined where they do not follow one another, or measure otherwise", () => {
    const [first, , third] = partedSteps(steps, newId);
    if (!first || !third) throw new Error("there are four");
    expect(joinedSteps([first, third])).toBeNull();
    expect(joinedSteps([first])).toBeNull();
    const [a, b] = partedSteps(steps, newId);
    if (!a || !b) throw new Error("there are four");
    expect(joinedSteps([a, { ...b, measure: "along" }])).toBeNull();
    expect(joinedSteps([a, { ...b, view: "w" }])).toBeNull();
  });
});

describe("equal steps", () => {
  const heights = [90, 223.36, 356.72, 490.08, 623.44];
  const { job, sizes } = withSizes(shelvesAt(...heights));
  const [steps] = stepped(sizes);

  it("are proposed as one size, which says how many there are, how large one is, and the whole", () => {
    expect(stepped(sizes)).toHaveLength(1);
    expect(steps?.between).toHaveLength(3);
    expect(textsOf(job, steps?.id ?? "")).toEqual(["4 × 133.4 (= 533.4)"]);
    // A stroke at each end and at each place between, and as many extension lines.
    const lines = placed(job, steps?.id ?? "").items.filter(({ kind }) => kind === "line");
    expect(lines).toHaveLength(1 + 5 + 5);
    // As many sizes as there are without steps, less those that are joined.
    const { sizes: uneven } = withSizes(shelvesAt(90, 223.36, 360, 490.08, 623.44));
    expect(sizes.length).toBe(uneven.length - 3);
  });

  it("place all pieces that stand at them, as the second solver finds too", () => {
    const home = homeOf(job);
    expect(home.loose).toEqual([]);
    expect(home.repeated).toEqual([]);
    expect(verifyPlacing(home)).toEqual({ movable: [], held: [] });
    const without = homeOf(done(job, { kind: "removePageItems", ids: [steps?.id ?? ""] }));
    const lost = new Set(without.loose.flatMap(({ bodies }) => bodies));
    expect(lost.size).toBe(4);
  });

  it("give the design back from the whole that is written, within what is told of its rounding", () => {
    const home = homeOf(job);
    const written = new Map(
      home.sizes.map(({ id, length, step }) => {
        const count = step?.count ?? 1;
        const style = jobStyle(job);
        const read = parseLength(formatLength((length ?? 0) * count, style, LENGTH_TOLERANCE_MM), style.unit);
        if (!read.ok) throw new Error("what is written can be read");
        return [id, read.value / count] as const;
      }),
    );
    const off = rebuilt(home, written, { seed: 3, off: 40 });
    expect(Math.max(...off)).toBeGreaterThan(0.01);
    expect(Math.max(...off)).toBeLessThanOrEqual((home.farthest?.mm ?? 0) + 1e-6);
  });

  it("are told when they are not equal any more, and then place nothing", () => {
    const moved = done(job, {
      kind: "changePanels",
      ids: ["shelf3"],
      set: { origin: ["18", "0", "360"] },
    });
    const unequal = faultOf(moved, steps?.id ?? "");
    expect(unequal).toMatchObject({ kind: "stepsUnequal" });
    expect(unequal && itemFaultWords(unequal)).toMatch(/not equal any more: from 130.1 to 136.6/);
    expect(homeOf(moved).loose.flatMap(({ bodies }) => bodies)).not.toEqual([]);
    const fewer = done(job, { kind: "remove", ids: ["shelf3"] });
    expect(faultOf(fewer, steps?.id ?? "")).toEqual({ kind: "sizeLost" });
  });

  it("that others say already are told once, as one size", () => {
    if (!steps) throw new Error("there is a size of steps");
    const twice = withItems(job, { ...steps, id: "again" as PageItem["id"], out: steps.out + 20 });
    const home = homeOf(twice);
    expect(home.repeated.map(({ size }) => size)).toEqual(["again"]);
    expect(home.repeated[0]?.from).toEqual([steps.id]);
  });
});
