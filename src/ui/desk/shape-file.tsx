"use client";
/** Reads an imported shape (STL, the open triangle format) as a stand-in for a bought part. */
import type { StandIn } from "@/core/job";
import { sentence } from "@/core/kernel";
import { readTriangles } from "@/core/shape";
import { FileField } from "../common/file-field";

export function ShapeFile({ onRead }: { readonly onRead: (as: StandIn) => string | null }) {
  return (
    <FileField
      label="Shape from a file"
      accept=".stl"
      onFile={async (file) => {
        const found = readTriangles(file.name, await file.arrayBuffer());
        return found.ok ? onRead(found.value) : sentence(found.problem);
      }}
    />
  );
}
