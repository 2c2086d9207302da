"use client";
/** What can be put on a page: views, followers, lists, notes, lines. */
import { ChevronRight, Plus } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { type ReactNode, useRef } from "react";
import { toast } from "sonner";
import { unitNamesOf } from "@/core/apart";
import type { DrawnPage } from "@/core/drawing";
import {
  addedLists,
  FOLLOWER_SIDES,
  type FollowerSide,
  type Job,
  type Page,
  type PageItem,
  readPicture,
  VIEW_SIDES,
  type ViewFrom,
  type ViewItem,
  type ViewOf,
} from "@/core/job";
import { sentence } from "@/core/kernel";
import { sawFor } from "@/core/layout";
import type { TallyRow } from "@/core/tally";
import { cardsOfRows, editsOfSet } from "@/core/whole-set";
import { buttonClass } from "../common/button";
import { newId } from "../common/fresh-id";
import { useDesk, useDeskState } from "../desk/desk-context";
import { SIDE_WORDS, viewOfWords } from "./item-words";
import {
  addViewEdit,
  followerOf,
  newCard,
  newItemId,
  newList,
  newNote,
  newPicture,
  newRule,
  newStep,
  templateEdits,
} from "./new-items";
import type { Pointing } from "./pointing";

const CONTENT = "z-50 min-w-[200px] rounded-sm border border-seam bg-leaf p-1 shadow-lg";
const ITEM =
  "flex cursor-pointer items-center justify-between gap-4 rounded-sm px-2 py-1 text-[14px] data-[highlighted]:bg-brass-pale data-[highlighted]:outline-none data-[disabled]:opacity-45";

const FOLLOWER_WORDS: Readonly<Record<FollowerSide, string>> = {
  left: "To the left",
  right: "To the right",
  above: "Above",
  below: "Below",
};

/** What a new view may show, by the selection. */
function subjects(job: Job, selected: ReadonlySet<string>): readonly (readonly [string, ViewOf])[] {
  const pieces = [...selected].filter((id) => job.members[id] || job.panels[id] || job.boughtParts[id]);
  const placements = [...selected].filter((id) => job.placements[id]);
  const assembly = [...selected].flatMap(
    (id) => job.assemblies[id] ?? job.assemblies[job.placements[id]?.assembly ?? ""] ?? [],
  )[0];
  const [only] = pieces;
  const found: [string, ViewOf][] = [["Whole job", { kind: "job" }]];
  const others = Object.values(job.assemblies).filter((one) => one !== assembly);
  for (const one of [...(assembly ? [assembly] : []), ...others.slice(0, 12)])
    found.push([`Assembly ${one.name}`, { kind: "assembly", assembly: one.id }]);
  if (pieces.length + placements.length > 0)
    found.push(["Selected pieces", { kind: "pieces", records: [...pieces, ...placements] }]);
  if (only && pieces.length === 1) found.push(["Selected piece alone", { kind: "piece", record: only }]);
  return found;
}

type Props = {
  readonly drawn: DrawnPage;
  readonly onPoint: (pointing: Pointing) => void;
  /** Proposes building steps. */
  readonly onSteps: () => void;
};

export function AddMenu({ drawn, onPoint, onSteps }: Props) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const selected = useDeskState((state) => state.selected);
  const tasks = useDeskState((state) => state.results.tasks);
  const seenFrom = useDeskState((state) => state.seenFrom);
  const parent = drawn.placed
    .map(({ item }) => item)
    .find((item): item is ViewItem => item.kind === "view" && selected.has(item.id));
  const addView = (of: ViewOf, from: ViewFrom) => {
    const { results, assets } = desk.store.getState();
    const { edit, id } = addViewEdit(of, from, { job, shape: results.shape, assets, drawn });
    if (desk.submit(edit) === null) desk.select([id]);
  };
  const add = (item: PageItem) => {
    if (desk.submit({ kind: "setPageItems", items: [item] }) === null) desk.select([item.id]);
  };
  const rowOfPiece = useDeskState((state) => state.results.tally.rowOfPiece);
  const patternOf =
    [...selected].flatMap((record) => {
      const row = rowOfPiece.get(record);
      return row && row.shown.form.kind !== "none" ? [{ record, row }] : [];
    })[0] ?? null;
  const addTemplate = () => {
    if (!patternOf) return;
    const { stockroom } = desk.store.getState();
    const made = templateEdits(patternOf.record, patternOf.row, { job, drawn, stockroom });
    if (typeof made === "string") {
      toast.error(made);
      return;
    }
    const what = `Template of ${patternOf.row.mark}`;
    if (desk.submit({ kind: "together", what, edits: [...made.edits] }) !== null) return;
    desk.openPage(made.page.id);
    desk.select([made.first]);
  };
  const saws = useDeskState((state) => state.stockroom.saws);
  const addCards = (isWanted: (row: TallyRow) => boolean) => {
    const { stockroom, results } = desk.store.getState();
    const ids = { page: () => newId("page") as Page["id"], item: newItemId };
    const drawn = cardsOfRows({ job, stockroom, results }, ids, isWanted);
    if (!drawn.ok) {
      toast.error(sentence(drawn.problem));
      return;
    }
    const made = drawn.value;
    const [first] = made.pages;
    if (!first) {
      toast("Each of these rows has a card already, or there is none.");
      return;
    }
    const edits = [...editsOfSet(made)];
    if (desk.submit({ kind: "together", what: "Add cards", edits }) === null) desk.openPage(first.id);
  };
  const addStep = () => {
    const { shape } = desk.store.getState().results;
    const home = parent?.of.kind === "assembly" ? parent.of.assembly : null;
    const own = new Set(unitNamesOf(shape, home).map(({ record }) => record));
    const records = [...selected].filter((record) => own.has(record));
    add(newStep(home, records, job, drawn));
  };
  const directions = (of: ViewOf) => (
    <>
      {VIEW_SIDES.map((side) => (
        <Entry key={side} onSelect={() => addView(of, { kind: "named", side })}>
          {SIDE_WORDS[side]}
        </Entry>
      ))}
      <Entry
        disabled={seenFrom === null}
        onSelect={() => seenFrom && addView(of, { kind: "typed", towards: [...seenFrom] })}
      >
        As the 3D view stands
      </Entry>
    </>
  );
  const file = useRef<HTMLInputElement>(null);
  const addPicture = async (chosen: File) => {
    const read = readPicture(new Uint8Array(await chosen.arrayBuffer()));
    if (!read.ok) return toast.error(sentence(read.problem));
    // The page names the picture: it has to be there first.
    const refused = await desk.storeAsset(read.value);
    if (refused !== null) return toast.error(refused);
    return add(newPicture(read.value, drawn));
  };
  return (
    <DropdownMenu.Root modal={false}>
      <input
        ref={file}
        type="file"
        accept="image/png,image/jpeg"
        aria-label="Picture from a file"
        tabIndex={-1}
        className="sr-only"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          if (chosen) void addPicture(chosen);
          event.target.value = "";
        }}
      />
      <DropdownMenu.Trigger className={buttonClass("plain")}>
        <Plus size={16} aria-hidden /> Add
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className={CONTENT}>
          <DropdownMenu.Label className="px-2 py-1 text-[12px] text-ink-soft">View of</DropdownMenu.Label>
          {subjects(job, selected).map(([word, of]) => (
            <Further key={word} word={word}>
              {directions(of)}
            </Further>
          ))}
          <Further
            word={
              parent
                ? `View beside ${parent.caption ?? viewOfWords(parent, job)}`
                : "View beside the selected one"
            }
            disabled={!parent}
          >
            {FOLLOWER_SIDES.map((side) => (
              <Entry key={side} onSelect={() => parent && addView(parent.of, followerOf(parent, side))}>
                {FOLLOWER_WORDS[side]}
              </Entry>
            ))}
          </Further>
          <Entry disabled={drawn.rings.size === 0} onSelect={() => onPoint({ kind: "detail" })}>
            Detail of a view
          </Entry>
          <Entry
            disabled={patternOf === null}
            onSelect={() => patternOf && add(newCard(patternOf.record, drawn))}
          >
            {patternOf?.row.mark ? `Card of ${patternOf.row.mark}` : "Card of the selected piece"}
          </Entry>
          <Further word="Pages of cards">
            <Entry onSelect={() => addCards(() => true)}>Of all rows that have none</Entry>
            <Entry
              disabled={patternOf === null}
              onSelect={() => addCards(({ pieces }) => pieces.some(({ id }) => selected.has(id)))}
            >
              Of the selected rows
            </Entry>
            {saws.map((saw) => (
              <Entry
                key={saw.id}
                onSelect={() =>
                  addCards(
                    ({ shown: { form } }) => form.kind === "member" && sawFor(saws, form).saw?.id === saw.id,
                  )
                }
              >
                Of rows cut on {saw.name}
              </Entry>
            ))}
          </Further>
          <Entry disabled={patternOf === null} onSelect={addTemplate}>
            {patternOf?.row.mark
              ? `Full-size template of ${patternOf.row.mark}`
              : "Full-size template of the selected piece"}
          </Entry>
          <Further word="Building steps">
            <Entry onSelect={onSteps}>Proposed for all that has none</Entry>
            <Entry onSelect={addStep}>One step, of the selected pieces</Entry>
          </Further>
          <DropdownMenu.Separator className="my-1 border-seam border-t" />
          <Further word="List">
            <Entry onSelect={() => add(newList({ kind: "cut" }, drawn))}>Cut list</Entry>
            <Entry onSelect={() => add(newList({ kind: "buying" }, drawn))}>Buying list</Entry>
            <Entry onSelect={() => add(newList({ kind: "pages" }, drawn))}>Contents</Entry>
            {addedLists(job).map((list) => (
              <Entry key={list.id} onSelect={() => add(newList({ kind: "own", list: list.id }, drawn))}>
                {list.name}
              </Entry>
            ))}
          </Further>
          <Further word="Layout" disabled={tasks.length === 0}>
            {tasks.slice(0, 40).map((task) => (
              <Entry key={task.id} onSelect={() => add(newList({ kind: "layout", task: task.id }, drawn))}>
                {task.material ? `${task.name}, ${task.material}` : task.name}
              </Entry>
            ))}
          </Further>
          <Entry disabled={drawn.rings.size === 0} onSelect={() => onPoint({ kind: "callout" })}>
            Callout
          </Entry>
          <Entry onSelect={() => add(newNote(drawn))}>Note</Entry>
          <Entry onSelect={() => file.current?.click()}>Picture from a file</Entry>
          <Entry onSelect={() => add(newRule(drawn, false))}>Line</Entry>
          <Entry onSelect={() => add(newRule(drawn, true))}>Frame</Entry>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Entry({
  onSelect,
  disabled = false,
  children,
}: {
  readonly onSelect: () => void;
  readonly disabled?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <DropdownMenu.Item className={ITEM} disabled={disabled} onSelect={onSelect}>
      {children}
    </DropdownMenu.Item>
  );
}

function Further({
  word,
  disabled = false,
  children,
}: {
  readonly word: string;
  readonly disabled?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <DropdownMenu.Sub>
      <DropdownMenu.SubTrigger className={ITEM} disabled={disabled}>
        {word}
        <ChevronRight size={14} aria-hidden />
      </DropdownMenu.SubTrigger>
      <DropdownMenu.Portal>
        <DropdownMenu.SubContent className={CONTENT} sideOffset={2}>
          {children}
        </DropdownMenu.SubContent>
      </DropdownMenu.Portal>
    </DropdownMenu.Sub>
  );
}
