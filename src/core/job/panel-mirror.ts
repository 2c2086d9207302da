/** The mirror image of a panel that stands square to the job. */
import { ok, type Problem, type Result } from "../kernel";
import type { Job } from "./job";
import type { OutlineCorner, Panel, PanelEdge, Work } from "./panel";
import { type Axis, minus, type PlaceText, plus, termOf, textOf, times } from "./place-text";
import { refused } from "./records";

const SWAPPED: Readonly<Record<PanelEdge, PanelEdge>> = {
  front: "back",
  back: "front",
  left: "left",
  right: "right",
};

/** A mirrored panel: front and back change places, since its own axes stay right-handed. */
export function mirroredPanel(
  panel: Panel,
  axis: Axis,
  place: (at: PlaceText) => [string, string, string],
  job: Job,
): Result<Panel, Problem> {
  const across = widthAxisOf(panel);
  if (!across)
    return refused(
      "Panel",
      panel.name,
      "stands at axes given by formulas or slanting; mirror it as part of an assembly",
    );
  const unit = job.info.job.unit;
  const back = (i: Axis) =>
    textOf(plus(termOf(panel.origin[i], unit), times(termOf(panel.width, unit), across[i])));
  const turned = (direction: PlaceText): [string, string, string] => {
    const part = (i: Axis) => (i === axis ? textOf(times(termOf(direction[i], "mm"), -1)) : direction[i]);
    return [part(0), part(1), part(2)];
  };
  const { edging, tilt } = panel;
  return ok({
    ...panel,
    origin: place([back(0), back(1), back(2)]),
    lengthAxis: turned(panel.lengthAxis),
    faceAxis: turned(panel.faceAxis),
    // It rises to the same face, which looks the mirrored way.
    tilt: tilt && { ...tilt, edge: SWAPPED[tilt.edge] },
    edging: { front: edging.back, back: edging.front, left: edging.left, right: edging.right },
    outline: panel.outline?.map(mirroredCorner) ?? null,
    work: panel.work.map((one) => mirroredWork(one, panel.width, job)),
  });
}

const mirroredCorner = (corner: OutlineCorner): OutlineCorner => ({
  ...corner,
  fromY: corner.fromY === "front" ? "back" : "front",
});

/** Work as it lies when front and back change places; left and right stay. */
function mirroredWork(work: Work, width: string, job: Job): Work {
  const { unit } = job.info.job;
  switch (work.kind) {
    case "groove": {
      // Stops at the front and back ends change places on cross grooves.
      const crosses = work.from === "left" || work.from === "right";
      return {
        ...work,
        from: SWAPPED[work.from],
        stopAtStart: crosses ? work.stopAtEnd : work.stopAtStart,
        stopAtEnd: crosses ? work.stopAtStart : work.stopAtEnd,
      };
    }
    case "hole": {
      const step = work.along === "width" ? textOf(times(termOf(work.step, unit), -1)) : work.step;
      return { ...work, y: textOf(minus(termOf(width, unit), termOf(work.y, unit))), step };
    }
    case "notch": {
      if (work.from === "front" || work.from === "back") return { ...work, from: SWAPPED[work.from] };
      const end = minus(termOf(width, unit), plus(termOf(work.distance, unit), termOf(work.width, unit)));
      return { ...work, distance: textOf(end) };
    }
    case "cutOut":
      return { ...work, corners: work.corners.map(mirroredCorner) };
    default:
      return work satisfies never;
  }
}

/** The unit vector along the panel's width, for panels square to the job; null otherwise. */
function widthAxisOf(panel: Panel): readonly [number, number, number] | null {
  const numbers = (direction: PlaceText) => direction.map(Number);
  const [x, z] = [numbers(panel.lengthAxis), numbers(panel.faceAxis)];
  const square = (d: readonly number[]) =>
    d.every(Number.isFinite) && d.filter((part) => part !== 0).length === 1;
  if (!square(x) || !square(z)) return null;
  const sign = (d: readonly number[]) => d.map((part) => Math.sign(part));
  const [sx, sz] = [sign(x), sign(z)];
  const cross = (i: number, j: number) => (sz[i] ?? 0) * (sx[j] ?? 0) - (sz[j] ?? 0) * (sx[i] ?? 0);
  return [cross(1, 2), cross(2, 0), cross(0, 1)];
}
