"use client";
/** Reads an imported shape (STL, the open triangle format) as a stand-in for a bought part. */
import type { StandIn } from "@/core/job";
import { sentence } from "@/core/kernel";
import { FileField } from "../common/file-field";
import { useDrawingReaders } from "./drawing-readers";

export function ShapeFile({ onRead }: { readonly onRead: (as: StandIn) => string | null }) {
  const { standIn } = useDrawingReaders();
  return (
    <FileField
      label="Shape from a file"
      accept=".stl"
      onFile={async (file) => {
        const found = await standIn(file);
        return found.ok ? onRead(found.value) : sentence(found.problem);
      }}
    />
  );
}
