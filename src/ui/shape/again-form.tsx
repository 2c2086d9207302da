"use client";
/** A file that is read again over an earlier import: what differs, with the values before and after, to be accepted one by one. */
import { useState } from "react";
import { type Again, acceptedChanges, type Difference, type Imported } from "@/core/imports";
import type { Import } from "@/core/job";
import { counted } from "@/core/kernel";
import { Button } from "../common/button";
import { DialogClose } from "../common/dialog";
import { LongList, ScrolledBox } from "../common/long-list";
import { Fault, Notice } from "../common/notice";
import { Tick } from "../common/tick";
import { useDesk } from "../desk/desk-context";
import { freshIds } from "./fresh-ids";
import { submitImport } from "./submit-import";

export type Compared = {
  readonly record: Import;
  readonly entered: Imported;
  readonly again: Again;
};

const KINDS = { moved: "moved", changed: "changed", came: "new", went: "gone" } as const;

export function AgainForm({
  compared: { record, entered, again },
  onBack,
  onDone,
}: {
  readonly compared: Compared;
  readonly onBack: () => void;
  readonly onDone: () => void;
}) {
  const desk = useDesk();
  const { differences, same } = again;
  const [taken, setTaken] = useState<ReadonlySet<Difference>>(() => new Set(differences));
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  /** What is told before it is done, and for which choice. */
  const [told, setTold] = useState<{ readonly of: typeof taken; readonly words: readonly string[] } | null>(
    null,
  );
  const take = async () => {
    const { job } = desk.store.getState();
    const changes = acceptedChanges(again, taken, entered, job, record, freshIds(job));
    if (changes.told.length > 0 && told?.of !== taken) {
      setTold({ of: taken, words: changes.told });
      return;
    }
    setBusy(true);
    const refused = await submitImport(desk, entered.added, changes);
    setBusy(false);
    setFault(refused);
    if (refused === null) onDone();
  };
  const counts = (["moved", "changed", "came", "went"] as const).flatMap((kind) => {
    const count = differences.filter((one) => one.kind === kind).length;
    return count > 0 ? [`${count} ${KINDS[kind]}`] : [];
  });
  return (
    <>
      <p className="text-[14px]" aria-live="polite">
        <b>{counts.length === 0 ? "Nothing differs" : counts.join(", ")}</b>, {counted(same, "piece")} as
        before. Only what the file changed is changed in the job: marks, settings and what was done by hand
        stay.
      </p>
      {differences.length > 0 ? (
        <section aria-label="Differences">
          <Tick
            label="All of them"
            on={taken.size === differences.length}
            onToggle={(all) => setTaken(new Set(all ? differences : []))}
          />
          <ScrolledBox className="mt-1 h-[330px] overflow-auto border border-seam">
            <LongList items={differences} keyOf={(one) => `${one.kind} ${(one.now ?? one.before)?.id}`}>
              {(one) => (
                <DifferenceRow
                  one={one}
                  isTaken={taken.has(one)}
                  onTake={(isTaken) => {
                    const next = new Set(taken);
                    if (isTaken) next.add(one);
                    else next.delete(one);
                    setTaken(next);
                  }}
                />
              )}
            </LongList>
          </ScrolledBox>
        </section>
      ) : null}
      {told?.of === taken ? (
        <Notice tone="warning">
          {told.words.join(" ")} Accept again to do so, or leave those pieces out.
        </Notice>
      ) : null}
      {fault ? <Fault>{fault}</Fault> : null}
      <div className="flex justify-end gap-2">
        <Button onClick={onBack}>Back</Button>
        <DialogClose />
        <Button look="primary" disabled={busy || taken.size === 0} onClick={() => void take()}>
          {busy ? "Accepting" : `Accept ${counted(taken.size, "change")}`}
        </Button>
      </div>
    </>
  );
}

function DifferenceRow({
  one,
  isTaken,
  onTake,
}: {
  readonly one: Difference;
  readonly isTaken: boolean;
  readonly onTake: (isTaken: boolean) => void;
}) {
  const name = (one.now ?? one.before)?.name ?? "";
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_80px_minmax(0,2.4fr)] items-center gap-2 border-seam border-b px-2 py-0.5 text-[13px]">
      <Tick label={name} on={isTaken} onToggle={onTake} />
      <span>{KINDS[one.kind]}</span>
      <span className="truncate font-table" title={one.words.join(", ")}>
        {one.words.join(", ")}
      </span>
    </div>
  );
}
