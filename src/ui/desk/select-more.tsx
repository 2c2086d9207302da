"use client";
/** Selecting more: everything of the same row, stock or name as what is selected, or everything there is. */
import { ListChecks } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { type AlikeBy, alike } from "@/core/tally";
import { buttonClass } from "../common/button";
import { OUT_ITEM } from "../common/out-menu";
import { useDesk, useDeskState } from "./desk-context";

const CHOICES: readonly (readonly [AlikeBy, string])[] = [
  ["row", "All in the same rows"],
  ["stock", "All of the same stock"],
  ["name", "All of the same name"],
];

export function SelectMore() {
  const hasRows = useDeskState((state) => state.results.tally.rows.length > 0);
  if (!hasRows) return null;
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={buttonClass("plain")}>
        <ListChecks size={15} aria-hidden /> Select
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          side="top"
          align="start"
          sideOffset={4}
          className="z-50 w-[240px] rounded-sm border border-seam bg-leaf p-1 shadow-lg"
        >
          <Choices />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Found when the menu is opened: all pieces are gone through for it. */
function Choices() {
  const desk = useDesk();
  const rows = useDeskState((state) => state.results.tally.rows);
  const selected = useDeskState((state) => state.selected);
  const hasPiece = rows.some(({ pieces }) => pieces.some(({ id }) => selected.has(id)));
  const all = rows.flatMap(({ pieces }) => pieces.map(({ id }) => id));
  const choices: readonly (readonly [string, readonly string[]])[] = [
    ...(hasPiece ? CHOICES.map(([by, words]) => [words, alike(rows, selected, by)] as const) : []),
    ["All pieces", all],
  ];
  return choices.map(([words, ids]) => (
    <DropdownMenu.Item key={words} className={OUT_ITEM} onSelect={() => desk.select(ids)}>
      <span className="flex justify-between text-[14px]">
        {words} <span className="text-ink-soft">{ids.length}</span>
      </span>
    </DropdownMenu.Item>
  ));
}
