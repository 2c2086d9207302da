"use client";
/** Balloons: all at once for a view, one by one by clicking pieces, further leaders, lined up. */
import { CircleDot } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { toast } from "sonner";
import { balloonRows, type DrawnPage, newBalloons } from "@/core/drawing";
import type { BalloonItem, Edit } from "@/core/job";
import { counted } from "@/core/kernel";
import type { Results } from "@/core/pipeline";
import { buttonClass } from "../common/button";
import { useDesk, useDeskState } from "../desk/desk-context";
import { newItemId } from "./new-items";
import { balloonsIn, type Pointing } from "./pointing";

const ITEM =
  "block cursor-pointer rounded-sm px-2 py-1 text-[14px] data-[highlighted]:bg-brass-pale data-[highlighted]:outline-none data-[disabled]:opacity-45";

/** The view of a page in which most parts of pieces are seen, of those that may be chosen. */
function bestView({ rings }: DrawnPage, selected: ReadonlySet<string>): string | null {
  const chosen = [...rings].filter(([id]) => selected.has(id));
  const among = chosen.length > 0 ? chosen : [...rings];
  const piecesIn = (id: string) => new Set(rings.get(id)?.drawn.parts.map(({ piece }) => piece)).size;
  return among.reduce<string | null>(
    (best, [id]) => (best === null || piecesIn(id) > piecesIn(best) ? id : best),
    null,
  );
}

/** The balloons that the rows of a page, or of the set, still want in a view. */
export function missingBalloons(
  drawn: DrawnPage,
  view: string,
  rows: Results["tally"]["rows"],
): readonly BalloonItem[] {
  const ring = drawn.rings.get(view);
  if (!ring) return [];
  return newBalloons({ page: drawn.page.id, view }, rows, balloonsIn(drawn.placed, view), ring, newItemId);
}

type Props = { readonly drawn: DrawnPage; readonly onPoint: (pointing: Pointing) => void };

export function BalloonMenu({ drawn, onPoint }: Props) {
  const desk = useDesk();
  const results = useDeskState((state) => state.results);
  const job = useDeskState((state) => state.job);
  const selected = useDeskState((state) => state.selected);
  const balloons = drawn.placed.filter(({ item }) => item.kind === "balloon");
  const chosen = balloons.filter(({ item }) => selected.has(item.id));
  const view = bestView(drawn, selected);
  const placeAll = () => {
    if (view === null) return;
    const named = new Set(
      balloons.flatMap(({ item }) =>
        item.kind === "balloon"
          ? item.pieces.map(({ record }) => results.tally.rowOfPiece.get(record)?.id)
          : [],
      ),
    );
    const { all } = balloonRows(job, results);
    const wanted = all.filter(({ id }) => !named.has(id));
    const items = missingBalloons(drawn, view, wanted);
    if (items.length > 0) desk.submit({ kind: "setPageItems", items: [...items] });
    const hidden = wanted.length - items.length;
    if (hidden > 0)
      toast(
        `${counted(hidden, "row")} left: not seen in this view, or no room round it. Add a view, or change the scale.`,
      );
    else if (items.length === 0) toast("Each row that is seen here has a balloon already.");
  };
  const again = () => {
    const items = (chosen.length > 0 ? chosen : balloons).map(({ item }) => item as BalloonItem);
    const ids = new Set(items.map(({ view: of }) => of));
    const edits: Edit[] = [...ids].flatMap((of): Edit[] => {
      const ring = drawn.rings.get(of);
      const own = items.filter((item) => item.view === of);
      if (!ring) return [];
      const others = balloonsIn(drawn.placed, of).filter((item) => !own.includes(item));
      const rows = own.flatMap(({ pieces }) => results.tally.rowOfPiece.get(pieces[0]?.record ?? "") ?? []);
      const made = newBalloons({ page: drawn.page.id, view: of }, rows, others, ring, newItemId);
      const placed = own.flatMap((item): BalloonItem[] => {
        const row = results.tally.rowOfPiece.get(item.pieces[0]?.record ?? "");
        const one = made.find(({ pieces }) => row?.pieces.some(({ id }) => id === pieces[0]?.record));
        return one ? [{ ...item, stands: one.stands }] : [];
      });
      return placed.length === 0 ? [] : [{ kind: "setPageItems", items: placed }];
    });
    for (const edit of edits) desk.submit(edit);
  };
  const lineUp = (axis: 0 | 1) => {
    const [first] = chosen;
    if (!first) return;
    const middle = ({ box, at }: (typeof chosen)[number]): readonly [number, number] => [
      at[0] + (box.x0 + box.x1) / 2,
      at[1] + (box.y0 + box.y1) / 2,
    ];
    const line = middle(first)[axis];
    const items = chosen.map((one): BalloonItem => {
      const place = [...middle(one)] as [number, number];
      place[axis] = line;
      return {
        ...(one.item as BalloonItem),
        stands: { kind: "hand", at: [place[0] - one.at[0], place[1] - one.at[1]] },
      };
    });
    desk.submit({ kind: "setPageItems", items });
  };
  const [only] = chosen;
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={buttonClass("plain")} disabled={view === null}>
        <CircleDot size={16} aria-hidden /> Balloons
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-50 min-w-[220px] rounded-sm border border-seam bg-leaf p-1 shadow-lg"
        >
          <DropdownMenu.Item className={ITEM} onSelect={placeAll}>
            Place all for {chosenWords(drawn, selected)}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={() => onPoint({ kind: "balloon" })}>
            Place one by one
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={ITEM}
            disabled={chosen.length !== 1}
            onSelect={() => only && onPoint({ kind: "leader", balloon: only.item.id })}
          >
            Add a leader to the selected one
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} disabled={balloons.length === 0} onSelect={again}>
            {chosen.length > 0 ? "Place the selected again" : "Place all again"}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} disabled={chosen.length < 2} onSelect={() => lineUp(1)}>
            Line up in a row
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} disabled={chosen.length < 2} onSelect={() => lineUp(0)}>
            Line up in a column
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const chosenWords = ({ rings }: DrawnPage, selected: ReadonlySet<string>): string =>
  [...rings.keys()].some((id) => selected.has(id)) ? "the selected view" : "the page";
