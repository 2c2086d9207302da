"use client";
/** Reads an imported shape (STL, the open triangle format) as a stand-in for a bought part. */
import { FileUp } from "lucide-react";
import { useId, useState } from "react";
import type { StandIn } from "@/core/job";
import { sentence } from "@/core/kernel";
import { readTriangles } from "@/core/shape";

export function ShapeFile({ onRead }: { readonly onRead: (as: StandIn) => string | null }) {
  const id = useId();
  const [fault, setFault] = useState<string | null>(null);
  const read = async (file: File | undefined) => {
    if (!file) return;
    const found = readTriangles(file.name, await file.arrayBuffer());
    setFault(found.ok ? onRead(found.value) : sentence(found.problem));
  };
  return (
    <span className="self-end">
      <label
        htmlFor={id}
        className="inline-flex h-7 cursor-pointer items-center gap-1.5 font-semibold text-enamel hover:underline"
      >
        <FileUp size={14} aria-hidden /> Shape from a file
      </label>
      <input
        id={id}
        type="file"
        accept=".stl"
        className="sr-only"
        onChange={(event) => {
          void read(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      {fault ? (
        <span role="alert" className="block text-[12px] text-oxide leading-tight">
          {fault}
        </span>
      ) : null}
    </span>
  );
}
