/**
 * What a STEP file says of its products: names, materials, how many solids each is of, which stand in which and where
 * (ISO 10303-44, -43, -42), and in which unit. The geometry itself is left to the reader.
 */
import { type Frame, frameIn, toLocal, turned, type Vec3 } from "@/core/geometry";
import { addTo, grouped } from "@/core/kernel";
import { isReference, isTyped, type Statements, type Typed, type Value } from "./statements";

export type StepProduct = {
  /** The number of its PRODUCT statement. */
  readonly id: number;
  readonly name: string;
  readonly material: string | null;
  /** Solids, and surfaces that are no solid, as the file declares them. */
  readonly solids: number;
  readonly surfaces: number;
  /** Millimetres of one unit of length; null: the file tells none. */
  readonly unit: number | null;
};

/** One product within another. `frame`: where its axes stand in those of the parent, in mm; right-handed. */
export type StepUse = {
  readonly parent: number;
  readonly child: number;
  readonly name: string;
  readonly frame: Frame;
};

export type StepStructure = {
  readonly products: ReadonlyMap<number, StepProduct>;
  readonly uses: readonly StepUse[];
  /** Products that stand in no other. */
  readonly roots: readonly number[];
  /** Names of units that the lengths are in, in the file's order, such as "inch". */
  readonly unitNames: readonly string[];
  /** Uses whose place the file does not tell: they stand where their parent does. */
  readonly withoutPlace: number;
};

const HOME: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

const refOf = (value: Value | undefined): number | null => (isReference(value) ? value.ref : null);
const refsOf = (value: Value | undefined): readonly number[] =>
  Array.isArray(value) ? value.filter(isReference).map(({ ref }) => ref) : [];
const textOf = (value: Value | undefined): string => (typeof value === "string" ? value.trim() : "");

/** Reads the tree. */
export function readStructure(file: Statements): StepStructure {
  const part = (id: number | null, type: string): Typed | null =>
    id === null ? null : (file.partsOf(id).find((one) => one.type === type) ?? null);
  const first = (id: number | null): Typed | null => (id === null ? null : (file.partsOf(id)[0] ?? null));

  // PRODUCT_DEFINITION → its formation → PRODUCT.
  const productOfDefinition = new Map<number, number>();
  for (const type of ["PRODUCT_DEFINITION", "PRODUCT_DEFINITION_WITH_ASSOCIATED_DOCUMENTS"])
    for (const id of file.ofType(type)) {
      const formation = first(refOf(part(id, type)?.values[2]));
      const product = refOf(formation?.values[2]);
      if (product !== null) productOfDefinition.set(id, product);
    }
  // Representations of each definition: its own and those that are equivalent to it.
  const linked = linkedRepresentations(file);
  const representations = new Map<number, number[]>();
  const definitionOf = new Map<number, number>();
  for (const id of file.ofType("SHAPE_DEFINITION_REPRESENTATION")) {
    const values = first(id)?.values ?? [];
    const definition = refOf(part(refOf(values[0]), "PRODUCT_DEFINITION_SHAPE")?.values[2]);
    const representation = refOf(values[1]);
    if (definition === null || representation === null || !productOfDefinition.has(definition)) continue;
    const all = [representation, ...(linked.get(representation) ?? [])];
    representations.set(definition, [...(representations.get(definition) ?? []), ...all]);
    for (const one of all) definitionOf.set(one, definition);
  }
  const materials = materialsOf(file);
  const unitOf = createUnits(file);
  const products = new Map<number, StepProduct>();
  for (const [definition, product] of productOfDefinition) {
    const known = products.get(product);
    const items = (representations.get(definition) ?? []).flatMap((id) => refsOf(first(id)?.values[1]));
    const types = items.map((id) => first(id)?.type ?? "");
    const solids = types.filter((type) => SOLIDS.has(type)).length;
    const surfaces = types.filter((type) => SURFACES.has(type)).length;
    const unit = (representations.get(definition) ?? []).map((id) => unitOf(refOf(first(id)?.values[2])));
    const values = part(product, "PRODUCT")?.values ?? [];
    products.set(product, {
      id: product,
      name: textOf(values[1]) || textOf(values[0]),
      material: known?.material ?? materials.get(definition) ?? null,
      solids: (known?.solids ?? 0) + solids,
      surfaces: (known?.surfaces ?? 0) + surfaces,
      unit: known?.unit ?? unit.find((one) => one !== null) ?? null,
    });
  }

  // Where each use stands: NEXT_ASSEMBLY_USAGE_OCCURRENCE ← PRODUCT_DEFINITION_SHAPE ← CONTEXT_DEPENDENT_SHAPE_REPRESENTATION.
  const placed = new Map<number, number>();
  for (const id of file.ofType("CONTEXT_DEPENDENT_SHAPE_REPRESENTATION")) {
    const values = first(id)?.values ?? [];
    const usage = refOf(part(refOf(values[1]), "PRODUCT_DEFINITION_SHAPE")?.values[2]);
    const relation = refOf(values[0]);
    if (usage !== null && relation !== null) placed.set(usage, relation);
  }
  const uses: StepUse[] = [];
  let withoutPlace = 0;
  for (const id of file.ofType("NEXT_ASSEMBLY_USAGE_OCCURRENCE")) {
    const values = first(id)?.values ?? [];
    const [parentOf, childOf] = [refOf(values[3]), refOf(values[4])];
    const parent = parentOf === null ? undefined : productOfDefinition.get(parentOf);
    const child = childOf === null ? undefined : productOfDefinition.get(childOf);
    if (parent === undefined || child === undefined) continue;
    const frame = placeOf(placed.get(id) ?? null, childOf ?? 0);
    if (!frame) withoutPlace++;
    uses.push({ parent, child, name: textOf(values[1]), frame: frame ?? HOME });
  }
  const within = new Set(uses.map(({ child }) => child));
  return {
    products,
    uses,
    roots: [...products.keys()].filter((id) => !within.has(id)),
    unitNames: unitNamesOf(file),
    withoutPlace,
  };

  function placeOf(relation: number | null, child: number): Frame | null {
    const between = part(relation, "REPRESENTATION_RELATIONSHIP")?.values ?? [];
    const transformation = refOf(
      part(relation, "REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION")?.values[0],
    );
    const items = part(transformation, "ITEM_DEFINED_TRANSFORMATION")?.values ?? [];
    const [one, other] = [placementOf(refOf(items[2])), placementOf(refOf(items[3]))];
    if (!one || !other) return null;
    // Usually the first is the child's; some programs write it the other way round.
    const [from, to] = [refOf(between[2]), refOf(between[3])];
    const turnedRound =
      from !== null && definitionOf.get(from) !== child && definitionOf.get(to ?? 0) === child;
    const [inChild, inParent] = turnedRound ? [other, one] : [one, other];
    const rep = turnedRound ? [to, from] : [from, to];
    const [childUnit, parentUnit] = rep.map((id) => unitOf(refOf(first(id)?.values[2])) ?? 1);
    return moved(scaled(inChild, childUnit ?? 1), scaled(inParent, parentUnit ?? 1));
  }

  function placementOf(id: number | null): Frame | null {
    const values = part(id, "AXIS2_PLACEMENT_3D")?.values;
    const origin = numbersOf(refOf(values?.[1]), "CARTESIAN_POINT");
    if (!values || !origin) return null;
    const z = unit(numbersOf(refOf(values[2]), "DIRECTION") ?? [0, 0, 1]);
    const towards =
      numbersOf(refOf(values[3]), "DIRECTION") ?? (Math.abs(z[0]) > 0.9 ? [0, 1, 0] : [1, 0, 0]);
    const along = towards[0] * z[0] + towards[1] * z[1] + towards[2] * z[2];
    const x = unit([towards[0] - along * z[0], towards[1] - along * z[1], towards[2] - along * z[2]]);
    const y: Vec3 = [z[1] * x[2] - z[2] * x[1], z[2] * x[0] - z[0] * x[2], z[0] * x[1] - z[1] * x[0]];
    return { origin, x, y, z };
  }

  function numbersOf(id: number | null, type: string): Vec3 | null {
    const list = part(id, type)?.values[1];
    if (!Array.isArray(list)) return null;
    const [x, y, z] = list;
    return typeof x === "number" && typeof y === "number" && typeof z === "number" ? [x, y, z] : null;
  }
}

const SOLIDS = new Set(["MANIFOLD_SOLID_BREP", "BREP_WITH_VOIDS", "FACETED_BREP", "FACETED_BREP_WITH_VOIDS"]);
const SURFACES = new Set(["SHELL_BASED_SURFACE_MODEL", "FACE_BASED_SURFACE_MODEL"]);

function unit(a: Vec3): Vec3 {
  const size = Math.hypot(...a) || 1;
  return [a[0] / size, a[1] / size, a[2] / size];
}

const scaled = (frame: Frame, by: number): Frame => ({
  ...frame,
  origin: [frame.origin[0] * by, frame.origin[1] * by, frame.origin[2] * by],
});

/** The move that brings one placement onto another, as where the axes of the first stand in those of the second. */
function moved(from: Frame, to: Frame): Frame {
  const inverse: Frame = {
    origin: toLocal(from, [0, 0, 0]),
    x: [from.x[0], from.y[0], from.z[0]],
    y: [from.x[1], from.y[1], from.z[1]],
    z: [from.x[2], from.y[2], from.z[2]],
  };
  const frame = frameIn(to, inverse);
  // Numbers of the file are rounded: what is a quarter turn stays one.
  const tidy = (a: Vec3): Vec3 => [tidied(a[0]), tidied(a[1]), tidied(a[2])];
  const { origin } = frame;
  return { origin, x: tidy(frame.x), y: tidy(turned(frame, [0, 1, 0])), z: tidy(frame.z) };
}

const tidied = (value: number) => {
  const whole = Math.round(value);
  return Math.abs(value - whole) < 1e-12 ? whole + 0 : value;
};

/** Representations that stand for one another, without any move between them. */
function linkedRepresentations(file: Statements): ReadonlyMap<number, readonly number[]> {
  const linked = new Map<number, number[]>();
  const link = (a: number, b: number) => addTo(linked, a, b);
  for (const id of file.ofType("SHAPE_REPRESENTATION_RELATIONSHIP")) {
    const parts = file.partsOf(id);
    if (parts.some(({ type }) => type === "REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION")) continue;
    const values = parts.find(({ values }) => values.length >= 4)?.values ?? [];
    const [a, b] = [refOf(values[2]), refOf(values[3])];
    if (a === null || b === null) continue;
    link(a, b);
    link(b, a);
  }
  return linked;
}

/** The material of each product definition that has one ('material property', as the recommended practices of CAx-IF write it). */
function materialsOf(file: Statements): ReadonlyMap<number, string> {
  const found = new Map<number, string>();
  const materialProperties = new Map<number, number>();
  for (const id of file.ofType("PROPERTY_DEFINITION")) {
    const values = file.partsOf(id)[0]?.values ?? [];
    const definition = refOf(values[2]);
    if (definition !== null && /material/i.test(textOf(values[0]))) materialProperties.set(id, definition);
  }
  for (const id of file.ofType("PROPERTY_DEFINITION_REPRESENTATION")) {
    const values = file.partsOf(id)[0]?.values ?? [];
    const definition = materialProperties.get(refOf(values[0]) ?? -1);
    const items = refsOf(file.partsOf(refOf(values[1]) ?? -1)[0]?.values[1]);
    if (definition === undefined || found.has(definition)) continue;
    for (const item of items) {
      const told = file.partsOf(item).find(({ type }) => type === "DESCRIPTIVE_REPRESENTATION_ITEM")?.values;
      if (!told) continue;
      const [name, description] = [textOf(told[0]), textOf(told[1])];
      const material = name === "" || /^material( name)?$/i.test(name) ? description : name;
      if (material !== "") found.set(definition, material);
      if (material !== "") break;
    }
  }
  return found;
}

const SI: Readonly<Record<string, number>> = { MILLI: 1, CENTI: 10, DECI: 100, MICRO: 1e-3, KILO: 1e6 };

/** Millimetres of the unit of length in a context of representations; null: it has none. */
function createUnits(file: Statements): (context: number | null) => number | null {
  const known = new Map<number, number | null>();
  const ofUnit = (id: number, depth = 0): number | null => {
    const parts = file.partsOf(id);
    const si = parts.find(({ type }) => type === "SI_UNIT");
    if (si) {
      const [prefix, name] = si.values;
      if (wordOf(name) !== "METRE") return null;
      const word = wordOf(prefix);
      return word === null ? 1000 : (SI[word] ?? null);
    }
    const measure = parts.find(({ type }) => type === "CONVERSION_BASED_UNIT")?.values[1];
    const values = file.partsOf(refOf(measure) ?? -1)[0]?.values ?? [];
    const amount = isTyped(values[0]) ? values[0].values[0] : values[0];
    const base = depth < 4 ? ofUnit(refOf(values[1]) ?? -1, depth + 1) : null;
    return typeof amount === "number" && base !== null ? amount * base : null;
  };
  return (context) => {
    if (context === null) return null;
    const before = known.get(context);
    if (before !== undefined) return before;
    const units = file.partsOf(context).find(({ type }) => type === "GLOBAL_UNIT_ASSIGNED_CONTEXT")
      ?.values[0];
    const lengths = refsOf(units)
      .filter((id) => file.partsOf(id).some(({ type }) => type === "LENGTH_UNIT"))
      .map((id) => ofUnit(id));
    const unit = lengths.find((one) => one !== null) ?? null;
    known.set(context, unit);
    return unit;
  };
}

const wordOf = (value: Value | undefined): string | null =>
  typeof value === "object" && value !== null && "word" in value ? value.word : null;

function unitNamesOf(file: Statements): readonly string[] {
  const names = file.ofType("GLOBAL_UNIT_ASSIGNED_CONTEXT").flatMap((context) => {
    const units = file.partsOf(context).find(({ type }) => type === "GLOBAL_UNIT_ASSIGNED_CONTEXT")
      ?.values[0];
    return refsOf(units).flatMap((id) => {
      const parts = file.partsOf(id);
      if (!parts.some(({ type }) => type === "LENGTH_UNIT")) return [];
      const si = parts.find(({ type }) => type === "SI_UNIT");
      const named = parts.find(({ type }) => type === "CONVERSION_BASED_UNIT")?.values[0];
      return [si ? `${wordOf(si.values[0]) ?? ""}metre`.toLowerCase() : textOf(named).toLowerCase()];
    });
  });
  return [...new Set(names)].filter((name) => name !== "");
}

const ROUND = [
  "CIRCLE",
  "ELLIPSE",
  "CYLINDRICAL_SURFACE",
  "CONICAL_SURFACE",
  "SPHERICAL_SURFACE",
  "TOROIDAL_SURFACE",
] as const;
/** In any unit that a file may have. */
const MOST_RADIUS = 1e9;

/** Whether something round in it is so large that the reader would never come to its end (a radius of 1E99 took minutes). */
export function hasEndlessRound(file: Statements): boolean {
  return ROUND.some((type) =>
    file.ofType(type).some((id) => {
      const span = file.spanOf(id);
      const text = span ? file.text.slice(span.from, span.to) : "";
      return [...text.matchAll(/[\s,(](\d+\.\d*(?:E[-+]?\d+)?)/gi)].some(
        ([, number]) => !(Number(number) <= MOST_RADIUS),
      );
    }),
  );
}

/**
 * The text with every product on its own: what puts one into another is left out, and each is named by its number, so that
 * the reader's meshes can be told apart. Instances then cost nothing.
 */
export function separated(file: Statements): string {
  const usages = new Set(file.ofType("NEXT_ASSEMBLY_USAGE_OCCURRENCE"));
  const shapesOfUsages = file.ofType("PRODUCT_DEFINITION_SHAPE").filter((id) => {
    const definition = refOf(
      file.partsOf(id).find(({ type }) => type === "PRODUCT_DEFINITION_SHAPE")?.values[2],
    );
    return definition !== null && usages.has(definition);
  });
  const drop = [...usages, ...shapesOfUsages, ...file.ofType("CONTEXT_DEPENDENT_SHAPE_REPRESENTATION")];
  const changes = [
    ...drop.map((id) => ({ id, as: "" })),
    ...coloursOfFaces(file),
    ...file.ofType("PRODUCT").map((id) => {
      const contexts = refsOf(file.partsOf(id)[0]?.values[3]);
      return {
        id,
        as: `\n#${id}=PRODUCT('#${id}','#${id}','',(${contexts.map((one) => `#${one}`).join(",")}));`,
      };
    }),
  ]
    .flatMap(({ id, as }) => {
      const span = file.spanOf(id);
      return span ? [{ ...span, as }] : [];
    })
    .sort((a, b) => a.from - b.from);
  const parts: string[] = [];
  let place = 0;
  for (const { from, to, as } of changes) {
    parts.push(file.text.slice(place, from), as);
    place = to;
  }
  parts.push(file.text.slice(place));
  return parts.join("");
}

/**
 * The reader keeps no colours of faces: a solid that has none but those gets the one that most of its faces have. As changes of
 * the text: what is said at once of all, after what presents them.
 */
function coloursOfFaces(file: Statements): readonly { readonly id: number; readonly as: string }[] {
  const [presenting] = file.ofType(PRESENTATION);
  const span = presenting === undefined ? null : file.spanOf(presenting);
  if (presenting === undefined || !span) return [];
  const styleOf = new Map<number, number>();
  for (const id of file.ofType("STYLED_ITEM")) {
    const values = file.partsOf(id).find(({ type }) => type === "STYLED_ITEM")?.values ?? [];
    const [style, item] = [refsOf(values[1])[0], refOf(values[2])];
    if (style !== undefined && item !== null) styleOf.set(item, style);
  }
  const said: string[] = [];
  for (const solid of file.ofType("MANIFOLD_SOLID_BREP")) {
    if (styleOf.has(solid)) continue;
    const shell = refOf(file.partsOf(solid)[0]?.values[1]);
    const faces = shell === null ? [] : refsOf(file.partsOf(shell)[0]?.values[1]);
    const styles = faces.flatMap((face) => styleOf.get(face) ?? []);
    const [most] = [...grouped(styles, (style) => style).values()].toSorted((a, b) => b.length - a.length);
    if (most) said.push(`STYLED_ITEM('',(#${most[0]}),#${solid})`);
  }
  if (said.length === 0) return [];
  let last = 0;
  for (const id of file.ids) last = Math.max(last, id);
  const context = refOf(file.partsOf(presenting)[0]?.values[2]);
  const items = said.map((_, i) => `#${last + 1 + i}`).join(",");
  const statements = [
    ...said.map((words, i) => `\n#${last + 1 + i}=${words};`),
    `\n#${last + 1 + said.length}=${PRESENTATION}('',(${items}),#${context});`,
  ];
  return [{ id: presenting, as: `${file.text.slice(span.from, span.to)}${statements.join("")}` }];
}

const PRESENTATION = "MECHANICAL_DESIGN_GEOMETRIC_PRESENTATION_REPRESENTATION";
