/** Files of strangers, read in a worker of their own: one that takes too long, or too much memory, ends with its worker. */
import type { DrawnOutline } from "@/core/job";
import { err, type Problem, type Result } from "@/core/kernel";
import type { ReadShape } from "@/core/shape";
import type { DrawingAsked, DrawingRead } from "../../../workers/drawing.worker";

const MOST_MS = 8_000;
const MOST_BYTES = 20_000_000;

const refuse = (what: string, why: string) => err({ kind: "malformed", what, why } as const);

async function read(kind: DrawingAsked["kind"], file: File): Promise<DrawingRead> {
  if (file.size > MOST_BYTES) return refuse(file.name, `it is larger than ${MOST_BYTES / 1e6} MB`);
  const bytes = await file.arrayBuffer();
  const worker = new Worker(new URL("../../../workers/drawing.worker.ts", import.meta.url), {
    type: "module",
  });
  try {
    return await new Promise<DrawingRead>((resolve) => {
      const late = setTimeout(
        () => resolve(refuse(file.name, "it takes too long to read; leave only the piece in it")),
        MOST_MS,
      );
      worker.onmessage = ({ data }: MessageEvent<DrawingRead>) => {
        clearTimeout(late);
        resolve(data);
      };
      worker.onerror = () => {
        clearTimeout(late);
        resolve(refuse(file.name, "it holds something that cannot be read; save it again"));
      };
      worker.postMessage({ kind, name: file.name, bytes } satisfies DrawingAsked, [bytes]);
    });
  } finally {
    worker.terminate();
  }
}

export const outlineOfFile = (file: File) => read("outline", file) as Promise<Result<DrawnOutline, Problem>>;
export const standInOfFile = (file: File) => read("standIn", file) as Promise<Result<ReadShape, Problem>>;
