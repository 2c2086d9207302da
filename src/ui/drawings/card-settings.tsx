"use client";
/** Settings of a card: its size, and whether it shows where the piece sits. */
import type { CardItem } from "@/core/job";
import { TextField } from "../common/text-field";
import { Tick } from "../common/tick";
import { GRID, paperLength, RemoveItems, useItemChange } from "./settings-parts";

export function CardSettings({ item }: { readonly item: CardItem }) {
  const change = useItemChange(item);
  const size = (label: string, which: "width" | "height", least: number) => (
    <TextField
      label={label}
      value={String(item[which])}
      onCommit={(text) => {
        const length = paperLength(text, least, 800);
        return typeof length === "string" ? length : change({ [which]: length });
      }}
    />
  );
  return (
    <div className={GRID}>
      {size("Width, mm", "width", 90)}
      {size("Height, mm", "height", 70)}
      <span className="flex items-end gap-3">
        <Tick label="Where it sits" on={item.sits} onToggle={(sits) => change({ sits })} />
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
  );
}
