/** Full-size shapes as a DXF file in millimetres, each kind on its layer. */
import { Colors, DxfWriter, LWPolylineFlags, point2d, point3d, Units } from "@tarikjabiri/dxf";
import { type FullShape, SHAPE_LAYERS, type ShapeLayer } from "@/core/drawing";

const COLOURS: Readonly<Record<ShapeLayer, number>> = {
  STOCK: Colors.White,
  PANELS: Colors.Green,
  HOLES: Colors.Cyan,
  LABELS: Colors.Blue,
  CUTS: Colors.Red,
  RESTS: Colors.Yellow,
};

/** Signs that a drawing programme without our fonts may not know are written plainly. */
const plain = (text: string) => text.replace(/×/g, "x").replace(/[^\x20-\x7e]/g, (sign) => asciiOf(sign));
const asciiOf = (sign: string) => sign.normalize("NFD").replace(/[^\x20-\x7e]/g, "") || "?";

export function shapesToDxf(shapes: readonly FullShape[]): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const layer of SHAPE_LAYERS) dxf.addLayer(layer, COLOURS[layer], "Continuous");
  for (const shape of shapes) {
    dxf.setCurrentLayerName(shape.layer);
    if (shape.kind === "outline")
      dxf.addLWPolyline(
        shape.points.map(([x, y]) => ({ point: point2d(x, y) })),
        { flags: LWPolylineFlags.Closed },
      );
    else if (shape.kind === "curve")
      dxf.addLWPolyline(
        shape.corners.map(([x, y, bulge = 0]) => ({ point: point2d(x, y), bulge })),
        { flags: LWPolylineFlags.Closed },
      );
    else if (shape.kind === "circle") dxf.addCircle(point3d(shape.centre[0], shape.centre[1]), shape.radius);
    else if (shape.kind === "line")
      dxf.addLine(point3d(shape.from[0], shape.from[1]), point3d(shape.to[0], shape.to[1]));
    else dxf.addText(point3d(shape.at[0], shape.at[1]), shape.height, plain(shape.text));
  }
  return dxf.stringify();
}
