/** Files of strangers, read in a worker of their own: one that takes too long, or too much memory, ends with its worker. */
import type { DrawnPieces, ImportAsked, Imported, Skeleton } from "@/core/imports";
import type { DrawnOutline } from "@/core/job";
import { err, type Problem, type Result } from "@/core/kernel";
import type { ReadShape } from "@/core/shape";
import type { SolidsReading } from "@/ui/desk/drawing-readers";
import type { DrawingAsked, DrawingRead } from "../../../workers/drawing.worker";
import type { SolidsAsked, SolidsTold } from "../../../workers/solids.worker";

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

export const skeletonOfFile = (file: File) => read("skeleton", file) as Promise<Result<Skeleton, Problem>>;
export const piecesOfFile = (file: File) => read("pieces", file) as Promise<Result<DrawnPieces, Problem>>;

/** As long as a person waits who can see that it goes on; 400 solids take a minute. */
const MOST_SOLIDS_MS = 5 * 60_000;

/** The solids of a STEP file, in a worker that is ended to stop it. */
export function solidsOfFile(file: File, onProgress: (words: string, share: number) => void): SolidsReading {
  const worker = new Worker(new URL("../../../workers/solids.worker.ts", import.meta.url), {
    type: "module",
  });
  let stop = () => {};
  const found = new Promise<Awaited<SolidsReading["found"]>>((resolve) => {
    const done = (result: Awaited<SolidsReading["found"]>) => {
      clearTimeout(late);
      worker.terminate();
      resolve(result);
    };
    const late = setTimeout(
      () => done(refuse(file.name, "it takes longer than five minutes to read; export it in parts")),
      MOST_SOLIDS_MS,
    );
    stop = () => done(null);
    worker.onmessage = ({ data }: MessageEvent<SolidsTold>) => {
      if (data.kind === "progress") onProgress(data.words, data.share);
      else done(data.found);
    };
    worker.onerror = () =>
      done(
        refuse(
          file.name,
          "its geometry cannot be read, or needs more memory than there is; export it in parts",
        ),
      );
    void file.arrayBuffer().then((bytes) => {
      worker.postMessage({ name: file.name, bytes } satisfies SolidsAsked, [bytes]);
    });
  });
  return { found, stop };
}

/** What a file of solids enters; null: it cannot be made, for want of memory. */
export async function importOfSolids(asked: ImportAsked): Promise<Imported | null> {
  const worker = new Worker(new URL("../../../workers/import.worker.ts", import.meta.url), {
    type: "module",
  });
  try {
    return await new Promise<Imported | null>((resolve) => {
      worker.onmessage = ({ data }: MessageEvent<Imported>) => resolve(data);
      worker.onerror = () => resolve(null);
      worker.postMessage(asked);
    });
  } finally {
    worker.terminate();
  }
}
