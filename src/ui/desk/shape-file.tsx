"use client";
/** Reads an imported shape (STL or glTF) as a stand-in for a bought part. */
import type { StandIn } from "@/core/job";
import { sentence } from "@/core/kernel";
import { FileField } from "../common/file-field";
import { useDesk } from "./desk-context";
import { useDrawingReaders } from "./drawing-readers";

export function ShapeFile({ onRead }: { readonly onRead: (as: StandIn) => string | null }) {
  const desk = useDesk();
  const { standIn } = useDrawingReaders();
  return (
    <FileField
      label="Shape from a file"
      accept=".stl,.glb,.gltf"
      onFile={async (file) => {
        const found = await standIn(file);
        if (!found.ok) return sentence(found.problem);
        // The job names the shape: it has to be there first.
        const refused = await desk.storeAsset(found.value.asset);
        return refused ?? onRead(found.value.standIn);
      }}
    />
  );
}
