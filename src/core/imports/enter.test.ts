import { describe, expect, it } from "vitest";
import { solidMesh, toWorld, type Vec3 } from "../geometry";
import { emptyJob, newJob, resolveSizes, withEdit } from "../job";
import { bodyOf } from "../recognise/body";
import { memberOf } from "../recognise/member";
import { memberSolid, shapeJob, solidOfMember } from "../shape";
import { type SectionShape, sectionProperties, stockroomOf } from "../stockroom";
import { imported, remarksOn } from "./enter";
import { cutLength, type FoundFile, type FoundPart, scaledFile } from "./found";

const entry = (id: string, shape: SectionShape) => ({
  id,
  name: id,
  shape,
  material: null,
  densityKgM3: null,
  massKgPerM: null,
  source: "",
  stock: [],
  kerf: 0,
  trimStart: 0,
  trimEnd: 0,
});
const stockroom = (...shapes: readonly SectionShape[]) =>
  stockroomOf({
    currency: "EUR",
    sections: shapes.map((shape, i) => entry(`s${i}`, shape)),
    boards: [],
    edging: [],
    bought: [],
  });

/** A member that is drawn with one section, as a file that was found to hold it. */
function fileOf(shape: SectionShape): { readonly file: FoundFile; readonly corners: readonly Vec3[] } {
  const job = newJob({
    info: { code: "a", title: "a" },
    points: { P: ["0", "0", "0"], Q: ["700", "100", "300"] },
    members: {
      m: {
        name: "Piece",
        from: "P",
        to: "Q",
        section: "s0",
        roll: "25",
        start: { kind: "angled", acrossWidth: "30", acrossHeight: "-20", offset: "0" },
        end: { kind: "angled", acrossWidth: "10", acrossHeight: "35", offset: "0" },
      },
    },
  });
  const drawn = shapeJob(job, resolveSizes(job, null), stockroom(shape));
  const solid = memberSolid(drawn, "m" as Parameters<typeof memberSolid>[1]);
  if (!solid) throw new Error("no solid");
  const fine = solidOfMember(solid, { step: Math.PI / 24 });
  const mesh = solidMesh(fine);
  const positions = mesh.vertices.flatMap((vertex) => toWorld(solid.frame, vertex));
  const read = memberOf(
    bodyOf({
      positions,
      corners: mesh.triangles,
      faces: mesh.triangles.flatMap((_, i) => (i % 3 === 0 ? [[i / 3, i / 3 + 1] as const] : [])),
    }),
  );
  if (!read) throw new Error("no member is read");
  const part = {
    key: "1/0",
    name: "Piece",
    taken: read,
    otherwise: [],
    volume: 1,
    low: [0, 0, 0] as Vec3,
    high: [1, 1, 1] as Vec3,
    wasInverted: false,
    gaps: [],
    triangles: null,
    faces: [],
    joinedWithin: null,
    colour: null,
  };
  const file: FoundFile = {
    name: "a.step",
    schema: "AP214",
    units: [],
    products: [{ id: 1, name: "Piece", material: null, parts: [part], missing: 0 }],
    uses: [],
    withoutPlace: 0,
    scaledBy: 1,
    roots: [1],
    size: [1, 1, 1],
  };
  return { file, corners: cornersOf(solid) };
}

function cornersOf(solid: NonNullable<ReturnType<typeof memberSolid>>): readonly Vec3[] {
  const { start, end } = solid;
  return sectionProperties(solid.entry.shape).sharp.flatMap(([x, y]): readonly Vec3[] => {
    const reach = (one: typeof start) =>
      one.form.kind === "plane" ? one.form.slope[0] * x + one.form.slope[1] * y : 0;
    return [
      toWorld(solid.frame, [x, y, start.z - reach(start)]),
      toWorld(solid.frame, [x, y, end.z + reach(end)]),
    ];
  });
}

it("a file of another unit is scaled whole: two planes at an end with their distance, roots with their radius", () => {
  const { file } = fileOf({ kind: "channel", size: [100, 50, 6, 8.5] });
  const shape: SectionShape = { kind: "channel", size: [100, 50, 6, 8.5], rootRadius: 7 };
  const part = file.products[0]?.parts[0];
  if (part?.taken.kind !== "member") throw new Error("no member");
  const faces = [
    { slope: [1, 0] as const, beyond: 0 },
    { slope: [0, 1] as const, beyond: 3 },
  ] as const;
  const own = {
    ...part,
    taken: { ...part.taken, shape, end: { kind: "twoPlanes" as const, z: 700, faces } },
  };
  const [product] = file.products;
  const scaled = scaledFile({ ...file, products: [{ ...product, parts: [own] } as never] }, 25.4);
  const read = scaled.products[0]?.parts[0]?.taken;
  if (read?.kind !== "member" || read.end.kind !== "twoPlanes") throw new Error("no member");
  expect(read.end.z).toBeCloseTo(700 * 25.4, 9);
  expect(read.end.faces.map(({ beyond }) => beyond)).toEqual([0, 3 * 25.4]);
  expect(read.shape).toMatchObject({ rootRadius: 177.8 });
  // As it is cut: from tip to tip.
  expect(cutLength(read)).toBeCloseTo(25.4 * cutLength(own.taken), 6);
});

it("pieces of the file that run into one another are told before they enter", () => {
  const shape: SectionShape = { kind: "flat", size: [60, 20] };
  const { file } = fileOf(shape);
  const [product] = file.products;
  const part = product?.parts[0];
  if (!product || !part) throw new Error("no part");
  const twice = {
    ...file,
    products: [{ ...product, parts: [part, { ...part, key: "1/1", name: "Other" }] }],
  };
  const job = emptyJob({ code: "b", title: "b", unit: "mm" });
  let count = 0;
  const told = (one: FoundFile) =>
    imported(one, {}, job, stockroom(shape), (kind) => `${kind}${++count}`).remarks.map(({ words }) => words);
  expect(told(file)).toEqual([]);
  expect(told(twice)).toEqual(["In the file 1 pair of pieces run into one another: Piece and Other."]);
});

describe("a section of the stockroom in the place of the one that was read", () => {
  for (const [name, read, own] of [
    [
      "another root radius, whose centroid lies elsewhere",
      { kind: "unequalAngle", size: [60, 40, 5], rootRadius: 0 },
      { kind: "unequalAngle", size: [60, 40, 5], rootRadius: 6 },
    ],
    ["sizes the other way round", { kind: "flat", size: [60, 20] }, { kind: "timber", size: [20, 60] }],
    ["the same", { kind: "channel", size: [100, 50, 6, 8.5] }, { kind: "channel", size: [100, 50, 6, 8.5] }],
  ] as const satisfies readonly (readonly [string, SectionShape, SectionShape])[])
    it(`${name}: every corner stands where it was`, () => {
      const { file, corners } = fileOf(read);
      const stock = stockroom(own);
      const job = emptyJob({ code: "b", title: "b", unit: "mm" });
      let count = 0;
      const entered = imported(file, {}, job, stock, (kind) => `${kind}${++count}`);
      expect(entered.added.sections).toEqual([]);
      const after = withEdit(job, entered.edit);
      if (!after.ok) throw new Error("refused");
      const [member] = Object.values(after.value.members);
      const solid = memberSolid(
        shapeJob(after.value, resolveSizes(after.value, null), stock),
        member?.id as Parameters<typeof memberSolid>[1],
      );
      const made = solid ? cornersOf(solid) : [];
      for (const corner of corners)
        expect(
          Math.min(
            ...made.map((one) => Math.hypot(one[0] - corner[0], one[1] - corner[1], one[2] - corner[2])),
          ),
        ).toBeLessThan(0.01);
    });
});

it("near twins of the file are told before they enter; twins and hands are none", () => {
  const { file } = fileOf({ kind: "flat", size: [60, 20] });
  const [product] = file.products;
  const part = product?.parts[0];
  if (!product || part?.taken.kind !== "member") throw new Error("no member");
  const { taken } = part;
  const other = (i: number, z: number, slope: readonly [number, number]) => ({
    ...part,
    key: `1/${i}`,
    name: `Piece ${i}`,
    taken: {
      ...taken,
      start: { kind: "plane" as const, z: 0, slope: [0, 0] as const },
      end: { kind: "plane" as const, z, slope },
    },
  });
  const told = (...parts: FoundPart[]) =>
    remarksOn({ ...file, products: [{ ...product, parts }] }, new Map()).flatMap(({ words }) =>
      /near twins/.test(words) ? [words] : [],
    );
  const flat = [0, 0] as const;
  expect(told(other(1, 700, flat), other(2, 700.005, flat), other(3, 720, flat))).toEqual([]);
  expect(told(other(1, 700, flat), other(2, 700.4, flat))).toEqual([
    "Piece 1 and Piece 2 are near twins: they differ by 0.4 mm. Look whether they should be the same.",
  ]);
  // As long from tip to tip, at another angle by less than a degree; the other hand is the same piece turned over.
  const lean = (slope: number) => [slope, 0] as const;
  const tip = (slope: number) => 700 - 30 * slope;
  expect(told(other(1, tip(0.5), lean(0.5)), other(2, tip(0.505), lean(0.505)))).toEqual([
    "Piece 1 and Piece 2 are near twins: they differ in an angle alone. Look whether they should be the same.",
  ]);
  expect(told(other(1, tip(0.5), lean(0.5)), other(2, tip(0.5), lean(-0.5)))).toEqual([]);
});
