"use client";
/** The diagrams of one stock size as files: pages to scale, a drawing, or sheets as layers. */
import { DropdownMenu } from "radix-ui";
import type { LayoutTask } from "@/core/layout";
import { OUT_ITEM, OutMenu, OutWords } from "../common/out-menu";
import { useLayoutGround } from "./layout-ground";

const FORMATS = [
  ["pdf", "PDF, to scale", "bars or sheets with their cutting order"],
  ["svg", "SVG", "the diagrams as one drawing, in millimetres of the paper"],
  ["dxf", "DXF", "full size; outlines, labels, cuts and offcuts on separate layers"],
] as const;

export function DiagramsOut({ task, ready }: { readonly task: LayoutTask; readonly ready: boolean }) {
  const { papers, revision } = useLayoutGround();
  return (
    <OutMenu heading={`${task.name}, as saved; the job is at revision ${revision}`} disabled={!ready}>
      {FORMATS.map(([format, label, contains]) => (
        <DropdownMenu.Item key={format} asChild className={OUT_ITEM}>
          <a href={`${papers}&task=${encodeURIComponent(task.id)}&format=${format}`} download>
            <OutWords label={`Diagrams (${label})`} contains={contains} />
          </a>
        </DropdownMenu.Item>
      ))}
    </OutMenu>
  );
}
