"use client";
import { Popover } from "radix-ui";
import { putBackEdits, type SimpleEdit } from "@/core/job";
import { agreeing } from "@/core/kernel";
/** The balance of the tally: every number opens what it counts, and what is left out can be put back there. */
import { guideIds } from "@/core/shape";
import { balances, type LeftOut } from "@/core/tally";
import { Button } from "../common/button";
import { useDesk, useDeskState } from "../desk/desk-context";

export function Balance() {
  const desk = useDesk();
  const tally = useDeskState((state) => state.results.tally);
  const job = useDeskState((state) => state.job);
  const { balance, rows, leftOut } = tally;
  const even = balances(balance);
  const made = rows.filter((row) => row.kind !== "bought");
  const bought = rows.filter((row) => row.kind === "bought");
  const select = (of: typeof rows, more: readonly string[] = []) =>
    desk.select([...of.flatMap((row) => row.pieces.map((piece) => piece.id)), ...more]);
  return (
    <p className="flex flex-wrap items-center gap-x-1">
      <Open
        count={balance.design}
        what="in the design"
        onOpen={() =>
          select(
            rows,
            leftOut.map((piece) => piece.id),
          )
        }
      />
      = <Open count={balance.inRows} what="in rows" onOpen={() => select(made)} /> +{" "}
      <Open count={balance.bought} what="bought" onOpen={() => select(bought)} /> +{" "}
      <LeftOutList count={balance.leftOut} leftOut={leftOut} /> ·{" "}
      <Open
        count={balance.guides}
        what={agreeing(balance.guides, "guide")}
        onOpen={() => desk.select(guideIds(job))}
      />
      <span className={`ml-1 font-semibold ${even ? "text-moss" : "text-oxide"}`}>
        {even ? "all pieces counted" : "pieces missing"}
      </span>
    </p>
  );
}

const OPEN = "hover:underline decoration-chalk";

function Open({
  count,
  what,
  onOpen,
}: {
  readonly count: number;
  readonly what: string;
  readonly onOpen: () => void;
}) {
  return (
    <button type="button" className={OPEN} title={`Select what is ${what}`} onClick={onOpen}>
      <b>{count}</b> {what}
    </button>
  );
}

function LeftOutList({ count, leftOut }: { readonly count: number; readonly leftOut: readonly LeftOut[] }) {
  const desk = useDesk();
  const putBack = (ids: readonly string[]) => {
    const edits = putBackEdits(desk.store.getState().job, ids);
    const [first, ...more] = edits;
    if (!first) return;
    const all: SimpleEdit[] = [first, ...more];
    desk.submit({ kind: "together", what: "Include in lists", edits: all });
  };
  return (
    <Popover.Root>
      <Popover.Trigger className={OPEN} title="What is left out of the lists">
        <b>{count}</b> left out
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={6}
          aria-label="Left out of the lists"
          className="z-40 max-h-[60vh] w-[320px] overflow-auto rounded-sm border border-seam bg-leaf p-2 shadow-lg"
        >
          {leftOut.length === 0 ? (
            <p className="px-1 text-[13px] text-ink-soft">Nothing is left out of the lists.</p>
          ) : (
            <>
              <ul>
                {leftOut.map((piece) => (
                  <li key={piece.id} className="flex items-center gap-2 border-seam border-b text-[13px]">
                    <button
                      type="button"
                      className="min-w-0 flex-1 truncate text-left hover:underline"
                      onClick={() => desk.select([piece.id])}
                    >
                      {piece.quantity} × {piece.name}
                    </button>
                    <Button look="plain" onClick={() => putBack([piece.id])}>
                      Include
                    </Button>
                  </li>
                ))}
              </ul>
              <Button look="plain" onClick={() => putBack(leftOut.map((piece) => piece.id))}>
                Include all
              </Button>
            </>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
