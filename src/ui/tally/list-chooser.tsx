"use client";
/** Which list of the job is shown, and new ones from a start. */
import { Plus } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { LIST_STARTS, startList } from "@/core/lists";
import { buttonClass } from "../common/button";
import { Chooser } from "../common/chooser";
import { useDesk, useDeskState } from "../desk/desk-context";

export function ListChooser() {
  const desk = useDesk();
  const lists = useDeskState((state) => state.job.lists);
  const shown = useDeskState((state) => state.list);
  const sorted = Object.values(lists).sort((a, b) => a.position - b.position);
  const add = (start: (typeof LIST_STARTS)[number]) => {
    const taken = new Set(sorted.map((list) => list.name));
    let name = start.name;
    for (let i = 2; taken.has(name); i++) name = `${start.name} ${i}`;
    const list = startList(start, `list-${crypto.randomUUID().slice(0, 8)}`, name, sorted.length);
    if (desk.submit({ kind: "setList", list }) === null) desk.openList(list.id);
  };
  return (
    <>
      <span className="w-[190px]">
        <Chooser
          label="List"
          hideLabel
          value={shown ?? ""}
          choices={[
            { value: "", label: "Cut list" },
            ...sorted.map(({ id, name }) => ({ value: id as string, label: name })),
          ]}
          onChoose={(id) => desk.openList(id === "" ? null : id)}
        />
      </span>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={buttonClass("plain")}>
          <Plus size={15} aria-hidden /> New list
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            sideOffset={4}
            className="z-50 w-[300px] rounded-sm border border-seam bg-leaf p-1 shadow-lg"
          >
            {LIST_STARTS.map((start) => (
              <DropdownMenu.Item
                key={start.name}
                className="cursor-pointer rounded-sm px-2 py-1 data-[highlighted]:bg-brass-pale data-[highlighted]:outline-none"
                onSelect={() => add(start)}
              >
                <span className="block text-[14px]">{start.name}</span>
                <span className="block text-[12px] text-ink-soft">{start.note}</span>
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </>
  );
}
