/** Locks that are taken over into a layout that is made again: what stays, what is let go, and the sentence for it. */
import { describe, expect, it } from "vitest";
import { type LayoutTask, type SavedLayout, savedLayout, withLocks, withOwnLocks } from ".";
import { type BarLayout, readBarProblem } from "./bars";
import { readSheetProblem, type SheetLayout } from "./sheets";

const piece = (mark: string, job?: string) => ({ mark, name: mark, ...(job === undefined ? {} : { job }) });
const outcome = {
  cost: 0,
  count: 2,
  lowerBound: 0,
  lowerBoundOf: "count",
  proven: false,
  unplaced: [],
} as const;
type BarStock = { readonly length: number; readonly count?: number; readonly rack?: string };

/** A task of rails A of 900 and B of 500, and the layout that was kept for it: A and B locked on one bar, A and A on another. */
function barTask({
  stock = [{ length: 2000 }],
  pieces = [
    { length: 900, qty: 3 },
    { length: 500, qty: 1 },
  ],
  names = [piece("A"), piece("B")],
  kerf = 3,
}: {
  stock?: readonly BarStock[];
  pieces?: readonly { readonly length: number; readonly qty: number }[];
  names?: readonly ReturnType<typeof piece>[];
  kerf?: number;
} = {}) {
  const problem = readBarProblem({ kerf, stock: [...stock], pieces: [...pieces] });
  const common = {
    id: "t",
    fingerprint: "f",
    stock: { entry: "tube", material: null },
    name: "Tube",
    rows: [],
  };
  return { ...common, kind: "bars", problem, pieces: names } as unknown as Extract<
    LayoutTask,
    { kind: "bars" }
  >;
}
const bars: BarLayout = {
  ...outcome,
  bars: [
    { stock: 0, times: 1, pieces: [0, 1], locked: [0, 1], remainder: 597 },
    { stock: 0, times: 1, pieces: [0, 0], locked: [1], remainder: 197 },
  ],
};
const savedBars = savedLayout(barTask(), bars, 1, { id: "own" });
const taken = (task: ReturnType<typeof barTask>) => {
  const { problem, notes } = withLocks(task, savedBars);
  return { fixed: (problem as typeof task.problem).fixed, notes };
};

describe("locks of bars", () => {
  it("are what the layout says, each piece with its place on its bar", () => {
    const own = withOwnLocks(savedBars);
    expect(own.kind === "bars" && own.problem.fixed).toEqual([
      {
        stock: 0,
        pieces: [
          { piece: 0, place: 0 },
          { piece: 1, place: 1 },
        ],
      },
      { stock: 0, pieces: [{ piece: 0, place: 1 }] },
    ]);
    expect(savedBars.id).toBe("own");
    expect("id" in savedLayout(barTask(), bars, 1)).toBe(false);
  });

  it("are taken over with the pieces as they are numbered now, onto the stock as it is numbered now", () => {
    const swapped = barTask({
      stock: [{ length: 6000 }, { length: 2000, rack: "r" }, { length: 2000 }],
      pieces: [
        { length: 500, qty: 1 },
        { length: 900, qty: 3 },
      ],
      names: [piece("B"), piece("A")],
    });
    expect(taken(swapped)).toEqual({
      fixed: [
        {
          stock: 2,
          pieces: [
            { piece: 1, place: 0 },
            { piece: 0, place: 1 },
          ],
        },
        { stock: 2, pieces: [{ piece: 1, place: 1 }] },
      ],
      notes: [],
    });
  });

  it("are let go where there are fewer bars, or none of that length", () => {
    const one = taken(barTask({ stock: [{ length: 2000, count: 1 }] }));
    expect(one.fixed).toHaveLength(1);
    expect(one.notes).toEqual([
      "A: their bar of 2000 mm is not in stock any more. These pieces are unlocked.",
    ]);
    const none = taken(barTask({ stock: [{ length: 2100 }] }));
    expect(none.fixed).toEqual([]);
    expect(none.notes[0]).toBe(
      "A, B: their bar of 2000 mm is not in stock any more. These pieces are unlocked.",
    );
    // Two of that length, one of them in the rack under a name: each is its own stock.
    expect(taken(barTask({ stock: [{ length: 2000, rack: "r" }] })).fixed).toEqual([]);
  });

  it("are let go piece by piece: one that is gone, one of another size, one of which there are fewer", () => {
    const gone = taken(barTask({ names: [piece("A"), piece("C")] }));
    expect(gone.notes).toEqual(["B is unlocked: it is deleted, or fewer of it are needed."]);
    expect(gone.fixed[0]).toEqual({ stock: 0, pieces: [{ piece: 0, place: 0 }] });
    const longer = taken(
      barTask({
        pieces: [
          { length: 900, qty: 3 },
          { length: 550, qty: 1 },
        ],
      }),
    );
    expect(longer.notes).toEqual(["B is unlocked: its size changed from 500 mm to 550 mm."]);
    const fewer = taken(
      barTask({
        pieces: [
          { length: 900, qty: 1 },
          { length: 500, qty: 1 },
        ],
      }),
    );
    expect(fewer.fixed).toEqual([
      {
        stock: 0,
        pieces: [
          { piece: 0, place: 0 },
          { piece: 1, place: 1 },
        ],
      },
    ]);
    expect(fewer.notes).toHaveLength(1);
    // The same mark in another job is another piece.
    expect(taken(barTask({ names: [piece("A", "J-2"), piece("B")] })).notes).toContain(
      "A is unlocked: it is deleted, or fewer of it are needed.",
    );
  });

  it("are let go together where they fit one bar no more, and may then be locked elsewhere", () => {
    const wide = taken(barTask({ kerf: 601 }));
    expect(wide.notes).toEqual([
      "A, B: they do not fit one bar any more with kerf and trims as they are. These pieces are unlocked.",
    ]);
    // Only three of A are there: the one of the first bar counts again for the second.
    expect(wide.fixed).toEqual([{ stock: 0, pieces: [{ piece: 0, place: 1 }] }]);
  });

  it("of another way of cutting, or of no layout, are none", () => {
    const task = barTask();
    expect(withLocks(task, null)).toEqual({ problem: task.problem, notes: [] });
    const sheets = { ...savedBars, kind: "sheets" } as unknown as SavedLayout;
    expect(withLocks(task, sheets).notes).toEqual([]);
  });
});

describe("locks of sheets", () => {
  const problem = readSheetProblem({
    kerf: 4,
    stock: [{ length: 1000, width: 600, count: 2 }],
    panels: [{ length: 300, width: 200, qty: 4 }],
    together: [{ panels: [0, 0], along: "width", qty: 1 }],
  });
  const at = (x: number, y: number, more: object = {}) => ({
    panel: 0,
    x,
    y,
    length: 300,
    width: 200,
    rotated: false,
    ...more,
  });
  const run = { group: 0, run: 0 };
  const layout: SheetLayout = {
    ...outcome,
    utilisation: 0.4,
    sheets: [
      {
        stock: 0,
        offcuts: [],
        placements: [
          at(0, 0, { together: run, locked: true }),
          at(0, 204, { together: run, locked: true }),
          at(304, 0),
          at(304, 204, { locked: true, against: true }),
        ],
      },
    ],
  };
  const task = (more: object = {}) =>
    ({
      id: "t",
      fingerprint: "f",
      stock: { entry: "ply", material: null },
      name: "Ply",
      rows: [],
      kind: "sheets",
      problem: { ...problem, ...more },
      pieces: [piece("P")],
    }) as unknown as Extract<LayoutTask, { kind: "sheets" }>;
  const saved = savedLayout(task(), layout, 1);
  const fixed = (taken: { readonly problem: unknown }) => (taken.problem as typeof problem).fixed;

  it("keep their place, what keeps them together, and that they lie against the grain", () => {
    const own = withOwnLocks(saved);
    expect(own.kind === "sheets" && own.problem.fixed[0]?.placements).toEqual([
      { panel: 0, x: 0, y: 0, rotated: false, against: false, together: run },
      { panel: 0, x: 0, y: 204, rotated: false, against: false, together: run },
      { panel: 0, x: 304, y: 204, rotated: false, against: true },
    ]);
    const same = withLocks(task(), saved);
    expect(same.notes).toEqual([]);
    expect(fixed(same)).toEqual(own.kind === "sheets" && own.problem.fixed);
  });

  it("are single panels where nothing keeps them together any more", () => {
    const alone = withLocks(task({ together: [] }), saved);
    expect(fixed(alone)[0]?.placements.map(({ together }) => together)).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
    // Of two groups the one with the same panels keeps them.
    const groups = [
      { panels: [0, 0, 0], along: "width", qty: 1 },
      { panels: [0, 0], along: "width", qty: 1 },
    ];
    expect(fixed(withLocks(task({ together: groups }), saved))[0]?.placements[0]?.together?.group).toBe(1);
  });

  it("are let go where the sheet is another, or a wider blade has no room between them", () => {
    const stock = [{ ...problem.stock[0], width: 650 }];
    expect(withLocks(task({ stock }), saved).notes).toEqual([
      "P, P, P: the sheet of 1000 × 600 mm is not in stock any more. These pieces are unlocked.",
    ]);
    const wide = withLocks(task({ kerf: 5 }), saved);
    expect(fixed(wide)).toEqual([]);
    expect(wide.notes[0]).toMatch(/^P, P, P: locked, but .*\. These pieces are unlocked\.$/);
  });
});
