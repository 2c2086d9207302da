/** Reading STEP files: all that is told apart, beside the time of the reader alone. */
import { modelOf } from "@/core/brep";
import type { Frame } from "@/core/geometry";
import { type Job, NO_ASSETS } from "@/core/job";
import { seededRandom } from "@/core/kernel";
import { createPipeline } from "@/core/pipeline";
import { loadStepReader } from "@/engines/step-reader";
import { foundInStep, writeStep } from "@/formats/step";
import { randomPieces, STOCKROOM } from "../src/formats/step/round-trip.fixture";

const HEAD = { name: "bench", made: new Date(0), shop: "" };

function modelOfPieces(count: number) {
  const job: Job = randomPieces(seededRandom(9), count);
  const { shape } = createPipeline()(job, null, STOCKROOM, []);
  return modelOf(job, shape, NO_ASSETS);
}

/** 40 products, each placed 50 times. */
function instancesText(): string {
  const model = modelOfPieces(40);
  const products = model.products.map((product) =>
    product.key === model.root
      ? {
          ...product,
          holds: product.holds.flatMap((held) =>
            Array.from({ length: 50 }, (_, i) => {
              const frame: Frame = {
                ...held.frame,
                origin: [held.frame.origin[0] + 3000 * i, held.frame.origin[1], 0],
              };
              return { ...held, frame };
            }),
          ),
        }
      : product,
  );
  return writeStep({ ...model, products }, HEAD);
}

export async function stepTable(): Promise<void> {
  console.log("STEP files: all, and of that the reader alone (one run each)");
  for (const [name, text] of [
    ["40 products, 2,000 instances", instancesText()],
    ["400 different solids", writeStep(modelOfPieces(400), HEAD)],
  ] as const) {
    const reader = await loadStepReader();
    const bytes = new TextEncoder().encode(text);
    let alone = 0;
    const start = performance.now();
    const found = foundInStep("bench.step", bytes, (sent) => {
      const before = performance.now();
      const meshes = reader(sent);
      alone += performance.now() - before;
      return meshes;
    });
    const all = performance.now() - start;
    const { rss } = process.memoryUsage();
    console.log(
      `  ${name.padEnd(30)}${(bytes.length / 1e6).toFixed(1)} MB   ${(all / 1000).toFixed(1)} s, reader ${(alone / 1000).toFixed(1)} s, ${(all / alone).toFixed(2)} × (aim 1.15)   ${(rss / 1e6).toFixed(0)} MB memory   ${found.ok ? "" : "not read"}`,
    );
  }
}
