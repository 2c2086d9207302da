"use client";
/** A key size: its name, range, choices and note, and where it is used. */
import { type KeySize, readChoices, usesOf } from "@/core/job";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "./desk-context";

export function KeySizeSettings({ size }: { readonly size: KeySize }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const uses = usesOf(job, size.name);
  type Set = Partial<Pick<KeySize, "least" | "greatest" | "note" | "choices" | "asked">>;
  const change = (set: Set) => desk.submit({ kind: "changeKeySize", id: size.id, set });
  const orNone = (text: string) => (text.trim() === "" ? null : text.trim());
  const numeric = size.measure !== "yesNo" && size.measure !== "choice";
  return (
    <div className="grid grid-cols-3 gap-x-3 gap-y-1.5">
      <TextField
        label="Name, changed in all formulas"
        value={size.name}
        onCommit={(name) => desk.submit({ kind: "renameKeySize", id: size.id, name: name.trim() })}
      />
      {numeric ? (
        <>
          <TextField
            label="Minimum"
            value={size.least ?? ""}
            placeholder="any"
            onCommit={(text) => change({ least: orNone(text) })}
          />
          <TextField
            label="Maximum"
            value={size.greatest ?? ""}
            placeholder="any"
            onCommit={(text) => change({ greatest: orNone(text) })}
          />
        </>
      ) : null}
      {size.measure === "choice" ? (
        <TextField
          label="Choices, separated by commas"
          value={size.choices.join(", ")}
          onCommit={(text) => change({ choices: readChoices(text) })}
        />
      ) : null}
      <Chooser
        label="Ask in form"
        value={size.asked ? "asks" : "leaves"}
        choices={[
          { value: "leaves", label: "no" },
          { value: "asks", label: "yes" },
        ]}
        onChoose={(way) => change({ asked: way === "asks" })}
      />
      <TextField label="Note" value={size.note} onCommit={(note) => change({ note: note.trim() })} />
      <p className="col-span-2 self-end text-[12px] text-ink-soft">
        {uses.length === 0
          ? "Nothing uses it yet."
          : `Used by ${uses.slice(0, 8).join(", ")}${uses.length > 8 ? ` and ${uses.length - 8} more` : ""}.`}
      </p>
      {uses.length === 0 ? (
        <div className="self-end">
          <Button look="danger" onClick={() => desk.submit({ kind: "removeKeySize", id: size.id })}>
            Remove it
          </Button>
        </div>
      ) : null}
    </div>
  );
}
