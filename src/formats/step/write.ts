/**
 * A model as a STEP file (ISO 10303-21, schema AUTOMOTIVE_DESIGN of AP214, in mm): each product once, assemblies as uses with
 * their places, materials and colours as the recommended practices of CAx-IF write them.
 */
import type { Brep, BrepCurve, BrepSurface, Model, ModelProduct } from "@/core/brep";
import { cross, direction, type Frame, subtract, type Vec3 } from "@/core/geometry";
import { at, screenColour } from "@/core/kernel";
import { coloursOf } from "../solid-colours";

export type StepHead = {
  readonly name: string;
  readonly made: Date;
  readonly shop: string;
};

/** The text of the file. */
export function writeStep(model: Model, { name, made, shop }: StepHead): string {
  const file = new Statements();
  const application = file.add("APPLICATION_CONTEXT('core data for automotive mechanical design processes')");
  file.add(
    `APPLICATION_PROTOCOL_DEFINITION('international standard','automotive_design',2000,${ref(application)})`,
  );
  const productContext = file.add(`PRODUCT_CONTEXT('',${ref(application)},'mechanical')`);
  const definitionContext = file.add(
    `PRODUCT_DEFINITION_CONTEXT('part definition',${ref(application)},'design')`,
  );
  const millimetre = file.add("(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))");
  const radian = file.add("(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.))");
  const steradian = file.add("(NAMED_UNIT(*)SI_UNIT($,.STERADIAN.)SOLID_ANGLE_UNIT())");
  const uncertainty = file.add(
    `UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(1.E-3),${ref(millimetre)},'distance_accuracy_value','confusion accuracy')`,
  );
  const context = file.add(
    `(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((${ref(uncertainty)}))GLOBAL_UNIT_ASSIGNED_CONTEXT((${[millimetre, radian, steradian].map(ref).join()}))REPRESENTATION_CONTEXT('',''))`,
  );
  const home = file.placement({ origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] });
  const colourOf = coloursOf(model);
  const styles = new Map<string, number>();
  const styleOf = (product: ModelProduct) => {
    const colour = colourOf(product);
    const style = styles.get(colour.join()) ?? file.style(screenColour(colour));
    styles.set(colour.join(), style);
    return style;
  };
  const styled: number[] = [];
  type Written = { readonly definition: number; readonly representation: number };
  const written = new Map<string, Written>();
  const ids = new Map<string, number>();
  for (const product of inOrder(model)) {
    const label = quoted(product.name);
    const count = (ids.get(product.name) ?? 0) + 1;
    ids.set(product.name, count);
    const id = file.add(
      `PRODUCT(${quoted(count > 1 ? `${product.name} (${count})` : product.name)},${label},'',(${ref(productContext)}))`,
    );
    const formation = file.add(`PRODUCT_DEFINITION_FORMATION('','',${ref(id)})`);
    const definition = file.add(
      `PRODUCT_DEFINITION('design','',${ref(formation)},${ref(definitionContext)})`,
    );
    const shape = file.add(`PRODUCT_DEFINITION_SHAPE('','',${ref(definition)})`);
    const solid = product.brep ? solidOf(file, product.name, product.brep) : null;
    const places = product.holds.map(({ frame }) => file.placement(frame));
    if (solid !== null) {
      const style = styleOf(product);
      styled.push(file.add(`STYLED_ITEM('colour',(${ref(style)}),${ref(solid)})`));
    }
    const items = [home, ...places, ...(solid === null ? [] : [solid])].map(ref).join();
    const kind = solid === null ? "SHAPE_REPRESENTATION" : "ADVANCED_BREP_SHAPE_REPRESENTATION";
    const representation = file.add(`${kind}(${label},(${items}),${ref(context)})`);
    file.add(`SHAPE_DEFINITION_REPRESENTATION(${ref(shape)},${ref(representation)})`);
    if (product.material !== null) material(file, definition, product.material, context);
    for (const [i, held] of product.holds.entries()) {
      const child = written.get(held.product);
      if (!child) continue;
      const usage = file.add(
        `NEXT_ASSEMBLY_USAGE_OCCURRENCE('${i + 1}',${quoted(held.name)},'',${ref(definition)},${ref(child.definition)},$)`,
      );
      const use = file.add(`PRODUCT_DEFINITION_SHAPE('','',${ref(usage)})`);
      const move = file.add(`ITEM_DEFINED_TRANSFORMATION('','',${ref(home)},${ref(at(places, i))})`);
      const relation = file.add(
        `(REPRESENTATION_RELATIONSHIP('','',${ref(child.representation)},${ref(representation)})REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION(${ref(move)})SHAPE_REPRESENTATION_RELATIONSHIP())`,
      );
      file.add(`CONTEXT_DEPENDENT_SHAPE_REPRESENTATION(${ref(relation)},${ref(use)})`);
    }
    written.set(product.key, { definition, representation });
  }
  if (styled.length > 0)
    file.add(
      `MECHANICAL_DESIGN_GEOMETRIC_PRESENTATION_REPRESENTATION('',(${styled.map(ref).join()}),${ref(context)})`,
    );
  const time = made.toISOString().slice(0, 19);
  return [
    "ISO-10303-21;",
    "HEADER;",
    "FILE_DESCRIPTION(('Solids of a job'),'2;1');",
    `FILE_NAME(${quoted(name)},'${time}',(''),(${quoted(shop)}),'Rustic Tally','Rustic Tally','');`,
    "FILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));",
    "ENDSEC;",
    "DATA;",
    ...file.lines,
    "ENDSEC;",
    "END-ISO-10303-21;",
    "",
  ].join("\n");
}

/** Each product after those that it holds. */
function inOrder({ root, products }: Model): readonly ModelProduct[] {
  const byKey = new Map(products.map((product) => [product.key, product]));
  const done = new Set<string>();
  const order: ModelProduct[] = [];
  const visit = (key: string) => {
    const product = byKey.get(key);
    if (!product || done.has(key)) return;
    done.add(key);
    for (const { product: held } of product.holds) visit(held);
    order.push(product);
  };
  visit(root);
  return order;
}

function material(file: Statements, definition: number, name: string, context: number): void {
  const property = file.add(`PROPERTY_DEFINITION('material property','material name',${ref(definition)})`);
  const item = file.add(`DESCRIPTIVE_REPRESENTATION_ITEM(${quoted(name)},'')`);
  const representation = file.add(`REPRESENTATION('material name',(${ref(item)}),${ref(context)})`);
  file.add(`PROPERTY_DEFINITION_REPRESENTATION(${ref(property)},${ref(representation)})`);
}

function solidOf(file: Statements, name: string, brep: Brep): number {
  const vertices = brep.points.map((point) => file.add(`VERTEX_POINT('',${ref(file.point(point))})`));
  const edges = brep.edges.map(({ from, to, curve }) => {
    const geometry = curveOf(file, curve, at(brep.points, from), at(brep.points, to));
    const ahead = curve.kind !== "ellipse" || curve.ahead;
    return file.add(
      `EDGE_CURVE('',${ref(at(vertices, from))},${ref(at(vertices, to))},${ref(geometry)},${truth(ahead)})`,
    );
  });
  const faces = brep.faces.map(({ surface, loops }) => {
    const bounds = loops.map((loop, i) => {
      const uses = loop.map(({ edge, ahead }) =>
        file.add(`ORIENTED_EDGE('',*,*,${ref(at(edges, edge))},${truth(ahead)})`),
      );
      const round = file.add(`EDGE_LOOP('',(${uses.map(ref).join()}))`);
      return file.add(`${i === 0 ? "FACE_OUTER_BOUND" : "FACE_BOUND"}('',${ref(round)},.T.)`);
    });
    const same = surface.kind === "plane" || surface.outwards;
    return file.add(
      `ADVANCED_FACE('',(${bounds.map(ref).join()}),${ref(surfaceOf(file, surface))},${truth(same)})`,
    );
  });
  const shell = file.add(`CLOSED_SHELL('',(${faces.map(ref).join()}))`);
  return file.add(`MANIFOLD_SOLID_BREP(${quoted(name)},${ref(shell)})`);
}

function curveOf(file: Statements, curve: BrepCurve, from: Vec3, to: Vec3): number {
  if (curve.kind === "line") {
    const way = file.direction(direction(subtract(to, from)) ?? [0, 0, 1]);
    return file.add(`LINE('',${ref(file.point(from))},${ref(file.add(`VECTOR('',${ref(way)},1.)`))})`);
  }
  if (curve.kind === "spline") {
    const { pieces, poles } = curve;
    const knots = Array.from({ length: pieces + 1 }, (_, i) => i);
    const times = knots.map((i) => (i === 0 || i === pieces ? 6 : 3));
    return file.add(
      `B_SPLINE_CURVE_WITH_KNOTS('',5,(${poles.map((pole) => ref(file.point(pole))).join()}),.UNSPECIFIED.,.F.,.F.,(${times.join()}),(${knots.map(real).join()}),.UNSPECIFIED.)`,
    );
  }
  const { centre, normal, major, long, short } = curve;
  const place = ref(file.placement({ origin: centre, x: major, y: cross(normal, major), z: normal }));
  return Math.abs(long - short) < 1e-12
    ? file.add(`CIRCLE('',${place},${real(short)})`)
    : file.add(`ELLIPSE('',${place},${real(long)},${real(short)})`);
}

function surfaceOf(file: Statements, surface: BrepSurface): number {
  const z = surface.kind === "plane" ? surface.normal : surface.axis;
  const beside: Vec3 = Math.abs(z[0]) < 0.6 ? [1, 0, 0] : [0, 1, 0];
  const y = direction(cross(z, beside)) ?? [0, 1, 0];
  const place = ref(file.placement({ origin: surface.on, x: cross(y, z), y, z }));
  return surface.kind === "plane"
    ? file.add(`PLANE('',${place})`)
    : file.add(`CYLINDRICAL_SURFACE('',${place},${real(surface.radius)})`);
}

/** Statements with their numbers; points and directions that come again are written once. */
class Statements {
  readonly lines: string[] = [];
  private readonly known = new Map<string, number>();

  add(statement: string): number {
    const id = this.lines.length + 1;
    this.lines.push(`#${id}=${statement};`);
    return id;
  }

  point(place: Vec3): number {
    return this.once(`CARTESIAN_POINT('',(${place.map(real).join()}))`);
  }

  direction(way: Vec3): number {
    return this.once(`DIRECTION('',(${way.map(real).join()}))`);
  }

  placement({ origin, x, z }: Frame): number {
    return this.once(
      `AXIS2_PLACEMENT_3D('',${ref(this.point(origin))},${ref(this.direction(z))},${ref(this.direction(x))})`,
    );
  }

  /** All faces of what has it in one colour. */
  style(colour: readonly [number, number, number]): number {
    const rgb = this.add(`COLOUR_RGB('',${colour.map((value) => real(Number(value.toFixed(4)))).join()})`);
    const fill = this.add(`FILL_AREA_STYLE_COLOUR('',${ref(rgb)})`);
    const area = this.add(`FILL_AREA_STYLE('',(${ref(fill)}))`);
    const surface = this.add(`SURFACE_STYLE_FILL_AREA(${ref(area)})`);
    const side = this.add(`SURFACE_SIDE_STYLE('',(${ref(surface)}))`);
    const usage = this.add(`SURFACE_STYLE_USAGE(.BOTH.,${ref(side)})`);
    return this.add(`PRESENTATION_STYLE_ASSIGNMENT((${ref(usage)}))`);
  }

  private once(statement: string): number {
    const before = this.known.get(statement);
    if (before !== undefined) return before;
    const id = this.add(statement);
    this.known.set(statement, id);
    return id;
  }
}

const ref = (id: number) => `#${id}`;
const truth = (value: boolean) => (value ? ".T." : ".F.");

/** A real has a point; an exponent is written with a capital. */
function real(value: number): string {
  const text = String(Math.abs(value) < 1e-14 ? 0 : value);
  if (!/[.e]/.test(text)) return `${text}.`;
  const [mantissa = "", exponent] = text.split("e");
  const whole = mantissa.includes(".") ? mantissa : `${mantissa}.`;
  return exponent === undefined ? whole : `${whole}E${exponent}`;
}

/** A string of the file: what is no sign of ASCII is spelt out (ISO 10303-21, 6.4.3). */
export function quoted(text: string): string {
  let out = "";
  for (const sign of text) {
    const code = sign.codePointAt(0) ?? 63;
    if (sign === "'") out += "''";
    else if (sign === "\\") out += "\\\\";
    else if (code >= 32 && code < 127) out += sign;
    else if (code > 0xffff) out += `\\X4\\${code.toString(16).toUpperCase().padStart(8, "0")}\\X0\\`;
    else if (code >= 32) out += `\\X2\\${code.toString(16).toUpperCase().padStart(4, "0")}\\X0\\`;
  }
  return `'${out}'`;
}
