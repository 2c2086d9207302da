import { describe, expect, it } from "vitest";
import { polygonArea, type Vec2 } from "../geometry";
import { asStockroom, type JobParts, newJob, type OutlineCorner, type PanelParts } from "../job";
import { at } from "../kernel";
import { createPipeline } from "../pipeline";
import { STOCK_DATA } from "../pipeline.fixture";
import { type StockroomInput, stockroomOf } from "../stockroom";
import {
  type LayoutTask,
  layoutKind,
  type NestingTask,
  piecesWithoutPlace,
  restsToKeep,
  type SavedLayout,
  savedFor,
  savedLayout,
  withLocks,
  withOwnLocks,
} from ".";
import { layOutNesting, moveShape, setShapeLock } from "./nesting";

const plate: StockroomInput["boards"][number] = {
  id: "plate",
  name: "Steel plate 6",
  material: "S235",
  thickness: 6,
  grain: null,
  densityKgM3: 7850,
  stock: [{ length: 600, width: 400, price: 20, count: null }],
  kerf: 2,
  trim: 10,
  stages: null,
  keep: 100,
  cut: "outline",
  gap: 8,
};
const STOCK = stockroomOf({ ...STOCK_DATA, boards: [...STOCK_DATA.boards, plate] });

const corner = (fromX: "left" | "right", fromY: "front" | "back", radius = "0"): OutlineCorner => ({
  id: `${fromX}-${fromY}`,
  fromX,
  x: "0",
  fromY,
  y: "0",
  radius,
});
const GUSSET = [corner("left", "front"), corner("right", "front"), corner("left", "back")];
const gusset: PanelParts = {
  name: "Gusset",
  board: "plate",
  length: "120",
  width: "90",
  grain: "any",
  outline: GUSSET,
};

const job = (panels: Record<string, PanelParts>, more: Partial<JobParts> = {}) =>
  newJob({ info: { code: "T", title: "Plates", batch: 4 }, panels, ...more });
function results(panels: Record<string, PanelParts>, wishes: object = {}) {
  const document = job(panels);
  const layoutSettings = { plate: { ...asStockroom("plate"), ...wishes } };
  return createPipeline()({ ...document, layoutSettings }, null, STOCK, []);
}
function nestingTask(panels: Record<string, PanelParts> = { gusset }, wishes: object = {}): NestingTask {
  const [task] = results(panels, wishes).tasks;
  if (task?.kind !== "shapes") throw new Error("plates are cut along their outlines");
  return task;
}
const laid = (task: NestingTask): Extract<SavedLayout, { kind: "shapes" }> => {
  const layout = layOutNesting(task.problem, { seed: 1, now: () => 0, budgetMs: 1, passes: 2 });
  const saved = savedLayout(task, layout, 1);
  if (saved.kind !== "shapes") throw new Error("a layout of shapes");
  return saved;
};
const areaOf = (task: NestingTask, shape = 0) =>
  polygonArea(at(task.problem.shapes, shape).outline.map(([x, y]): Vec2 => [x, y]));

const notesOf = (task: LayoutTask) => layoutKind(task).notes(task.problem);

describe("a board that is cut along outlines", () => {
  it("gives its pieces with outline, holes, count and settings", () => {
    const { problem, pieces } = nestingTask();
    expect(problem).toMatchObject({ gap: 8, margin: 10, step: 90, keep: 100, rackFirst: false });
    expect(problem.shapes).toEqual([
      {
        outline: [
          [0, 0],
          [120, 0],
          [0, 90],
        ],
        holes: [],
        qty: 4,
        grain: false,
        opposite: null,
      },
    ]);
    expect(pieces[0]).toMatchObject({ name: "Gusset", finished: [120, 90] });
  });

  it("is cut straight through where the job says so, from blanks of the whole size", () => {
    const [task] = results({ gusset }, { cut: "through" }).tasks;
    expect(task?.kind === "sheets" && task.problem.panels).toMatchObject([
      { length: 120, width: 90, qty: 4 },
    ]);
  });

  it("takes notches out of the outline, holes right through along, and leaves blind ones to the bench", () => {
    const hole = {
      id: "h",
      kind: "hole",
      face: "good",
      diameter: "10",
      count: "1",
      step: "0",
      along: "length",
    } as const;
    const work = [
      { id: "n", kind: "notch", from: "front", distance: "30", width: "20", depth: "15" },
      { ...hole, x: "20", y: "60", depth: null },
      { ...hole, id: "b", x: "60", y: "60", depth: "3" },
    ] as const;
    const task = nestingTask({
      side: {
        ...gusset,
        outline: [
          corner("left", "front"),
          corner("right", "front"),
          corner("right", "back"),
          corner("left", "back"),
        ],
        work,
      },
    });
    expect(areaOf(task)).toBeWithinMm(120 * 90 - 20 * 15, 1e-6);
    expect(task.problem.shapes[0]?.holes).toEqual([{ x: 20, y: 60, diameter: 10 }]);
  });

  it("cuts a rectangle smaller by the edging that is deducted, its holes where the finished edges say", () => {
    const hole = {
      id: "h",
      kind: "hole",
      face: "good",
      x: "20",
      y: "60",
      diameter: "10",
      depth: null,
      count: "1",
      step: "0",
      along: "length",
    } as const;
    const { outline: _, ...whole } = gusset;
    const task = nestingTask({ side: { ...whole, edging: { left: "band" }, work: [hole] } });
    expect(task.problem.shapes[0]).toMatchObject({
      outline: [
        [1, 0],
        [120, 0],
        [120, 90],
        [1, 90],
      ],
      holes: [{ x: 20, y: 60 }],
    });
  });

  it("cuts the opposite hand of a good face mirrored", () => {
    const slanted = { ...gusset, goodFace: true };
    const other: PanelParts = {
      ...slanted,
      outline: [corner("left", "front"), corner("right", "front"), corner("right", "back")],
    };
    const task = nestingTask({ one: slanted, two: other });
    expect(task.problem.shapes).toHaveLength(1);
    expect(task.problem.shapes[0]).toMatchObject({ qty: 8, opposite: 4 });
    const { layout } = laid(task);
    const placed = layout.sheets.flatMap(({ placements }) => placements);
    expect(placed.filter((one) => one.mirrored)).toHaveLength(4);
  });

  it("counts its net area and its mass by the outline", () => {
    const { quantities } = results({ gusset });
    const line = quantities.lines.find(({ name }) => name === "Steel plate 6");
    // Four triangles of 120 × 90, 6 thick, of 7850 kg/m³.
    expect(line?.net).toBeWithinMm(4 * 0.0054, 5e-4);
    expect(line?.massKg).toBeWithinMm(4 * 0.0054 * 0.006 * 7850, 1e-9);
  });
});

describe("a saved layout along outlines", () => {
  it("is outdated when gap, design or the way of cutting changed, and says which", () => {
    const saved = laid(nestingTask());
    expect(savedFor(nestingTask(), [saved])?.outdated).toBeNull();
    expect(savedFor(nestingTask({ gusset }, { gap: 12 }), [saved])?.outdated).toMatchObject({
      settings: ["gap"],
      design: false,
    });
    expect(savedFor(nestingTask({ gusset: { ...gusset, length: "130" } }), [saved])?.outdated).toMatchObject({
      settings: [],
      design: true,
    });
    const [through] = results({ gusset }, { cut: "through" }).tasks;
    expect(through && savedFor(through, [saved])?.outdated?.kind).toBe("cutOtherwise");
  });

  it("hands its locks on, and tells which had to be let go", () => {
    const task = nestingTask();
    const saved = laid(task);
    const locked = withOwnLocks({
      ...saved,
      layout: setShapeLock(saved.layout, { sheet: 0, index: 0 }, true),
    });
    const again = withLocks(task, locked);
    expect(again.notes).toEqual([]);
    expect(again.problem.fixed).toHaveLength(1);
    const larger = withLocks(nestingTask({ gusset: { ...gusset, length: "130" } }), locked);
    expect(larger.notes).toEqual(["A is unlocked: its size changed from 120 × 90 mm to 130 × 90 mm."]);
    const margin = withLocks(nestingTask({ gusset }, { trim: 40 }), locked);
    expect(margin.notes).toEqual([
      "A: locked, but with the margin as it is one lies off the sheet. These pieces are unlocked.",
    ]);
    const [through] = results({ gusset }, { cut: "through" }).tasks;
    expect(through && withLocks(through, locked).problem.fixed).toEqual([]);
  });

  it("tells two locked pieces that a wider gap brings too near", () => {
    const saved = laid(nestingTask());
    const { problem } = saved;
    const beside = moveShape(
      problem,
      saved.layout,
      { sheet: 0, index: 1 },
      { sheet: 0, x: 300, y: 100, angle: 0, mirrored: false },
    );
    const near =
      beside.ok &&
      moveShape(
        problem,
        beside.value,
        { sheet: 0, index: 0 },
        { sheet: 0, x: 171, y: 100, angle: 0, mirrored: false },
      );
    if (!near || near.ok === false) throw new Error("there is room");
    const both = [0, 1].reduce(
      (layout, index) => setShapeLock(layout, { sheet: 0, index }, true),
      near.value,
    );
    const locked = withOwnLocks({ ...saved, layout: both });
    expect(withLocks(nestingTask({ gusset }, { gap: 20 }), locked).notes).toEqual([
      "A, A: locked, but with outlines and gap as they are two lie too near to one another. These pieces are unlocked.",
    ]);
  });

  it("lets a hand go of which there are fewer now", () => {
    const good = { ...gusset, goodFace: true };
    const back: PanelParts = {
      ...good,
      outline: [corner("left", "front"), corner("right", "front"), corner("right", "back")],
    };
    const saved = laid(nestingTask({ one: good, two: back }));
    const [sheet] = saved.layout.sheets;
    const index = sheet?.placements.findIndex((one) => one.mirrored) ?? -1;
    const locked = withOwnLocks({ ...saved, layout: setShapeLock(saved.layout, { sheet: 0, index }, true) });
    // Both as drawn now: eight of one hand, none of the other.
    const taken = withLocks(nestingTask({ one: good, two: good }), locked);
    expect(taken.notes).toEqual(["A is unlocked: fewer of this hand are needed."]);
    expect(taken.problem.fixed).toEqual([]);
  });

  it("puts the end of its sheet into the rack when that is worth keeping", () => {
    const saved = laid(nestingTask());
    const [rest] = restsToKeep(saved);
    expect(rest?.width).toBe(400);
    expect(rest?.length).toBeGreaterThan(250);
  });

  it("advises on pieces without a place, and notes what is odd", () => {
    const large = laid(nestingTask({ gusset: { ...gusset, length: "700" } }));
    expect(piecesWithoutPlace(large)[0]).toMatchObject({
      reason: "tooLargeTurned",
      why: "larger than every sheet, however it is turned",
      advice: "Let it turn in finer steps, join it from two, or buy a sheet of at least 720 × 110 mm",
    });
    expect(notesOf(nestingTask({ gusset }, { gap: 95 }))).toEqual([
      "The gap of 95 mm is wider than the narrowest piece of 90 mm; check both.",
    ]);
    expect(notesOf(nestingTask({ gusset }, { trim: 200 }))).toEqual([
      "The margin of 200 mm leaves nothing of a sheet of 600 × 400 mm; make it smaller.",
    ]);
  });
});
