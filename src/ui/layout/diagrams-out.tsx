"use client";
/** The diagrams of one stock size as files: pages to scale, a drawing, or sheets as layers. */
import { Download } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { LayoutTask } from "@/core/layout";
import { buttonClass } from "../common/button";
import { useLayoutGround } from "./layout-ground";

const FORMATS = [
  ["pdf", "PDF, to scale", "bars or sheets with their cutting order"],
  ["svg", "SVG", "the diagrams as one drawing, in millimetres of the paper"],
  ["dxf", "DXF", "full size; outlines, labels, cuts and rests on layers of their own"],
] as const;

export function DiagramsOut({ task, ready }: { readonly task: LayoutTask; readonly ready: boolean }) {
  const { papers, revision } = useLayoutGround();
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={buttonClass("plain")} disabled={!ready}>
        <Download size={16} aria-hidden /> Out
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-50 w-[300px] rounded-sm border border-seam bg-leaf p-1 shadow-lg"
        >
          <DropdownMenu.Label className="px-2 py-1 text-[12px] text-ink-soft">
            {task.name}, as it was kept; the job stands at revision {revision}
          </DropdownMenu.Label>
          {FORMATS.map(([format, label, contains]) => (
            <DropdownMenu.Item
              key={format}
              asChild
              className="block cursor-pointer rounded-sm px-2 py-1 data-[highlighted]:bg-brass-pale data-[highlighted]:outline-none"
            >
              <a href={`${papers}&task=${encodeURIComponent(task.id)}&format=${format}`} download>
                <span className="block text-[14px]">Diagrams ({label})</span>
                <span className="block text-[12px] text-ink-soft">{contains}</span>
              </a>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
