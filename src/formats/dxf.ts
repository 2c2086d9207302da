/** Display lists as DXF files in the unit of the job, each item on its layer; y runs upwards there. */
import {
  Colors,
  DxfWriter,
  LWPolylineFlags,
  point2d,
  point3d,
  TextHorizontalAlignment,
  Units,
} from "@tarikjabiri/dxf";
import {
  axesOf,
  CAPITAL_HEIGHT,
  type DrawItem,
  type Drawing,
  type DrawnText,
  type EllipseSegment,
  endOfSegment,
  isRound,
  LAYERS,
  type Layer,
  type Path,
  pointsOf,
  runsOn,
} from "@/core/drawing";
import { insideParts, type Vec2 } from "@/core/geometry";
import { type LengthUnit, MM_PER_UNIT } from "@/core/measure";

const COLOURS: Readonly<Record<Layer, number>> = {
  STOCK: Colors.White,
  PANELS: Colors.Green,
  HOLES: Colors.Cyan,
  LABELS: Colors.Blue,
  CUTS: Colors.Red,
  OFFCUTS: Colors.Yellow,
  OUTLINES: Colors.White,
  EDGES: Colors.White,
  CREASES: Colors.Green,
  HIDDEN: Colors.Cyan,
  HATCHING: Colors.Yellow,
  LISTS: Colors.White,
  BALLOONS: Colors.Blue,
  SIZES: Colors.Red,
  TEXTS: Colors.Blue,
  BORDER: Colors.White,
};
const DASHED = "DASHED";

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

/**
 * The text of a DXF file of a drawing in mm; the file says the unit that its numbers are in. Outlines are written, tints
 * are not. Circles, arcs and ellipses stay what they are, but where a clip cuts them: there they are polylines.
 */
export function drawingToDxf({ height, items }: Drawing, unit: LengthUnit): string {
  return new DxfPage(height, unit).write(items);
}

/** Radians. The steps of arcs where a clip cuts them. */
const CLIPPED_STEP = Math.PI / 90;

/** The layers of items, of those within clips as well. */
const layersOf = (items: readonly DrawItem[]): ReadonlySet<Layer> =>
  new Set(
    items.flatMap((item): Layer[] => [
      ...(item.layer ? [item.layer] : []),
      ...(item.kind === "clip" ? layersOf(item.items) : []),
    ]),
  );

class DxfPage {
  private readonly dxf = new DxfWriter();
  private readonly height: number;
  private readonly mm: number;

  constructor(height: number, unit: LengthUnit) {
    const { units, mm } = DRAWN_IN[unit];
    this.height = height;
    this.mm = mm;
    this.dxf.setUnits(units);
  }

  write(items: readonly DrawItem[]): string {
    const used = layersOf(items);
    // Strokes and gaps in millimetres.
    if (used.has("HIDDEN")) this.dxf.addLType(DASHED, "__ __ __", [3 / this.mm, -0.75 / this.mm]);
    for (const layer of LAYERS)
      if (used.has(layer))
        this.dxf.addLayer(layer, COLOURS[layer], layer === "HIDDEN" ? DASHED : "Continuous");
    for (const item of items) this.item(item, []);
    return this.dxf.stringify();
  }

  /** Turning y over leaves noise in the last digits, which a file should not show. */
  private place([x, y]: Vec2): Vec2 {
    const clean = (value: number) => Math.round((value / this.mm) * 1e9) / 1e9;
    return [clean(x), clean(this.height - y)];
  }

  private item(item: DrawItem, clips: readonly (readonly Vec2[])[]): void {
    this.dxf.setCurrentLayerName(item.layer ?? "0");
    switch (item.kind) {
      case "line":
        if (clips.length > 0) this.clipped([item.from, item.to], clips);
        else this.dxf.addLine(point3d(...this.place(item.from)), point3d(...this.place(item.to)));
        return;
      case "polygon": {
        if (item.stroke === null) return;
        const [from, ...rest] = item.points;
        if (from)
          this.path({ from, segments: rest.map((to) => ({ kind: "line", to })), closed: true }, clips);
        return;
      }
      case "paths":
        if (item.stroke !== null) for (const path of item.paths) this.path(path, clips);
        return;
      case "text":
        if (clips.every((within) => insideParts(item.at, item.at, within).length > 0)) this.text(item);
        return;
      // A file of lines has no pictures of pixels: where one stands, its frame does.
      case "image": {
        const {
          at: [x, y],
          width,
          height,
        } = item;
        const corners: readonly Vec2[] = [
          [x + width, y],
          [x + width, y + height],
          [x, y + height],
        ];
        this.path(
          { from: [x, y], segments: corners.map((to) => ({ kind: "line", to })), closed: true },
          clips,
        );
        return;
      }
      case "clip":
        for (const one of item.items) this.item(one, [...clips, item.within]);
        return;
      default:
        item satisfies never;
    }
  }

  private clipped(points: readonly Vec2[], clips: readonly (readonly Vec2[])[]): void {
    points.slice(1).forEach((to, i) => {
      let parts: readonly (readonly [Vec2, Vec2])[] = [[points[i] ?? to, to]];
      for (const within of clips) parts = parts.flatMap(([a, b]) => insideParts(a, b, within));
      for (const [a, b] of parts) this.dxf.addLine(point3d(...this.place(a)), point3d(...this.place(b)));
    });
  }

  private path(path: Path, clips: readonly (readonly Vec2[])[]): void {
    if (clips.length > 0) {
      this.clipped(pointsOf(path, CLIPPED_STEP), clips);
      return;
    }
    const { from, segments, closed } = path;
    const [only] = segments;
    if (only?.kind === "ellipse" && segments.length === 1) {
      this.arc(only);
      return;
    }
    if (segments.some((segment) => segment.kind === "ellipse" && !isRound(segment))) {
      let start = from;
      for (const segment of segments) {
        if (segment.kind === "ellipse") this.arc(segment);
        else this.dxf.addLine(point3d(...this.place(start)), point3d(...this.place(segment.to)));
        start = endOfSegment(segment);
      }
      if (closed && apart(start, from))
        this.dxf.addLine(point3d(...this.place(start)), point3d(...this.place(from)));
      return;
    }
    const starts = [from, ...segments.map(endOfSegment)];
    const last = starts.at(-1) ?? from;
    // A closed one that comes back to its start does not say it twice.
    const count = closed && !apart(last, from) ? starts.length - 1 : starts.length;
    const vertices = starts.slice(0, count).map((place, i) => {
      const segment = segments[i];
      return {
        point: point2d(...this.place(place)),
        bulge: segment?.kind === "ellipse" ? bulgeOf(segment) : 0,
      };
    });
    this.dxf.addLWPolyline(vertices, { flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None });
  }

  private arc(segment: EllipseSegment): void {
    const { centre, from, to } = segment;
    const { major, minor, angle } = axesOf(segment);
    const [at, size] = [point3d(...this.place(centre)), major / this.mm];
    const whole = Math.abs(to - from) > 2 * Math.PI - 1e-9;
    if (isRound(segment) && whole) {
      this.dxf.addCircle(at, size);
      return;
    }
    // Files know arcs that run anticlockwise, y upwards.
    const angleAt = (place: Vec2) => Math.atan2(-(place[1] - centre[1]), place[0] - centre[0]);
    const onwards = to > from !== runsOn(segment);
    const [first, second] = [segment.from, segment.to].map((one) =>
      angleAt(endOfSegment({ ...segment, to: one })),
    ) as [number, number];
    const [start, end] = onwards ? [first, second] : [second, first];
    if (isRound(segment)) {
      this.dxf.addArc(at, size, (start * 180) / Math.PI, (end * 180) / Math.PI);
      return;
    }
    const axis = -angle;
    // The parameter of a place on an ellipse is the angle of it drawn out to a circle.
    const parameter = (seen: number) => {
      const [x, y] = [Math.cos(seen - axis), Math.sin(seen - axis)];
      return Math.atan2(y * major, x * minor);
    };
    this.dxf.addEllipse(
      at,
      point3d(size * Math.cos(axis), size * Math.sin(axis)),
      minor / major,
      whole ? 0 : parameter(start),
      whole ? 2 * Math.PI : parameter(end),
    );
  }

  private text({ at, text, size, align, turn = 0 }: DrawnText): void {
    const capital = size * CAPITAL_HEIGHT;
    // Its place is the middle of the capitals; a file wants the line that they stand on.
    const down = (turn * Math.PI) / 180;
    const foot = this.place([at[0] + Math.sin(down) * (capital / 2), at[1] + Math.cos(down) * (capital / 2)]);
    const [x, y] = foot;
    this.dxf.addText(point3d(x, y), capital / this.mm, plain(text), {
      rotation: turn,
      ...(align === "left"
        ? {}
        : {
            horizontalAlignment:
              align === "right" ? TextHorizontalAlignment.Right : TextHorizontalAlignment.Center,
            secondAlignmentPoint: point3d(x, y),
          }),
    });
  }
}

const apart = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]) > 1e-9;

/** The tangent of a quarter of the turn, above zero anticlockwise with y upwards (DXF group code 42). */
function bulgeOf(segment: EllipseSegment): number {
  const turn = Math.abs(segment.to - segment.from);
  const sign = segment.to > segment.from === runsOn(segment) ? -1 : 1;
  return sign * Math.tan(turn / 4);
}
