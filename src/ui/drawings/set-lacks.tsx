"use client";
/** What the set of pages still lacks: rows without a balloon, pieces that nothing places, sizes that say nothing new, faults of items. */
import { useMemo, useState } from "react";
import { balloonRows, itemFaultWords } from "@/core/drawing";
import { type Home, itemsOfPage, type Job, type PageItem } from "@/core/job";
import { counted } from "@/core/kernel";
import { lineChange } from "@/core/release";
import { partName, standingSteps } from "@/core/steps";
import type { TallyRow } from "@/core/tally";
import { Button } from "../common/button";
import { LongList, ScrolledBox } from "../common/long-list";
import { Tag } from "../common/tag";
import { useDesk, useDeskState } from "../desk/desk-context";
import { missingBalloons } from "./balloon-menu";
import { useDrawings } from "./drawings-ground";
import { itemWords, KIND_WORDS } from "./item-words";
import { PlacedPieces } from "./placed-pieces";
import { useProposeSteps } from "./use-set-drawing";

/** How many rows without a balloon are named; more are counted. */
const MOST_NAMED = 5;

/** What the set still lacks: rows without a balloon on any page, and items that cannot be shown as they should be. */
export function Lacks() {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const results = useDeskState((state) => state.results);
  const { pages, page, draw } = useDrawings();
  const { all, without, counts } = useMemo(() => balloonRows(job, results), [job, results]);
  const drawn = page ? draw(page) : null;
  const place = () => {
    // In whichever view of the open page each is seen, one view after the other.
    let left = without;
    const items = [...(drawn?.rings.keys() ?? [])].flatMap((view) => {
      const made = drawn ? missingBalloons(drawn, view, left) : [];
      const named = new Set(
        made.map(({ pieces }) => results.tally.rowOfPiece.get(pieces[0]?.record ?? "")?.id),
      );
      left = left.filter(({ id }) => !named.has(id));
      return made;
    });
    if (items.length > 0) desk.submit({ kind: "setPageItems", items });
  };
  const faults = drawn?.placed.filter(({ fault }) => fault !== null) ?? [];
  const onPages = pages.filter((one) =>
    itemsOfPage(job, one.id).some(({ kind }) => kind === "balloon"),
  ).length;
  return (
    <section
      aria-label="What the set lacks"
      className="max-h-[55%] shrink-0 overflow-auto border-seam border-t bg-ground px-3.5 py-2 text-[13px]"
    >
      <h3 className="flex items-center justify-between font-semibold">
        What the set lacks
        {without.length > 0 && drawn && drawn.rings.size > 0 ? (
          <Button look="plain" onClick={place}>
            Place them
          </Button>
        ) : null}
      </h3>
      <p className="flex items-center gap-2 text-ink-soft">
        Balloons: {all.length - without.length} of {counted(all.length, "row")}
        {onPages > 0 ? ` on ${counted(onPages, "page")}` : ""}
      </p>
      <Strokes count={all.length - without.length} />
      {onPages > 0 ? <ByRow rows={all} counts={counts} page={page?.id ?? ""} /> : null}
      <ul>
        {without.slice(0, MOST_NAMED).map((row) => (
          <li key={row.id} className="flex items-center gap-2 py-0.5">
            <button
              type="button"
              className="flex min-w-0 items-center gap-2 text-left hover:underline"
              onClick={() => desk.select(row.pieces.map(({ id }) => id))}
            >
              <Tag mark={row.mark} />
              <span className="truncate">{row.name}: no balloon on any page</span>
            </button>
          </li>
        ))}
      </ul>
      {without.length > MOST_NAMED ? (
        <p className="text-ink-soft">and {without.length - MOST_NAMED} more</p>
      ) : null}
      <PlacedPieces />
      <StepsLack />
      <ChangedSince />
      <ul>
        {faults.slice(0, 20).map(({ item, fault }) => (
          <li key={item.id}>
            <button
              type="button"
              className="text-left text-oxide hover:underline"
              onClick={() => desk.select([item.id])}
            >
              {itemWords(item, job, results.tally)}: {fault ? itemFaultWords(fault) : ""}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What changed on the open page since it was put out, with what stood there before. */
function ChangedSince() {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const tally = useDeskState((state) => state.results.tally);
  const { page, changes, putOut } = useDrawings();
  const out = page ? putOut.of(page.id) : null;
  const changed = page ? changes(page) : null;
  if (!page || !out || !changed) return null;
  const when = `revision ${out.revision}, ${new Date(out.at).toISOString().slice(0, 10)}`;
  return (
    <section aria-label="Changed since it was put out" className="mt-1">
      <p className="text-ink-soft">
        {changed.length === 0 ? `As it was put out (${when})` : `Changed since it was put out (${when}):`}
      </p>
      <ul>
        {changed.slice(0, MOST_CHANGES).map(({ id, kind, was, now }) => {
          const item = job.pageItems[id];
          return (
            <li key={id}>
              <button
                type="button"
                className="w-full text-left hover:underline disabled:no-underline"
                disabled={!item}
                onClick={() => desk.select([id])}
              >
                {item
                  ? itemWords(item, job, tally)
                  : `${KIND_WORDS[kind as PageItem["kind"]] ?? "Item"}, removed`}
                <Difference was={was} now={now} />
              </button>
            </li>
          );
        })}
      </ul>
      {changed.length > MOST_CHANGES ? (
        <p className="text-ink-soft">and {counted(changed.length - MOST_CHANGES, "more item")}</p>
      ) : null}
    </section>
  );
}

/** As many lines as before are told by what differs in each; else what is gone and what came. */
function Difference({ was, now }: { readonly was: readonly string[]; readonly now: readonly string[] }) {
  if (was.length > 0 && was.length === now.length)
    return <span className="block">{shortened(was.map((line, i) => lineChange(line, now[i] ?? "")))}</span>;
  return (
    <>
      {was.length > 0 ? <s className="block text-ink-soft">{shortened(was)}</s> : null}
      {now.length > 0 ? <span className="block">{shortened(now)}</span> : null}
    </>
  );
}

const MOST_CHANGES = 20;
/** So many lines of an item are shown, of those so many letters. */
const MOST_LINES = 6;
const MOST_LETTERS = 120;

const shortened = (lines: readonly string[]): string =>
  [
    ...lines
      .slice(0, MOST_LINES)
      .map((line) => (line.length > MOST_LETTERS ? `${line.slice(0, MOST_LETTERS)}…` : line)),
    ...(lines.length > MOST_LINES ? [`and ${lines.length - MOST_LINES} more`] : []),
  ].join("; ");

/** What building steps leave out, of all that has steps: pieces in none, bought parts of which they take too few or too many. */
function StepsLack() {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const shape = useDeskState((state) => state.results.shape);
  const { setThread } = useDrawings();
  const propose = useProposeSteps(setThread);
  const homes = [...standingSteps(job, shape).values()];
  if (homes.length === 0) return null;
  const nameOfHome = (home: Home) => (home === null ? "" : `${job.assemblies[home]?.name ?? ""}: `);
  const again = homes.flatMap(({ steps }) => steps.filter((one) => one.again.length > 0));
  const never = homes.filter((one) => one.never.length > 0);
  const uneven = homes.flatMap(({ home, uneven: parts }) => parts.map((part) => ({ home, ...part })));
  const steps = homes.reduce((sum, one) => sum + one.steps.length, 0);
  return (
    <div data-steps={never.length + again.length + uneven.length === 0 ? "complete" : "incomplete"}>
      <p className="text-ink-soft">Building steps: {steps}</p>
      {never.length + again.length + uneven.length === 0 ? (
        <p className="text-moss">Each piece is built in once.</p>
      ) : null}
      <ul>
        {never.map(({ home, never: units }) => (
          <li key={home} className="flex items-center justify-between gap-2 py-0.5">
            <button
              type="button"
              className="min-w-0 truncate text-left hover:underline"
              onClick={() => desk.select([...new Set(units.map(({ record }) => record))])}
            >
              {nameOfHome(home)}
              {counted(units.length, "piece")} in no step: {namesOf(units, job)}
            </button>
            <Button look="plain" onClick={propose}>
              Add a step
            </Button>
          </li>
        ))}
        {again.slice(0, MOST_NAMED).map(({ step, again: records }) => (
          <li key={step.id}>
            <button
              type="button"
              className="text-left text-oxide hover:underline"
              onClick={() => {
                desk.openPage(step.page);
                desk.select([step.id]);
              }}
            >
              {step.heading}: {partName(job, records[0] ?? "")} is built in by a step before it already
            </button>
          </li>
        ))}
        {uneven.slice(0, MOST_NAMED).map(({ home, record, wanted, taken }) => (
          <li key={record}>
            <button type="button" className="text-left hover:underline" onClick={() => desk.select([record])}>
              {nameOfHome(home)}
              {partName(job, record)}: {taken} of {wanted} are in steps
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function namesOf(units: readonly { readonly record: string }[], job: Job): string {
  const names = [...new Set(units.map(({ record }) => partName(job, record)))];
  return names.length > 3 ? `${names.slice(0, 3).join(", ")}…` : names.join(", ");
}

/** Each row with a stroke for each of its balloons, those on the open page dark, those on others pale. */
function ByRow({
  rows,
  counts,
  page,
}: {
  readonly rows: readonly TallyRow[];
  readonly counts: ReadonlyMap<string, ReadonlyMap<string, number>>;
  readonly page: string;
}) {
  const desk = useDesk();
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer text-ink-soft">Balloons of each row</summary>
      {open ? (
        <ScrolledBox className="max-h-44 overflow-auto">
          <LongList items={rows} keyOf={({ id }) => id}>
            {({ id, mark, name, pieces }) => {
              const byPage = counts.get(id);
              const here = byPage?.get(page) ?? 0;
              const all = [...(byPage?.values() ?? [])].reduce((sum, one) => sum + one, 0);
              return (
                <button
                  type="button"
                  className="flex h-7 w-full items-center gap-2 text-left hover:underline"
                  aria-label={`${mark} ${name}: ${here} on this page, ${all} in the set`}
                  onClick={() => desk.select(pieces.map((piece) => piece.id))}
                >
                  <Tag mark={mark} />
                  <span className="min-w-0 flex-1 truncate">{name}</span>
                  <Strokes count={here} />
                  <span className="opacity-45">
                    <Strokes count={all - here} />
                  </span>
                </button>
              );
            }}
          </LongList>
        </ScrolledBox>
      ) : null}
    </details>
  );
}

/** A count as tally strokes, five to a group; of many only the count is said elsewhere. */
function Strokes({ count }: { readonly count: number }) {
  if (count === 0 || count > 60) return null;
  const groups = Math.ceil(count / 5);
  return (
    <svg width={groups * 26} height={14} aria-hidden className="my-0.5 block">
      {Array.from({ length: count }, (_, i) => {
        const x = Math.floor(i / 5) * 26 + (i % 5) * 4 + 2;
        const ends = i % 5 === 4 ? { x1: x - 18, y1: 12, x2: x, y2: 2 } : { x1: x, y1: 1, x2: x, y2: 13 };
        // biome-ignore lint/suspicious/noArrayIndexKey: strokes are alike
        return <line key={i} {...ends} stroke="var(--color-moss)" strokeWidth={1.4} />;
      })}
    </svg>
  );
}
