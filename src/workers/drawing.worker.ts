/** Reads a drawing or a shape of a stranger away from the page, which ends this worker when it takes too long. */
import type { DrawnOutline } from "@/core/job";
import type { Problem, Result } from "@/core/kernel";
import { type ReadShape, readTriangles } from "@/core/shape";
import { readOutline } from "@/formats/dxf-in";

export type DrawingAsked = {
  readonly kind: "outline" | "standIn";
  readonly name: string;
  readonly bytes: ArrayBuffer;
};
export type DrawingRead = Result<DrawnOutline | ReadShape, Problem>;

self.addEventListener("message", ({ data }: MessageEvent<DrawingAsked>) => {
  const { kind, name, bytes } = data;
  const read: DrawingRead =
    kind === "outline" ? readOutline(name, new TextDecoder().decode(bytes)) : readTriangles(name, bytes);
  self.postMessage(read);
});
