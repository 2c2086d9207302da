"use client";
/** What was done last, the newest first; one of them is gone back to, with all that came after it. */
import { ChevronDown } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { toast } from "sonner";
import { call } from "../common/http";
import { OUT_ITEM } from "../common/out-menu";
import { useDesk } from "./desk-context";
import { stepsBack } from "./history";

export function StepsMenu({ disabled }: { readonly disabled: boolean }) {
  const desk = useDesk();
  const [words, setWords] = useState<readonly string[] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const open = async () => {
    setWords(null);
    setFault(null);
    await desk.flush();
    const { id, history, layouts } = desk.store.getState();
    const reply = await call<{ edits: readonly string[] }>(
      "GET",
      `/api/jobs/${encodeURIComponent(id)}/steps`,
    );
    if (reply.ok) setWords(stepsBack(history, reply.value.edits, layouts));
    else setFault(reply.problem.message);
  };
  const goBack = async (count: number) => {
    for (let i = 0; i < count; i++) await desk.step("undo");
    toast(count === 1 ? "Undid the last step." : `Undid the last ${count} steps.`);
  };
  return (
    <DropdownMenu.Root modal={false} onOpenChange={(isOpen) => (isOpen ? void open() : undefined)}>
      <DropdownMenu.Trigger
        aria-label="History"
        disabled={disabled}
        className="-ml-1 flex h-8 w-6 items-center justify-center rounded-sm text-white/80 hover:bg-white/10 hover:text-white disabled:opacity-40"
      >
        <ChevronDown size={14} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-50 max-h-[420px] w-[300px] overflow-auto rounded-sm border border-seam bg-leaf p-1 text-ink shadow-lg"
        >
          <DropdownMenu.Label className="px-2 py-1 text-[12px] text-ink-soft">
            {fault ?? (words ? "Undo up to and including" : "Reading the steps…")}
          </DropdownMenu.Label>
          {(words ?? []).map((text, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: steps have no other name, and the list is made anew each time
            <DropdownMenu.Item key={i} className={OUT_ITEM} onSelect={() => void goBack(i + 1)}>
              <span className="block truncate text-[14px]">{text}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
