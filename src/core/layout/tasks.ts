/**
 * From the tally to layout problems: one task for each section or board with one material. Settings come from the
 * stockroom and from what the job says otherwise; rack pieces stand beside the stock sizes.
 */
import type { BlankGroup, Job, LayoutSetting } from "../job";
import { byKey, byNaturalText, byNumber, fromNm, inTurn } from "../kernel";
import type { LengthStyle } from "../measure";
import {
  type BoardEntry,
  boardInMaterial,
  EMPTY_RACK,
  isOfMaterial,
  type Rack,
  type RackUse,
  type SectionEntry,
  type Stockroom,
  sectionInMaterial,
  usableRack,
} from "../stockroom";
import type { PanelForm, Tally, TallyRow } from "../tally";
import type { BarProblem } from "./bars";
import { blankOf } from "./blank";
import { type PanelShape, panelShape } from "./panel-shape";
import { endsOf, leaningOf } from "./piece-ends";
import { barSettings, cutWay, shapeSettings, sheetSettings } from "./settings";
import type { ShapeProblem } from "./shapes";
import type { SheetProblem, Together } from "./sheets";

/** What a piece of a layout is called, and of which job it is when several are laid out together. */
export type LaidPiece = {
  readonly mark: string;
  readonly name: string;
  readonly job?: string;
  /** Finished length and width of a panel, where its blank is another size. */
  readonly finished?: readonly [number, number];
};

type Common = {
  /** Stock and material; the same as long as the job uses them. */
  readonly id: string;
  readonly stock: TaskStock;
  readonly name: string;
  readonly material: string | null;
  /** The row that each piece of the problem stands for. */
  readonly rows: readonly TallyRow[];
  readonly pieces: readonly LaidPiece[];
  readonly fingerprint: string;
};
export type BarTask = Common & {
  readonly kind: "bars";
  readonly entry: SectionEntry | null;
  readonly problem: BarProblem;
};
export type SheetTask = Common & {
  readonly kind: "sheets";
  readonly entry: BoardEntry | null;
  readonly problem: SheetProblem;
};
/** A board whose pieces are cut along their outlines. */
export type ShapeTask = Common & {
  readonly kind: "shapes";
  readonly entry: BoardEntry | null;
  readonly problem: ShapeProblem;
};
export type LayoutTask = BarTask | SheetTask | ShapeTask;
export type LayoutKind = LayoutTask["kind"];

/** What names a piece of a layout: its mark, with its job where several are laid out together. */
export const pieceKey = ({ mark, job }: LaidPiece) => (job === undefined ? mark : `${job} ${mark}`);

/** What of a job says how it is laid out. */
export type LayoutWishes = Pick<Job, "layoutSettings"> & {
  /** How lengths are written in words; without it in millimetres. */
  readonly style?: LengthStyle;
  /** Where several jobs are laid out together, each group is of one of them. */
  readonly blankGroups: Readonly<Record<string, BlankGroup & { readonly job?: string }>>;
};
const NO_WISHES: LayoutWishes = { layoutSettings: {}, blankGroups: {} };

export type TaskGround = {
  readonly stockroom: Stockroom;
  readonly wishes: LayoutWishes;
  readonly rack: Rack;
  readonly variant: string;
};

/** All layout tasks of a tally, in the order of the stockroom. */
export function layoutTasks(
  tally: Pick<Tally, "rows">,
  stockroom: Stockroom,
  wishes: LayoutWishes = NO_WISHES,
  rack: Rack = EMPTY_RACK,
  variant = "",
): readonly LayoutTask[] {
  const ground: TaskGround = { stockroom, wishes, rack, variant };
  const named = tally.rows.map((row): NamedRow => ({ row, job: null }));
  return tasksOfRows(named, ground);
}

/** The entry of the stockroom ("?" and a name where there is none) and the material of a task. */
export type TaskStock = { readonly entry: string; readonly material: string | null };

const stockOfRow = ({ stock, stockName, material }: TallyRow): TaskStock => ({
  entry: stock ?? `?${stockName ?? ""}`,
  material,
});

/** One task for each kind, stock and material. A colon in the name of a stock does not part it. */
const taskIdOf = (row: TallyRow) => {
  const { entry, material } = stockOfRow(row);
  return `${row.kind}:${entry.replaceAll(":", "%3A")}:${material ?? ""}`;
};

/** The stock that an id of a task names: for layouts that do not say it themselves. A material may have colons of its own. */
export function stockOfTask(taskId: string): TaskStock {
  const [, entry = "", ...material] = taskId.split(":");
  const named = material.join(":");
  return { entry: entry.replaceAll("%3A", ":"), material: named === "" ? null : named };
}

/** A row of the tally with the job that it comes from, when several are laid out together. */
export type NamedRow = { readonly row: TallyRow; readonly job: string | null };

export function tasksOfRows(named: readonly NamedRow[], ground: TaskGround): readonly LayoutTask[] {
  const groups = new Map<string, NamedRow[]>();
  for (const one of named) {
    const { row } = one;
    if (row.shown.form.kind === "none") continue;
    const id = taskIdOf(row);
    const known = groups.get(id);
    if (known) known.push(one);
    else groups.set(id, [one]);
  }
  const tasks = [...groups].map(([id, rows]) =>
    rows[0]?.row.kind === "member" ? barTask(id, rows, ground) : boardTask(id, rows, ground),
  );
  const { stockroom } = ground;
  const place = new Map([...stockroom.sections, ...stockroom.boards].map((entry, i) => [entry.id, i]));
  return tasks.sort(
    inTurn(
      byKey((task: LayoutTask) => (task.kind === "bars" ? 0 : 1), byNumber),
      byKey((task: LayoutTask) => (task.entry ? (place.get(task.entry.id) ?? 0) : 1e9), byNumber),
      byKey((task: LayoutTask) => task.id, byNaturalText),
    ),
  );
}

function barTask(id: string, named: readonly NamedRow[], ground: TaskGround): BarTask {
  const first = named[0]?.row;
  const entry = first?.stock ? (ground.stockroom.sectionById.get(first.stock) ?? null) : null;
  const settings = barSettings(entry, entry ? ground.wishes.layoutSettings[entry.id] : undefined);
  const problem: BarProblem = {
    ...styled(ground),
    kerf: settings.kerf,
    trim: { start: settings.trimStart, end: settings.trimEnd },
    grip: settings.grip,
    keep: settings.keep,
    share: settings.share,
    rackFirst: settings.rack === "first",
    stock: stockOf(entry, entry && sectionInMaterial(ground.stockroom, entry, first?.material ?? null)),
    pieces: named.map(({ row }) => {
      const ends = endsOf(row);
      return {
        length: row.shown.form.kind === "member" ? fromNm(row.shown.form.cutNm) : 0,
        qty: row.count,
        ends,
        ...(ends === null ? leaningOf(row) : {}),
      };
    }),
    fixed: [],
  };
  const rack = rackOf(id, entry, settings.rack, named, ground).filter(({ width }) => width === null);
  const pieces = named.map(({ row, job }) => laidPiece(row, job));
  const { pieces: sizes, style: _, ...said } = problem;
  return {
    kind: "bars",
    entry,
    ...common(id, named, entry?.name),
    pieces,
    fingerprint: fingerprintOf(said, sizes, pieces),
    problem: {
      ...problem,
      stock: [
        ...problem.stock,
        ...rack.map(({ id: rackId, length }) => ({ length, price: 0, count: 1, rack: rackId })),
      ],
    },
  };
}

/** A board's entry decides whether its pieces are parted by straight cuts or cut along their outlines. */
function boardTask(id: string, named: readonly NamedRow[], ground: TaskGround): SheetTask | ShapeTask {
  const stock = named[0]?.row.stock;
  const entry = stock ? (ground.stockroom.boardById.get(stock) ?? null) : null;
  const own = entry ? ground.wishes.layoutSettings[entry.id] : undefined;
  return cutWay(entry, own) === "outline"
    ? shapeTask({ id, entry, own, named, ground })
    : sheetTask({ id, entry, own, named, ground });
}

type OfBoard = {
  readonly id: string;
  readonly entry: BoardEntry | null;
  readonly own: LayoutSetting | undefined;
  readonly named: readonly NamedRow[];
  readonly ground: TaskGround;
};

function shapeTask({ id, entry, own, named, ground }: OfBoard): ShapeTask {
  const settings = shapeSettings(entry, own);
  const grain = entry?.grain ?? "length";
  const problem: ShapeProblem = {
    ...styled(ground),
    gap: settings.gap,
    margin: settings.trim,
    step: settings.turn,
    keep: settings.keep,
    rackFirst: settings.rack === "first",
    stock: stockOf(entry, ofMaterial(entry, named, ground)).map((sheet) => ({ ...sheet, grain })),
    shapes: named.map(({ row }) => {
      const { form } = row.shown;
      const own = form.kind === "panel" ? panelShape(form, ground.stockroom.edgingById) : NO_SHAPE;
      return {
        outline: own.outline.map((corner): ShapeCorner => [...corner]),
        holes: own.holes.map((hole) => ({ ...hole })),
        qty: row.count,
        grain: form.kind === "panel" && form.grain,
        // Without a good face it may be turned over; with one, its opposite hand is cut mirrored.
        opposite: form.kind === "panel" && form.goodFace ? row.hands.opposite : null,
      };
    }),
    fixed: [],
  };
  const pieces = named.map(({ row, job }): LaidPiece => {
    const { form } = row.shown;
    return { ...laidPiece(row, job), ...(form.kind === "panel" ? { finished: finishedOf(form) } : {}) };
  });
  const { shapes, style: _, ...said } = problem;
  return {
    kind: "shapes",
    entry,
    ...common(id, named, entry?.name),
    pieces,
    fingerprint: fingerprintOf({ ...said, cut: "outline" }, shapes, pieces),
    problem: {
      ...problem,
      stock: [
        ...problem.stock,
        ...rackOf(id, entry, settings.rack, named, ground).flatMap(({ id: rackId, length, width }) =>
          width === null ? [] : [{ length, width, price: 0, count: 1, grain, rack: rackId }],
        ),
      ],
    },
  };
}

type ShapeCorner = ShapeProblem["shapes"][number]["outline"][number];
const NO_SHAPE: PanelShape = { outline: [], holes: [] };

function sheetTask({ id, entry, own, named, ground }: OfBoard): SheetTask {
  const settings = sheetSettings(entry, own);
  const grain = entry?.grain ?? null;
  const blanks = named.map(({ row }) =>
    row.shown.form.kind === "panel"
      ? blankOf(row.shown.form, ground.stockroom.edgingById, settings.allowance)
      : { length: 0, width: 0 },
  );
  const problem: SheetProblem = {
    ...styled(ground),
    kerf: settings.kerf,
    trim: settings.trim,
    stages: settings.stages,
    keep: settings.keep,
    rackFirst: settings.rack === "first",
    stock: stockOf(entry, ofMaterial(entry, named, ground)).map((sheet) => ({ ...sheet, grain })),
    panels: named.map(({ row }, i) => ({
      length: blanks[i]?.length ?? 0,
      width: blanks[i]?.width ?? 0,
      qty: row.count,
      grain: row.shown.form.kind === "panel" && row.shown.form.grain,
    })),
    together: togetherOf(named, ground.wishes),
    fixed: [],
  };
  const { panels: sizes, style: _, ...said } = problem;
  const rack = rackOf(id, entry, settings.rack, named, ground);
  const pieces = named.map(({ row, job }, i) => {
    const { form } = row.shown;
    const blank = blanks[i];
    const finished = form.kind === "panel" ? finishedOf(form) : null;
    const same = finished === null || (finished[0] === blank?.length && finished[1] === blank.width);
    return { ...laidPiece(row, job), ...(same ? {} : { finished }) };
  });
  return {
    kind: "sheets",
    entry,
    ...common(id, named, entry?.name),
    pieces,
    fingerprint: fingerprintOf(said, sizes, pieces),
    problem: {
      ...problem,
      stock: [
        ...problem.stock,
        ...rack.flatMap(({ id: rackId, length, width }) =>
          width === null ? [] : [{ length, width, price: 0, count: 1, grain, rack: rackId }],
        ),
      ],
    },
  };
}

const styled = ({ wishes: { style } }: TaskGround) => (style ? { style } : {});

const ofMaterial = (entry: BoardEntry | null, named: readonly NamedRow[], { stockroom }: TaskGround) =>
  entry && boardInMaterial(stockroom, entry, named[0]?.row.material ?? null);

/**
 * The sizes that a stock comes in. `priced` is the entry of the material that is wanted; without one the sizes are those of
 * the entry itself, and what they cost is not known.
 */
function stockOf<S extends { readonly price: number | null }>(
  entry: { readonly stock: readonly S[] } | null,
  priced: { readonly stock: readonly S[] } | null,
) {
  const sizes: readonly S[] = priced
    ? priced.stock
    : (entry?.stock ?? []).map((one) => ({ ...one, price: null }));
  return sizes.map((one) => ({ ...one, rack: null }));
}

const finishedOf = (form: PanelForm) => [fromNm(form.lengthNm), fromNm(form.widthNm)] as const;

const laidPiece = ({ mark, name }: TallyRow, job: string | null): LaidPiece =>
  job === null ? { mark, name } : { mark, name, job };

function rackOf(
  id: string,
  entry: SectionEntry | BoardEntry | null,
  use: RackUse,
  named: readonly NamedRow[],
  { rack, variant }: TaskGround,
) {
  if (use === "none" || !entry) return [];
  const material = named[0]?.row.material ?? entry.material;
  return usableRack(rack, { entry: entry.id, id, variant }).filter((one) =>
    isOfMaterial(one.material ?? entry.material, material),
  );
}

/**
 * Keep-together groups of one task. A group is cut as often as there are pieces for all of its places; one with a panel of
 * another board is none here.
 */
function togetherOf(named: readonly NamedRow[], wishes: LayoutWishes): Together[] {
  const rowOf = new Map<string, { readonly index: number; readonly quantity: number }>();
  const keyOf = (id: string, job: string | null | undefined) => `${job ?? ""}/${id}`;
  named.forEach(({ row, job }, index) => {
    for (const piece of row.pieces) {
      const key = keyOf(piece.id, job);
      rowOf.set(key, { index, quantity: (rowOf.get(key)?.quantity ?? 0) + piece.quantity });
    }
  });
  return Object.values(wishes.blankGroups).flatMap((group): Together[] => {
    const places = group.panels.map((id) => rowOf.get(keyOf(id, group.job)));
    const panels = places.flatMap((place) => (place ? [place.index] : []));
    if (panels.length < group.panels.length) return [];
    const qty = Math.min(
      ...group.panels.map((id) => {
        const times = group.panels.filter((other) => other === id).length;
        return Math.floor((rowOf.get(keyOf(id, group.job))?.quantity ?? 0) / times);
      }),
    );
    return qty === 0 ? [] : [{ panels, along: group.along, qty }];
  });
}

function common(
  id: string,
  named: readonly NamedRow[],
  name: string | undefined,
): Pick<Common, "id" | "stock" | "name" | "material" | "rows"> {
  const first = named[0]?.row;
  return {
    id,
    stock: first ? stockOfRow(first) : stockOfTask(id),
    name: name ?? first?.stockName ?? (first?.kind === "panel" ? "No board chosen" : "No section chosen"),
    material: first?.material ?? null,
    rows: named.map(({ row }) => row),
  };
}

/** Settings and stock, then sizes and counts, then marks: so that what has changed since can be told. */
const fingerprintOf = (settings: object, sizes: readonly object[], pieces: readonly LaidPiece[]): string =>
  JSON.stringify([settings, sizes, pieces.map(({ mark, job }) => [mark, job ?? ""])]);

/** The row that a piece of a task stands for today; null: the task or the piece is gone. */
export type RowFinder = (piece: LaidPiece) => TallyRow | null;

/** Finds the rows of one task among those of today. */
export function rowFinder(tasks: readonly LayoutTask[], taskId: string): RowFinder {
  const task = tasks.find((one) => one.id === taskId);
  const rows = new Map(task?.pieces.map((piece, i) => [pieceKey(piece), task.rows[i] ?? null]));
  return (piece) => rows.get(pieceKey(piece)) ?? null;
}
