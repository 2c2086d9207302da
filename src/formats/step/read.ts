/** A STEP file as what it was found to hold: its tree out of the text, the form of each product out of the reader's triangles. */
import { toWorld, type Vec3 } from "@/core/geometry";
import { type FoundFile, type FoundPart, type FoundProduct, foundPart } from "@/core/imports";
import { err, grouped, type LinearColour, ok, type Problem, type Result } from "@/core/kernel";
import { type FlatRule, type SolidMesh, USUAL_FLAT_RULE } from "@/core/recognise";
import { readStatements } from "./statements";
import { hasEndlessRound, readStructure, type StepStructure, separated } from "./structure";

export type ReadMesh = {
  readonly path: readonly string[];
  readonly name: string;
  readonly colour: LinearColour | null;
  readonly mesh: SolidMesh;
};
/** Reads the geometry of a text; null: it cannot. */
export type GeometryReader = (text: string) => readonly ReadMesh[] | null;

const MOST_STEP_BYTES = 100_000_000;
const MOST_SOLIDS = 5_000;

/** What is done, for whoever waits. */
export type StepProgress = (words: string, share: number) => void;

export function foundInStep(
  name: string,
  bytes: Uint8Array,
  read: GeometryReader,
  {
    rule = USUAL_FLAT_RULE,
    progress = () => {},
  }: { readonly rule?: FlatRule; readonly progress?: StepProgress } = {},
): Result<FoundFile, Problem> {
  const refuse = (why: string) => err({ kind: "malformed", what: name, why } as const);
  if (bytes.length > MOST_STEP_BYTES)
    return refuse("it is larger than 100 MB; export the assembly in parts, or without its fittings");
  progress("Reading the text", 0);
  const statements = readStatements(name, bytes);
  if (!statements.ok) return statements;
  const structure = readStructure(statements.value);
  const declared = [...structure.products.values()].reduce((sum, one) => sum + one.solids + one.surfaces, 0);
  if (declared > MOST_SOLIDS)
    return refuse(
      `it holds ${declared} different solids; at most ${MOST_SOLIDS} are read, export it in parts`,
    );
  if (structure.products.size === 0) return refuse("it names no product; export the parts as solids");
  if (structure.uses.some(({ frame: { origin, x, y, z } }) => ![origin, x, y, z].every(isPlace)))
    return refuse("a place in it is no number, or lies farther away than any job; export it again");
  if (hasEndlessRound(statements.value))
    return refuse("something round in it is larger than any job; export it again");
  progress("Reading the solids", 0.1);
  const meshes = attempted(() => read(separated(statements.value)));
  if (meshes === null) return refuse("its geometry cannot be read; export it again as AP214 or AP242");
  const byProduct = grouped(meshes, ({ path, name: own }) => productIn([...path, own]));
  const products: FoundProduct[] = [];
  let done = 0;
  for (const product of structure.products.values()) {
    const read = (byProduct.get(product.id) ?? []).flatMap(
      ({ name: own, mesh, colour }, i): readonly Found[] => {
        progress(
          "Telling members, panels and the rest apart",
          0.6 + (0.4 * done++) / Math.max(1, meshes.length),
        );
        const part = foundPart(
          { key: `${product.id}/${i}`, name: /^#\d+$/.test(own) ? "" : own, colour },
          mesh,
          rule,
        );
        return isPlace(part.low) && isPlace(part.high) ? [{ part, mesh }] : [];
      },
    );
    const parts = withoutLoose(read, rule);
    products.push({
      id: product.id,
      name: product.name,
      material: product.material,
      parts,
      missing: Math.max(0, product.solids - read.length),
    });
  }
  if (products.every(({ parts }) => parts.length === 0))
    return refuse("there is no solid in it; export the parts as solids, not as drawings or wires");
  const file = {
    name,
    schema: schemaName(statements.value.schemas),
    units: structure.unitNames,
    products,
    uses: structure.uses,
    roots: structure.roots,
    withoutPlace: structure.withoutPlace,
    scaledBy: 1,
  };
  return ok({ ...file, size: sizeOf(file) });
}

type Found = { readonly part: FoundPart; readonly mesh: SolidMesh };

/** mm. Surfaces whose boxes come so near are taken for the rims of one solid. */
const NEAR = 5;

/** Parts of a product, with loose surfaces that lie beside one another as one open part: the reader gives faces that do not meet one by one. */
function withoutLoose(found: readonly Found[], rule: FlatRule): readonly FoundPart[] {
  const loose = found.filter(({ part }) => part.gaps.length > 0);
  const groups: Found[][] = [];
  for (const one of loose) {
    const near = groups.filter((group) => group.some(({ part }) => areNear(part, one.part)));
    const rest = groups.filter((group) => !near.includes(group));
    groups.splice(0, groups.length, ...rest, [...near.flat(), one]);
  }
  const joined = new Map<FoundPart, FoundPart | null>();
  for (const group of groups) {
    const inOrder = found.filter((one) => group.includes(one));
    const [first] = inOrder;
    if (!first || inOrder.length === 1) continue;
    for (const { part } of inOrder) joined.set(part, null);
    const whole = wholeMesh(inOrder.map(({ mesh }) => mesh));
    joined.set(first.part, foundPart(first.part, whole, rule));
  }
  return found.flatMap(({ part }) => {
    const one = joined.get(part);
    return one === undefined ? [part] : one === null ? [] : [one];
  });
}

const areNear = (a: FoundPart, b: FoundPart): boolean =>
  a.low.every((low, k) => low - NEAR <= (b.high[k] ?? 0) && (a.high[k] ?? 0) + NEAR >= (b.low[k] ?? 0));

function wholeMesh(meshes: readonly SolidMesh[]): SolidMesh {
  const positions: number[] = [];
  const corners: number[] = [];
  const faces: (readonly [number, number])[] = [];
  for (const mesh of meshes) {
    const [first, before] = [positions.length / 3, corners.length / 3];
    for (const value of Array.from(mesh.positions)) positions.push(value);
    for (const corner of Array.from(mesh.corners)) corners.push(first + corner);
    for (const [from, to] of mesh.faces) faces.push([before + from, before + to]);
  }
  return { positions, corners, faces };
}

/** mm. Even a file in metres that is drawn in millimetres lies nearer, and can be rescaled. */
const FARTHEST = 1e9;
const isPlace = (place: Vec3): boolean => place.every((value) => Math.abs(value) <= FARTHEST);

/** What the reader gives; what it fails at is a file that cannot be read. */
function attempted(read: () => readonly ReadMesh[] | null): readonly ReadMesh[] | null {
  try {
    return read();
  } catch {
    return null;
  }
}

/** The product that a mesh belongs to: the innermost name that is a number of one. */
function productIn(names: readonly string[]): number {
  for (const name of names.toReversed()) {
    const id = /^#(\d+)$/.exec(name)?.[1];
    if (id !== undefined) return Number(id);
  }
  return -1;
}

const SCHEMAS: readonly (readonly [RegExp, string])[] = [
  [/AP242|MANAGED_MODEL_BASED/i, "AP242"],
  [/AUTOMOTIVE_DESIGN/i, "AP214"],
  [/CONFIG/i, "AP203"],
];

const schemaName = (schemas: readonly string[]): string =>
  SCHEMAS.find(([pattern]) => schemas.some((schema) => pattern.test(schema)))?.[1] ??
  schemas[0] ??
  "unknown schema";

/** Sizes over all, every instance where it stands. */
function sizeOf({
  products,
  uses,
  roots,
}: Pick<FoundFile, "products" | "uses" | "roots"> & Pick<StepStructure, "uses">): Vec3 {
  const byId = new Map(products.map((product) => [product.id, product]));
  const within = grouped(uses, ({ parent }) => parent);
  const boxes = new Map<number, readonly [Vec3, Vec3] | null>();
  const boxOf = (id: number, depth: number): readonly [Vec3, Vec3] | null => {
    const known = boxes.get(id);
    if (known !== undefined || depth > 20) return known ?? null;
    const corners: Vec3[] = (byId.get(id)?.parts ?? []).flatMap(({ low, high }) => [low, high]);
    for (const use of within.get(id) ?? []) {
      const box = boxOf(use.child, depth + 1);
      if (!box) continue;
      const [a, b] = box;
      for (let k = 0; k < 8; k++)
        corners.push(toWorld(use.frame, [k & 1 ? a[0] : b[0], k & 2 ? a[1] : b[1], k & 4 ? a[2] : b[2]]));
    }
    const box = corners.length === 0 ? null : ([far(corners, Math.min), far(corners, Math.max)] as const);
    boxes.set(id, box);
    return box;
  };
  const all = roots.flatMap((root) => boxOf(root, 0) ?? []);
  if (all.length === 0) return [0, 0, 0];
  const [low, high] = [far(all, Math.min), far(all, Math.max)];
  return [high[0] - low[0], high[1] - low[1], high[2] - low[2]];
}

function far(corners: readonly Vec3[], pick: (a: number, b: number) => number): Vec3 {
  const on = (k: 0 | 1 | 2) => corners.reduce((end, corner) => pick(end, corner[k]), corners[0]?.[k] ?? 0);
  return [on(0), on(1), on(2)];
}
