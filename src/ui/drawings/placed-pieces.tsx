"use client";
/** Which pieces the pages place: those that nothing places, sizes that say nothing new, and how a chosen piece is known. */
import { useEffect, useState, useSyncExternalStore } from "react";
import { toast } from "sonner";
import { jobStyle } from "@/core/job";
import { counted } from "@/core/kernel";
import { sayLength } from "@/core/measure";
import type { ProposedSize } from "@/core/placing";
import type { BodyName, LooseGroup, PlacingOfPiece } from "@/core/placings";
import { Button } from "../common/button";
import { Tag } from "../common/tag";
import { useDesk, useDeskState } from "../desk/desk-context";
import { useDrawings } from "./drawings-ground";
import { FREEDOM_WORDS, nameOf } from "./item-words";
import { type AddSizes, useAddSizes } from "./size-menu";

/** How many are named; more are counted. */
const MOST_NAMED = 8;

export function PlacedPieces() {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const { placings, pages, page, draw } = useDrawings();
  const addSizes = useAddSizes(page ? draw(page) : null);
  const { report, isOld, hasFailed } = useSyncExternalStore(
    placings.subscribe,
    placings.shown,
    placings.shown,
  );
  if (pages.length === 0) return null;
  if (hasFailed)
    return (
      <p className="text-ink-soft">Whether every piece is placed could not be checked on this machine.</p>
    );
  if (!report) return <p className="text-ink-soft">Checking which pieces are placed…</p>;
  const { loose, repeated, ofOnePiece, contrary, farthest, count, confirmed } = report;
  const unplaced = new Set(
    loose.flatMap(({ home, bodies }) => bodies.map((body) => `${home} ${body.record} ${body.nth}`)),
  );
  const brackets = (ids: readonly string[]) => {
    const items = ids.flatMap((id) => {
      const item = job.pageItems[id];
      return item?.kind === "size" ? [{ ...item, brackets: true }] : [];
    });
    desk.submit({ kind: "setPageItems", items });
  };
  // Sizes of another page are shown there.
  const show = (ids: readonly string[]) => {
    const page = job.pageItems[ids[0] ?? ""]?.page;
    if (page !== undefined) desk.openPage(page);
    desk.select([...ids]);
  };
  return (
    <div aria-busy={isOld}>
      <p className="text-ink-soft" data-placed={isOld ? "old" : "now"}>
        Placed: {count - unplaced.size} of {count} pieces and assemblies
        {isOld ? ", checking again…" : ""}
      </p>
      {confirmed ? null : (
        <p className="text-oxide">
          A second way of solving does not agree with this list: do not rely on it.
        </p>
      )}
      {confirmed && loose.length === 0 && count > 0 ? (
        <p className="text-moss">Every piece is placed. Solved a second way, with the same answer.</p>
      ) : null}
      <ul>
        {loose.slice(0, MOST_NAMED).map((group) => (
          <LooseRow
            key={`${group.home} ${group.freedom} ${nameKey(group.bodies[0])}`}
            group={group}
            addSizes={addSizes}
          />
        ))}
      </ul>
      {loose.length > MOST_NAMED ? (
        <p className="text-ink-soft">and {loose.length - MOST_NAMED} more places</p>
      ) : null}
      <ul>
        {repeated.slice(0, MOST_NAMED).map(({ size, from }) => (
          <li key={size} className="flex items-center justify-between gap-2 py-0.5">
            <button
              type="button"
              className="min-w-0 text-left hover:underline"
              onClick={() => show([size, ...from])}
            >
              A size on {pageOf(size, job.pageItems, pages)} says what{" "}
              {from.length === 0
                ? "shows from how pieces meet"
                : from.length === 1
                  ? "another size says already"
                  : `${from.length} other sizes say already`}
            </button>
            <Button look="plain" onClick={() => brackets([size])}>
              In brackets
            </Button>
          </li>
        ))}
      </ul>
      {ofOnePiece.length > 0 ? (
        <button
          type="button"
          className="block text-left text-ink-soft hover:underline"
          onClick={() => show(ofOnePiece)}
        >
          {counted(ofOnePiece.length, "size")} of one piece only: the cut list gives{" "}
          {ofOnePiece.length === 1 ? "it" : "them"} too
        </button>
      ) : null}
      {contrary.slice(0, MOST_NAMED).map((id) => (
        <button
          key={id}
          type="button"
          className="block text-left text-oxide hover:underline"
          onClick={() => show([id])}
        >
          A size on {pageOf(id, job.pageItems, pages)} is typed over with another value than the design has
        </button>
      ))}
      {farthest && farthest.mm >= 0.05 && loose.length === 0 ? (
        <p className="text-ink-soft">
          Built from the numbers as written, no piece is off by more than{" "}
          {sayLength(Math.ceil(farthest.mm * 10) / 10, jobStyle(job))} ({nameOf(farthest.body.record, job)})
        </p>
      ) : null}
      <HowPlaced />
    </div>
  );
}

const nameKey = (body: BodyName | undefined): string => `${body?.record} ${body?.nth}`;

function pageOf(
  id: string,
  items: Readonly<Record<string, { readonly page: string }>>,
  pages: readonly { readonly id: string; readonly heading: string }[],
): string {
  const page = items[id]?.page;
  return pages.find((one) => one.id === page)?.heading ?? "a page";
}

/** Pieces that nothing places in one direction, with the size that would. */
function LooseRow({ group, addSizes }: { readonly group: LooseGroup; readonly addSizes: AddSizes }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const tally = useDeskState((state) => state.results.tally);
  const { pages, page, placings } = useDrawings();
  const [first] = group.bodies;
  if (!first) return null;
  const more = group.bodies.length - 1;
  const row = tally.rowOfPiece.get(first.record);
  const add = async () => {
    // The open page first; another one is opened where only that can show it.
    const order = page ? [page, ...pages.filter((one) => one !== page)] : pages;
    for (const one of order) {
      const value = await placings.ask({
        kind: "propose",
        page: one.id,
        only: { home: group.home, bodies: group.bodies },
      });
      const wanted = (value as readonly ProposedSize[] | null)?.slice(0, 1) ?? [];
      if (wanted.length === 0) continue;
      if (one === page) addSizes(wanted);
      else {
        desk.openPage(one.id);
        toast(`${one.heading} can show it: it is open now. Add the size there.`);
      }
      return;
    }
    const from = {
      width: "from the front or above",
      depth: "from a side or above",
      height: "from the front or a side",
      turn: "square to it",
    }[group.freedom];
    toast(`No view of the set shows it. Add one ${from}, or one in which what covers it is hidden.`);
  };
  return (
    <li className="flex items-center justify-between gap-2 py-0.5">
      <button
        type="button"
        className="flex min-w-0 items-center gap-2 text-left hover:underline"
        onClick={() => desk.select(group.bodies.map(({ record }) => record))}
      >
        {row?.mark ? <Tag mark={row.mark} /> : null}
        <span className="min-w-0">
          {nameOf(first.record, job)}
          {first.nth > 1 ? ` ${first.nth}` : ""}
          {more > 0 ? ` and ${more} more` : ""}: {FREEDOM_WORDS[group.freedom]} not given
        </span>
      </button>
      <Button look="plain" onClick={() => void add()}>
        Add size
      </Button>
    </li>
  );
}

/** From what the place of the chosen piece follows. */
function HowPlaced() {
  const job = useDeskState((state) => state.job);
  const selected = useDeskState((state) => state.selected);
  const { placings } = useDrawings();
  const shown = useSyncExternalStore(placings.subscribe, placings.shown, placings.shown);
  const [chosen] = selected.size === 1 ? [...selected] : [];
  const record =
    chosen !== undefined &&
    (job.members[chosen] || job.panels[chosen] || job.boughtParts[chosen] || job.placements[chosen])
      ? chosen
      : null;
  const [told, setTold] = useState<{ readonly of: string; readonly how: PlacingOfPiece | null } | null>(null);
  useEffect(() => {
    if (record === null || shown.isOld) return;
    let current = true;
    void placings.ask({ kind: "how", record }).then((value) => {
      if (current) setTold({ of: record, how: value as PlacingOfPiece | null });
    });
    return () => {
      current = false;
    };
  }, [record, placings, shown]);
  if (record === null || told?.of !== record || !told.how) return null;
  const { how } = told;
  return (
    <div className="mt-1 border-seam border-t pt-1">
      <h4 className="font-semibold">How {nameOf(record, job)} is placed</h4>
      {how.isDatum ? <p>All other pieces are placed from it.</p> : null}
      <ul>
        {how.known.map(({ freedom, sizes, beside }) => {
          const names = [
            ...new Set(beside.map(({ body }) => (body ? nameOf(body.record, job) : "the floor"))),
          ];
          const few =
            names.length > 4
              ? `${names.slice(0, 4).join(", ")} and ${names.length - 4} more`
              : names.join(", ");
          const by = [
            ...(sizes.length > 0 ? [counted(sizes.length, "size")] : []),
            ...(few === "" ? [] : [`where it meets or lines up with ${few}`]),
          ];
          return (
            <li key={freedom}>
              {FREEDOM_WORDS[freedom]}: {by.join(", and ") || "not given"}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
