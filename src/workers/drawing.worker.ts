/** Reads a drawing or a shape of a stranger away from the page, which ends this worker when it takes too long. */
import type { DrawnPieces, Skeleton } from "@/core/imports";
import type { DrawnOutline } from "@/core/job";
import type { Problem, Result } from "@/core/kernel";
import { type ReadShape, readTriangles } from "@/core/shape";
import { readOutline, readPieces } from "@/formats/dxf-in";
import { readGltf } from "@/formats/glb-in";
import { readSkeleton } from "@/formats/skeleton-in";

export type DrawingAsked = {
  readonly kind: "outline" | "standIn" | "skeleton" | "pieces";
  readonly name: string;
  readonly bytes: ArrayBuffer;
};
export type DrawingRead = Result<DrawnOutline | ReadShape | Skeleton | DrawnPieces, Problem>;

self.addEventListener("message", ({ data }: MessageEvent<DrawingAsked>) => {
  const { kind, name, bytes } = data;
  const text = () => new TextDecoder().decode(bytes);
  const readers: { readonly [K in DrawingAsked["kind"]]: () => DrawingRead | Promise<DrawingRead> } = {
    outline: () => readOutline(name, text()),
    standIn: () => (/\.(glb|gltf)$/i.test(name) ? readGltf(name, bytes) : readTriangles(name, bytes)),
    skeleton: () => readSkeleton(name, text()),
    pieces: () => readPieces(name, text()),
  };
  // What a file does to its reader is told by the page, which hears of the error.
  void Promise.resolve(readers[kind]()).then((read) => self.postMessage(read));
});
