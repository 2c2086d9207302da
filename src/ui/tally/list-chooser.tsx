"use client";
import { useQuery } from "@tanstack/react-query";
import { Plus, Trash2 } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { addedLists, cutListOf, listFromSaved, type SavedSetup } from "@/core/job";
/** Which list of the job is shown, and new ones: from a start, or from a setup that the stockroom keeps. */
import { counted } from "@/core/kernel";
import { LIST_STARTS, startList } from "@/core/lists";
import { buttonClass } from "../common/button";
import { Chooser } from "../common/chooser";
import { newId } from "../common/fresh-id";
import { call } from "../common/http";
import { answerOf } from "../common/queries";
import { useDesk, useDeskState } from "../desk/desk-context";

const ITEM =
  "cursor-pointer rounded-sm px-2 py-1 data-[highlighted]:bg-brass-pale data-[highlighted]:outline-none";

export function ListChooser() {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const shown = useDeskState((state) => state.list);
  return (
    <>
      <span className="w-[190px]">
        <Chooser
          label="List"
          hideLabel
          value={shown ?? ""}
          choices={[
            { value: "", label: cutListOf(job).name },
            ...addedLists(job).map(({ id, name }) => ({ value: id as string, label: name })),
          ]}
          onChoose={(id) => desk.openList(id === "" ? null : id)}
        />
      </span>
      <NewList />
    </>
  );
}

function NewList() {
  const desk = useDesk();
  const [open, setOpen] = useState(false);
  const { data: saved, refetch } = useQuery({
    queryKey: ["list setups"],
    queryFn: () => answerOf<{ setups: readonly SavedSetup[] }>("/api/stockroom/lists"),
    select: ({ setups }) => setups,
    enabled: open,
    // Another list may have been saved since the menu was last open.
    staleTime: 0,
  });
  const start = (from: (typeof LIST_STARTS)[number]) => {
    const { lists } = desk.store.getState().job;
    const taken = new Set(Object.values(lists).map((list) => list.name));
    let name = from.name;
    for (let i = 2; taken.has(name); i++) name = `${from.name} ${i}`;
    const list = startList(from, newId("list"), name, taken.size);
    if (desk.submit({ kind: "setList", list }) === null) desk.openList(list.id);
  };
  const use = (setup: SavedSetup) => {
    const { id, edit } = listFromSaved(desk.store.getState().job, setup, () => newId("list"));
    if (desk.submit(edit) === null) desk.openList(id);
  };
  const forget = async (name: string) => {
    await call("DELETE", "/api/stockroom/lists", { name });
    void refetch();
  };
  return (
    <DropdownMenu.Root open={open} onOpenChange={setOpen} modal={false}>
      <DropdownMenu.Trigger className={buttonClass("plain")}>
        <Plus size={15} aria-hidden /> New list
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-50 max-h-[80vh] w-[320px] overflow-auto rounded-sm border border-seam bg-leaf p-1 shadow-lg"
        >
          {LIST_STARTS.map((from) => (
            <DropdownMenu.Item key={from.name} className={ITEM} onSelect={() => start(from)}>
              <span className="block text-[14px]">{from.name}</span>
              <span className="block text-[12px] text-ink-soft">{from.note}</span>
            </DropdownMenu.Item>
          ))}
          {saved && saved.length > 0 ? (
            <>
              <DropdownMenu.Separator className="my-1 border-seam border-t" />
              <DropdownMenu.Label className="px-2 text-[12px] text-ink-soft">
                Saved list setups
              </DropdownMenu.Label>
              {saved.map((setup) => (
                <div key={setup.name} className="flex items-center">
                  <DropdownMenu.Item className={`${ITEM} flex-1`} onSelect={() => use(setup)}>
                    <span className="block text-[14px]">{setup.name}</span>
                    <span className="block text-[12px] text-ink-soft">
                      {counted(setup.setup.columns.length, "column")}
                      {setup.ownColumns.length > 0 ? `, ${setup.ownColumns.length} of its own` : ""}
                    </span>
                  </DropdownMenu.Item>
                  <DropdownMenu.Item
                    className={ITEM}
                    aria-label={`Delete ${setup.name}`}
                    onSelect={(event) => {
                      event.preventDefault();
                      void forget(setup.name);
                    }}
                  >
                    <Trash2 size={14} aria-hidden className="text-ink-soft" />
                  </DropdownMenu.Item>
                </div>
              ))}
            </>
          ) : null}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
