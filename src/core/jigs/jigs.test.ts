/** Every jig in mm and in inches, and parts lists worked out by hand. */
import { describe, expect, it } from "vitest";
import { slopeOf } from "../ends/ends.fixture";
import { emptyJob, type Job, withEdit } from "../job";
import { fromNm, sentence } from "../kernel";
import type { LengthUnit } from "../measure";
import { resultsOf, STOCK_DATA } from "../pipeline.fixture";
import { picturedMeshes } from "../shape/mesh.fixture";
import { stockroomOf } from "../stockroom";
import { fillJig, JIGS, type Jig } from ".";

const stockroom = stockroomOf({
  ...STOCK_DATA,
  sections: [
    ...STOCK_DATA.sections,
    {
      ...(STOCK_DATA.sections.find(({ id }) => id === "tube") as (typeof STOCK_DATA.sections)[number]),
      id: "oblong",
      name: "RHT 50 × 30 × 3",
      shape: { kind: "rectangularTube", size: [50, 30, 3], corners: "coldFormed" } as never,
    },
  ],
  boards: [
    ...STOCK_DATA.boards,
    {
      ...(STOCK_DATA.boards[0] as (typeof STOCK_DATA.boards)[number]),
      id: "thin",
      name: "Birch ply 6",
      thickness: 6,
    },
  ],
});
const jigOf = (id: string): Jig => {
  const jig = JIGS.find((one) => one.id === id);
  if (!jig) throw new Error(`there is a jig ${id}`);
  return jig;
};

function fill(
  id: string,
  values: Readonly<Record<string, string>>,
  more: { readonly unit?: LengthUnit; readonly keepSizes?: boolean; readonly job?: Job } = {},
) {
  const { unit = "mm", keepSizes = false } = more;
  const jig = jigOf(id);
  const defaults = Object.fromEntries(
    jig.fields.map((field) => [
      field.name,
      field.kind === "length"
        ? unit === "in"
          ? field.value.in
          : field.value.mm
        : field.kind === "count"
          ? String(field.value)
          : field.kind === "choice"
            ? (field.choices[0]?.[0] ?? "")
            : field.kind === "board"
              ? field.name === "board"
                ? "ply"
                : "thin"
              : field.kind === "timber"
                ? "lath"
                : "tube",
    ]),
  );
  let count = 0;
  let names = 0;
  const job = more.job ?? emptyJob({ code: "T", title: "T", unit });
  const edit = fillJig(
    job,
    jig,
    { values: { ...defaults, ...values }, place: "0; 0; 0", keepSizes, asAssembly: false, home: null },
    stockroom,
    (kind) => (kind === "pointName" ? `J${++names}` : `${kind}-${++count}`),
  );
  if (!edit.ok) throw new Error(sentence(edit.problem));
  const after = withEdit(job, edit.value);
  if (!after.ok) throw new Error(sentence(after.problem));
  return after.value;
}

const rows = (job: Job) =>
  resultsOf(job, stockroom).tally.rows.map(({ name, count, hands, shown: { form } }) => [
    name,
    count,
    ...(hands.opposite > 0 ? [`${hands.opposite} opposite`] : []),
    form.kind === "member"
      ? fromNm(form.cutNm)
      : form.kind === "panel"
        ? `${fromNm(form.lengthNm)} x ${fromNm(form.widthNm)}`
        : "",
  ]);

describe("every jig", () => {
  it.each(
    JIGS.flatMap((jig) =>
      (["mm", "in"] as const).flatMap((unit) =>
        [true, false].map((keepSizes) => [jig.id, unit, keepSizes] as const),
      ),
    ),
  )("%s in %s (key sizes: %s) is computed whole, balances and has no error", (id, unit, keepSizes) => {
    const job = fill(id, {}, { unit, keepSizes });
    const { shape, tally } = resultsOf(job, stockroom);
    expect(shape.uncomputed).toEqual([]);
    expect(tally.checks.filter((check) => check.severity === "error").map((check) => check.message)).toEqual(
      [],
    );
    expect(tally.balance.inRows).toBe(shape.members.length + shape.panels.length);
    expect(Object.keys(job.keySizes).length > 0).toBe(keepSizes);
  });

  it("follows its key sizes afterwards", () => {
    const job = fill("box-frame", {}, { keepSizes: true });
    const wider = withEdit(job, {
      kind: "setKeySize",
      id: Object.values(job.keySizes).find((size) => size.name === "width")?.id ?? "",
      formula: "1200",
      variant: null,
    });
    expect(wider.ok && rows(wider.value)).toContainEqual(["Top rail", 2, 1200]);
  });

  it("a second one of a kind gets key sizes and points of its own", () => {
    const first = fill("ladder", {}, { keepSizes: true });
    let count = 500;
    const edit = fillJig(
      first,
      jigOf("ladder"),
      {
        values: { width: "450", height: "2000", section: "tube", rung: "tube", rungs: "2" },
        place: "1000; 0; 0",
        keepSizes: true,
        asAssembly: false,
        home: null,
      },
      stockroom,
      (kind) => (kind === "pointName" ? `K${++count}` : `${kind}-${++count}`),
    );
    const both = edit.ok ? withEdit(first, edit.value) : edit;
    if (!both.ok) throw new Error(sentence(both.problem));
    expect(Object.values(both.value.keySizes).map((size) => size.name)).toEqual([
      "width",
      "height",
      "width_2",
      "height_2",
    ]);
    expect(new Set(Object.values(both.value.points).map((point) => point.name)).size).toBe(
      Object.keys(both.value.points).length,
    );
  });
});

describe("parts lists by hand", () => {
  it("box frame 1000 × 500 × 850 in 40 square with one lower ring", () => {
    expect(rows(fill("box-frame", {}))).toEqual([
      ["Top rail", 2, 1000],
      ["Low rail", 2, 920],
      ["Leg", 4, 810],
      ["Top end rail", 2, 500],
      ["Low end rail", 2, 420],
    ]);
  });

  it("box frame with its top between legs of another section, flush outside, and braces", () => {
    // Legs 50 × 30 with 50 across; rails of 40: 1000 − 2 · 50, 500 − 2 · 30.
    const legs = fill("box-frame", {
      section: "oblong",
      top: "tube",
      low_section: "tube",
      corners: "between",
    });
    expect(rows(legs)).toEqual(
      expect.arrayContaining([
        ["Leg", 4, 850],
        // Those of the low ring are the same pieces.
        ["Top rail", 4, 900],
        ["Top end rail", 4, 440],
      ]),
    );
    const box = picturedMeshes(resultsOf(legs, stockroom).shape).flatMap(({ mesh }) => mesh.vertices);
    const span = (axis: 0 | 1 | 2) => [
      Math.min(...box.map((v) => v[axis] as number)),
      Math.max(...box.map((v) => v[axis] as number)),
    ];
    expect(span(0)).toEqual([expect.closeTo(0, 6), expect.closeTo(1000, 6)]);
    expect(span(1)).toEqual([expect.closeTo(0, 6), expect.closeTo(500, 6)]);
  });

  it("braces run from 100 above the low ring to 100 under the top one, between the faces of the legs", () => {
    // 460 across from middle to middle and 410 up; between the faces 420, and half a section on each end more.
    const braced = rows(fill("box-frame", { braces: "ends" })).find(([name]) => name === "Brace");
    const rise = (850 - 40 - 100 - (180 + 20 + 100)) / 460;
    const length = 420 * Math.hypot(1, rise) + 40 * rise;
    expect(braced).toEqual(["Brace", 2, expect.closeTo(length, 3)]);
    expect(
      rows(fill("box-frame", { braces: "all", rings: "0" })).map(([name, count]) => [name, count]),
    ).toEqual(
      expect.arrayContaining([
        ["Brace", 2],
        ["Brace", 1],
      ]),
    );
  });

  it("a top ring whose long rails run through", () => {
    expect(rows(fill("box-frame", { corners: "butted", rings: "0" }))).toEqual(
      expect.arrayContaining([
        ["Top rail", 2, 1000],
        ["Top end rail", 2, 420],
        ["Leg", 4, 810],
      ]),
    );
  });

  it("rectangle 1000 × 600: mitred 1000 and 600; with the sides through 920 and 600", () => {
    expect(rows(fill("rectangle", {}))).toEqual([
      ["Rail", 2, 1000],
      ["Side", 2, 600],
    ]);
    expect(rows(fill("rectangle", { corners: "butted" }))).toEqual([
      ["Rail", 2, 920],
      ["Side", 2, 600],
    ]);
    expect(rows(fill("rectangle", { plane: "upright", section: "lath" }))).toEqual([
      ["Rail", 2, 1000],
      ["Side", 2, 600],
    ]);
  });

  it.each(["mitred", "butted"])(
    "a rectangle of flat sections, %s, is as thick as the section and lies in its plane",
    (corners) => {
      // Larch 45 × 20: 20 across the plane of the frame, 45 in it, lying or upright.
      for (const [plane, across] of [
        ["upright", 1],
        ["level", 2],
      ] as const) {
        const { shape } = resultsOf(fill("rectangle", { plane, section: "lath", corners }), stockroom);
        const span = (axis: number) => {
          const all = picturedMeshes(shape).flatMap(({ mesh }) =>
            mesh.vertices.map((vertex) => vertex[axis] ?? 0),
          );
          return Math.max(...all) - Math.min(...all);
        };
        expect(span(across)).toBeCloseTo(20, 6);
        expect([span(0), span(plane === "upright" ? 2 : 1)]).toEqual([
          expect.closeTo(1000, 6),
          expect.closeTo(600, 6),
        ]);
      }
    },
  );

  it("the sides of a carcass look at one another: grooves open inwards, left ends at the top of the left one", () => {
    const { shape } = resultsOf(fill("carcass", {}), stockroom);
    const sides = shape.panels
      .filter(({ panel }) => panel.name === "Side")
      .sort((a, b) => a.frame.origin[0] - b.frame.origin[0]);
    expect(sides.map(({ frame }) => frame.z.map((value) => Math.round(value) + 0))).toEqual([
      [1, 0, 0],
      [-1, 0, 0],
    ]);
    // Their own length runs down on the left and up on the right, so that the back is at the same edge of both.
    expect(sides.map(({ frame }) => frame.x.map((value) => Math.round(value) + 0))).toEqual([
      [0, 0, -1],
      [0, 0, 1],
    ]);
    expect(
      sides.map(({ panel }) => panel.work.every((one) => one.kind === "groove" && one.face === "good")),
    ).toEqual([true, true]);
    // Every groove of a side lies between the two sides' inner faces.
    const box = picturedMeshes(shape).flatMap(({ mesh }) => mesh.vertices.map(([x]) => x));
    expect([Math.min(...box), Math.max(...box)]).toEqual([expect.closeTo(0, 6), expect.closeTo(600, 6)]);
  });

  it("what is left empty is taken as empty, and told", () => {
    const jig = jigOf("rectangle");
    const edit = fillJig(
      emptyJob({ code: "T", title: "T" }),
      jig,
      { values: {}, place: "0; 0; 0", keepSizes: false, asAssembly: false, home: null },
      stockroom,
      (kind) => kind,
    );
    expect(edit.ok).toBe(false);
    if (!edit.ok) expect(sentence(edit.problem)).toMatch(/empty|choose|needs/i);
  });

  it("carcass 600 × 800 × 320 in 18 with a 6 back and two shelves, grooves 6 deep, back 10 in", () => {
    // Between the sides 600 − 36 = 564; housed 6 at each end 576. Shelves end at the back: 320 − 10 − 6 = 304.
    // Back: 576 across, 800 − 36 + 12 = 776 high.
    const job = fill("carcass", {});
    expect(rows(job)).toEqual([
      // Equal clear heights make a side symmetric end for end: left and right are twins, no hands.
      ["Side", 2, "800 x 320"],
      ["Bottom", 2, "576 x 320"],
      ["Shelf", 2, "576 x 304"],
      ["Back", 1, "776 x 576"],
    ]);
    // Clear heights (800 − 4 × 18) / 3 = 242.667: shelves stand at 260.667 and 521.333.
    const shelves = resultsOf(job, stockroom).shape.panels.filter((solid) => solid.panel.name === "Shelf");
    expect(shelves.map((solid) => solid.frame.origin[2])).toEqual([
      expect.closeTo(260.6667, 3),
      expect.closeTo(521.3333, 3),
    ]);
  });

  it("drawer box 500 × 450 × 120 in 18 with a 6 floor: sides 450, front and back 464, floor 474 × 424", () => {
    expect(rows(fill("drawer-box", {}))).toEqual([
      ["Drawer front", 2, "464 x 120"],
      ["Drawer side", 2, "450 x 120"],
      ["Drawer bottom", 1, "474 x 424"],
    ]);
  });

  it("splayed stand: the legs' length and angles from plane geometry of the splay (hand formula, two planes)", () => {
    const { shape } = resultsOf(fill("splayed-stand", {}), stockroom);
    const legs = shape.members.filter((solid) => solid.member.name === "Splayed leg");
    expect(legs).toHaveLength(4);
    // Foot to corner: 120 out each way on a rise of 680; the level cuts part 700 − 40 = 660 of height.
    const lean = Math.hypot(120, 120) / 680;
    for (const { start, end, lengths } of legs) {
      // A level plane cuts a bar that leans by θ at θ from square.
      expect(Math.hypot(...slopeOf(start.form))).toBeWithinMm(lean, 1e-9);
      expect(Math.hypot(...slopeOf(end.form))).toBeWithinMm(lean, 1e-9);
      expect(lengths.centre).toBeWithinMm(660 * Math.sqrt(1 + lean ** 2), 1e-9);
    }
    const row = resultsOf(fill("splayed-stand", {}), stockroom).tally.rows.find(
      (one) => one.name === "Splayed leg",
    );
    expect([row?.count, row?.hands.asDrawn]).toEqual([4, 4]);
  });

  it.each([
    ["level", [600, 300, 18]],
    ["front", [600, 18, 300]],
    ["side", [18, 600, 300]],
  ] as const)("a single panel that looks %s stands in its corner", (lies, size) => {
    const vertices = picturedMeshes(resultsOf(fill("panel", { lies }), stockroom).shape).flatMap(
      ({ mesh }) => mesh.vertices,
    );
    size.forEach((most, i) => {
      const along = vertices.map((vertex) => vertex[i] ?? 0);
      expect(Math.min(...along)).toBeWithinMm(0, 1e-9);
      expect(Math.max(...along)).toBeWithinMm(most, 1e-9);
    });
  });

  it("rail set, ladder and slatted top", () => {
    expect(rows(fill("rail-set", {}))).toEqual([["Rail", 4, 1000]]);
    expect(rows(fill("ladder", {}))).toEqual([
      ["Stile", 2, 2000],
      ["Rung", 6, 370],
    ]);
    const laths = resultsOf(fill("slatted-top", {}), stockroom).shape.members.map(
      (solid) => solid.frame.origin[1],
    );
    // Laths 45 wide flush with 0 and 500: middles from 22.5 to 477.5 in four steps.
    laths.forEach((y, i) => {
      expect(y).toBeWithinMm(22.5 + (i * 455) / 4, 1e-9);
    });
  });
});

describe("bad input", () => {
  const problem = (id: string, values: Readonly<Record<string, string>>, place = "0; 0; 0") => {
    const edit = fillJig(
      emptyJob({ code: "T", title: "T" }),
      jigOf(id),
      {
        values: {
          width: "100",
          depth: "100",
          height: "100",
          section: "tube",
          rings: "1",
          low: "10",
          ...values,
        },
        place,
        keepSizes: true,
        asAssembly: false,
        home: null,
      },
      stockroom,
      (kind) => `${kind}x`,
    );
    return edit.ok ? "" : sentence(edit.problem);
  };

  it.each([
    [{ width: "0" }, "must be above zero"],
    [{ width: "-5" }, "must be above zero"],
    [{ width: "wide" }, "which is no key size of this job"],
    [{ rings: "1.5" }, "must be a whole number from 0 to 6"],
    [{ rings: "-1" }, "must be a whole number"],
    [{ width: "" }, "type a value"],
  ])("%j is told", (values, words) => {
    expect(problem("box-frame", values)).toContain(words);
  });

  it("a place that is none", () => {
    expect(problem("box-frame", {}, "here")).toContain("three coordinates");
  });
});
