"use client";
/** Sizes: over all at once, or picked from place to place, in chains or steps. */
import { Ruler } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useMemo } from "react";
import { toast } from "sonner";
import { type CatchGround, type DrawnPage, isSquareView, overallSizes } from "@/core/drawing";
import { itemsOfPage, pageStyle } from "@/core/job";
import { catchGrounds } from "@/core/paper-set";
import { itemsOfSizes, type ProposedSize, plainSize } from "@/core/placing";
import { buttonClass } from "../common/button";
import { useDesk, useDeskState } from "../desk/desk-context";
import { useDrawings } from "./drawings-ground";
import { MEASURE_WORDS } from "./item-words";
import { newItemId } from "./new-items";
import { type Pointing, type Sizing, sizesIn } from "./pointing";

const ITEM =
  "block cursor-pointer rounded-sm px-2 py-1 text-[14px] data-[highlighted]:bg-brass-pale data-[highlighted]:outline-none data-[disabled]:opacity-45";

/** What sizes of the views of a page are picked from, by view. */
export function useCatchGrounds(drawn: DrawnPage | null): ReadonlyMap<string, CatchGround> {
  const job = useDeskState((state) => state.job);
  const results = useDeskState((state) => state.results);
  const assets = useDeskState((state) => state.assets);
  const variant = useDeskState((state) => state.variant);
  return useMemo(
    () => (drawn ? catchGrounds(drawn, { job, results, assets, variant }) : new Map()),
    [job, results, assets, variant, drawn],
  );
}

/** Adds proposed sizes to a drawn page; whether there was any. */
export type AddSizes = (proposed: readonly ProposedSize[]) => boolean;

export function useAddSizes(drawn: DrawnPage | null): AddSizes {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const grounds = useCatchGrounds(drawn);
  return (proposed) => {
    const items = drawn ? itemsOfSizes(proposed, drawn, grounds, pageStyle(drawn.page, job), newItemId) : [];
    if (items.length > 0) desk.submit({ kind: "setPageItems", items: [...items] });
    return items.length > 0;
  };
}

const sizing = (measure: Sizing["measure"], run: Sizing["run"]): Sizing => ({
  kind: "size",
  measure,
  run,
  from: null,
  stand: null,
});

type Props = { readonly drawn: DrawnPage; readonly onPoint: (pointing: Pointing) => void };

export function SizeMenu({ drawn, onPoint }: Props) {
  const desk = useDesk();
  const selected = useDeskState((state) => state.selected);
  const job = useDeskState((state) => state.job);
  const grounds = useCatchGrounds(drawn);
  const overall = () => {
    const chosen = [...grounds].filter(([id]) => selected.has(id));
    const views = chosen.length > 0 ? chosen : [...grounds];
    const items = views.flatMap(([view, ground]) => {
      return isSquareView(ground.asked.axes)
        ? overallSizes(ground, sizesIn(drawn.placed, view)).map((one) =>
            plainSize({ id: newItemId(), page: drawn.page.id, view, ...one }),
          )
        : [];
    });
    if (items.length > 0) desk.submit({ kind: "setPageItems", items });
    else toast("Over-all sizes are for views from the front, a side or above. Add one first.");
  };
  const { placings } = useDrawings();
  const addSizes = useAddSizes(drawn);
  const needed = async () => {
    const value = await placings.ask({ kind: "propose", page: drawn.page.id, only: null });
    if (!addSizes((value ?? []) as readonly ProposedSize[]))
      toast(
        "No size is missing that a view of this page could show. Sizes are for views from the front, a side or above.",
      );
  };
  const any = itemsOfPage(job, drawn.page.id).some(({ kind }) => kind === "view");
  const entry = (word: string, measure: Sizing["measure"], run: Sizing["run"] = "single") => (
    <DropdownMenu.Item className={ITEM} onSelect={() => onPoint(sizing(measure, run))}>
      {word}
    </DropdownMenu.Item>
  );
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={buttonClass("plain")} disabled={!any}>
        <Ruler size={16} aria-hidden /> Sizes
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-50 min-w-[220px] rounded-sm border border-seam bg-leaf p-1 shadow-lg"
        >
          <DropdownMenu.Item className={ITEM} onSelect={() => void needed()}>
            All that the page needs
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={overall}>
            Over all
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 border-seam border-t" />
          {entry(MEASURE_WORDS.horizontal, "horizontal")}
          {entry("Horizontal, chain", "horizontal", "chain")}
          {entry("Horizontal, all from one place", "horizontal", "steps")}
          {entry(MEASURE_WORDS.vertical, "vertical")}
          {entry("Vertical, chain", "vertical", "chain")}
          {entry("Vertical, all from one place", "vertical", "steps")}
          {entry("Along, from place to place", "along")}
          {entry("Diameter of a hole", "diameter")}
          {entry("Radius of a corner", "radius")}
          {entry("Angle between two members", "angle")}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
