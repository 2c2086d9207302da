/** Reads the solids of a STEP file, away from the page; it is ended from outside to stop it. */
import type { FoundFile } from "@/core/imports";
import type { Problem, Result } from "@/core/kernel";
import { loadStepReader } from "@/engines/step-reader";
import { foundInStep } from "@/formats/step";

export type SolidsAsked = { readonly name: string; readonly bytes: ArrayBuffer };
export type SolidsTold =
  | { readonly kind: "progress"; readonly words: string; readonly share: number }
  | { readonly kind: "found"; readonly found: Result<FoundFile, Problem> };

const tell = (told: SolidsTold) => self.postMessage(told);

self.addEventListener("message", ({ data: { name, bytes } }: MessageEvent<SolidsAsked>) => {
  const read = async () => {
    tell({ kind: "progress", words: "Loading the reader", share: 0 });
    const reader = await loadStepReader(`${self.location.origin}/engines/occt-import-js.wasm`);
    const progress = (words: string, share: number) => tell({ kind: "progress", words, share });
    tell({ kind: "found", found: foundInStep(name, new Uint8Array(bytes), reader, { progress }) });
  };
  read().catch(() => {
    const why = "its geometry cannot be read, or needs more memory than there is; export it in parts";
    tell({ kind: "found", found: { ok: false, problem: { kind: "malformed", what: name, why } } });
  });
});
