/** Full-size shapes as a DXF file in the unit of the job, each kind on its layer. */
import { Colors, DxfWriter, LWPolylineFlags, point2d, point3d, Units } from "@tarikjabiri/dxf";
import { type FullShape, SHAPE_LAYERS, type ShapeLayer } from "@/core/drawing";
import { type LengthUnit, MM_PER_UNIT } from "@/core/measure";

const COLOURS: Readonly<Record<ShapeLayer, number>> = {
  STOCK: Colors.White,
  PANELS: Colors.Green,
  HOLES: Colors.Cyan,
  LABELS: Colors.Blue,
  CUTS: Colors.Red,
  OFFCUTS: Colors.Yellow,
};

/** Signs that a drawing programme without our fonts may not know are written plainly. */
const plain = (text: string) => text.replace(/×/g, "x").replace(/[^\x20-\x7e]/g, (sign) => asciiOf(sign));
const asciiOf = (sign: string) => sign.normalize("NFD").replace(/[^\x20-\x7e]/g, "") || "?";

/** What `$INSUNITS` of a drawing says, by the unit of the job; a job in feet is drawn in inches, as shops do. */
const DRAWN_IN: Readonly<
  Record<LengthUnit, { readonly units: (typeof Units)[keyof typeof Units]; readonly mm: number }>
> = {
  mm: { units: Units.Millimeters, mm: 1 },
  cm: { units: Units.Centimeters, mm: MM_PER_UNIT.cm },
  m: { units: Units.Meters, mm: MM_PER_UNIT.m },
  in: { units: Units.Inches, mm: MM_PER_UNIT.in },
  ft: { units: Units.Inches, mm: MM_PER_UNIT.in },
};

/** The text of a DXF file of shapes given in mm; the file says the unit that its numbers are in. */
export function shapesToDxf(shapes: readonly FullShape[], unit: LengthUnit): string {
  const dxf = new DxfWriter();
  const { units, mm } = DRAWN_IN[unit];
  dxf.setUnits(units);
  const flat = ([x, y]: readonly [number, number, ...unknown[]]) => point2d(x / mm, y / mm);
  const deep = ([x, y]: readonly [number, number]) => point3d(x / mm, y / mm);
  for (const layer of SHAPE_LAYERS) dxf.addLayer(layer, COLOURS[layer], "Continuous");
  for (const shape of shapes) {
    dxf.setCurrentLayerName(shape.layer);
    if (shape.kind === "outline")
      dxf.addLWPolyline(
        shape.points.map((point) => ({ point: flat(point) })),
        { flags: LWPolylineFlags.Closed },
      );
    else if (shape.kind === "curve")
      dxf.addLWPolyline(
        shape.corners.map((corner) => ({ point: flat(corner), bulge: corner[2] ?? 0 })),
        { flags: LWPolylineFlags.Closed },
      );
    else if (shape.kind === "circle") dxf.addCircle(deep(shape.centre), shape.radius / mm);
    else if (shape.kind === "line") dxf.addLine(deep(shape.from), deep(shape.to));
    else dxf.addText(deep(shape.at), shape.height / mm, plain(shape.text));
  }
  return dxf.stringify();
}
