/** The lines of a view of a large job, beside the time that the core takes for the job itself. */
import { seenPieces, viewFrom, viewLines } from "@/core/drawing";
import type { Vec3 } from "@/core/geometry";
import { createPipeline } from "@/core/pipeline";
import type { Stockroom } from "@/core/stockroom";
import { generatedJob } from "./generated";

type Run = (work: () => void) => number;

const VIEWS: readonly (readonly [string, Vec3])[] = [
  ["front", [0, -1, 0]],
  ["isometric", [-1, -1, 1]],
];
const AIMS: Readonly<Record<number, number>> = { 300: 200, 2000: 1_000 };

export function lineTable(
  stockroom: Stockroom,
  timed: Run,
  median: (values: readonly number[]) => number,
): void {
  console.log("Lines of a view, hidden ones removed (median of 5); × the core's time for the job");
  for (const size of [300, 2_000]) {
    const job = generatedJob(size);
    const core = median(
      Array.from({ length: 3 }, () => timed(() => createPipeline()(job, null, stockroom, []))),
    );
    const { shape } = createPipeline()(job, null, stockroom, []);
    for (const [name, direction] of VIEWS) {
      const view = viewFrom(direction);
      const solids = timed(() => seenPieces(shape, view));
      const pieces = seenPieces(shape, view);
      let count = 0;
      const lines = median(
        Array.from({ length: 5 }, () =>
          timed(() => {
            count = viewLines(pieces).length;
          }),
        ),
      );
      const aim = name === "isometric" ? `   (aim: ${AIMS[size]} ms)` : "";
      console.log(
        `  ${`${size.toLocaleString("en")} pieces, ${name}`.padEnd(28)}solids ${solids.toFixed(0).padStart(5)} ms, lines ${lines.toFixed(0).padStart(6)} ms ${(lines / core).toFixed(1).padStart(6)} ×   ${count} lines${aim}`,
      );
    }
  }
}
