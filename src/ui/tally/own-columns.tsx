"use client";
import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import {
  type ListSetup,
  OWN_COLUMN_KINDS,
  type OwnColumn,
  type OwnColumnKind,
  ownColumnId,
  plainColumn,
} from "@/core/job";
/** The job's own columns: their names, what they hold, a value for all or a formula; and values for the selection. */
import { agreeing } from "@/core/kernel";
import { Button } from "../common/button";
import { FormChooser, FormField } from "../common/form-field";
import { newId } from "../common/fresh-id";
import { Fault } from "../common/notice";
import { TextField } from "../common/text-field";
import { useSentForm } from "../common/use-sent-form";
import { useDesk, useDeskState } from "../desk/desk-context";
import { ownValue } from "./use-cell-edits";

const KIND_WORDS: Readonly<Record<OwnColumnKind, string>> = {
  text: "a text",
  number: "a number",
  length: "a length",
  choice: "one of several",
  link: "a link",
  formula: "a formula",
};

export function OwnColumns({ setup }: { readonly setup: ListSetup }) {
  const job = useDeskState((state) => state.job);
  const columns = Object.values(job.ownColumns).sort((a, b) => a.position - b.position);
  return (
    <section aria-label="Custom columns">
      <h3 className="font-semibold text-[13px]">Custom columns</h3>
      <p className="text-[13px] text-ink-soft">
        {columns.length === 0
          ? "Custom columns appear here: for a finish, a supplier, a price, or computed by a formula such as {count} * {length}."
          : "Their values belong to the pieces, in every list that shows the column."}
      </p>
      <ul>
        {columns.map((column) => (
          <ColumnLine key={column.id} column={column} />
        ))}
      </ul>
      <NewColumn setup={setup} position={columns.length} />
    </section>
  );
}

function ColumnLine({ column }: { readonly column: OwnColumn }) {
  const desk = useDesk();
  const set = (next: Partial<OwnColumn>) =>
    desk.submit({ kind: "setOwnColumn", column: { ...column, ...next } });
  const [fault, setFault] = useState<string | null>(null);
  return (
    <li className="border-seam border-b py-1">
      <div className="grid grid-cols-[1.1fr_70px_1.4fr_1.2fr_28px] items-start gap-2">
        <TextField
          label={`Name of ${column.name}`}
          hideLabel
          value={column.name}
          onCommit={(name) => set({ name: name.trim() })}
        />
        <span className="pt-1 text-[13px] text-ink-soft">{KIND_WORDS[column.kind]}</span>
        {column.kind === "formula" ? (
          <TextField
            label={`Formula of ${column.name}`}
            hideLabel
            value={column.formula ?? ""}
            onCommit={(formula) => set({ formula: formula.trim() })}
          />
        ) : column.kind === "choice" ? (
          <TextField
            label={`Choices of ${column.name}`}
            hideLabel
            value={column.choices.join(", ")}
            onCommit={(text) => set({ choices: choicesIn(text) })}
          />
        ) : (
          <ForSelection column={column} />
        )}
        {column.kind === "formula" ? (
          <span />
        ) : (
          <TextField
            label={`For all without a value of their own, in ${column.name}`}
            hideLabel
            value={column.forAll ?? ""}
            placeholder="for all others"
            onCommit={(text) => set({ forAll: text.trim() === "" ? null : text.trim() })}
          />
        )}
        <button
          type="button"
          aria-label={`Remove column ${column.name}`}
          title="Remove the column and its values"
          onClick={() => setFault(desk.submit({ kind: "removeOwnColumn", id: column.id }))}
          className="flex h-7 w-7 items-center justify-center text-ink-soft hover:text-ink"
        >
          <Trash2 size={15} aria-hidden />
        </button>
      </div>
      {column.kind === "choice" ? <ForSelection column={column} /> : null}
      {fault ? <Fault>{fault}</Fault> : null}
    </li>
  );
}

const choicesIn = (text: string) => [
  ...new Set(
    text
      .split(/[,;]/)
      .map((part) => part.trim())
      .filter(Boolean),
  ),
];

/** A value for the selected pieces: whole rows, or only those of a row that are selected. */
function ForSelection({ column }: { readonly column: OwnColumn }) {
  const desk = useDesk();
  const count = useDeskState((state) =>
    [...state.selected].reduce((sum, id) => {
      const own = state.results.tally.rowOfPiece.get(id)?.pieces.find((piece) => piece.id === id);
      return sum + (own?.quantity ?? 0);
    }, 0),
  );
  const commit = (text: string): string | null => {
    const { selected, results } = desk.store.getState();
    const records = [...selected].filter((id) => results.tally.rowOfPiece.has(id));
    if (records.length === 0) return "Select rows or pieces first.";
    return desk.submit(ownValue(ownColumnId(column), records, text.trim()));
  };
  return (
    <TextField
      label={`Value of ${column.name} for the selection`}
      hideLabel
      value=""
      disabled={count === 0}
      placeholder={
        count === 0 ? "select rows or pieces" : `for ${count} selected ${agreeing(count, "piece")}`
      }
      onCommit={commit}
    />
  );
}

function NewColumn({ setup, position }: { readonly setup: ListSetup; readonly position: number }) {
  const desk = useDesk();
  const empty = { name: "", kind: "text" as OwnColumnKind, more: "" };
  const { form, onSubmit, fault } = useSentForm(empty, ({ name, kind, more }) => {
    const id = newId("c") as OwnColumn["id"];
    const column: OwnColumn = {
      id,
      name: name.trim(),
      kind,
      choices: kind === "choice" ? choicesIn(more ?? "") : [],
      formula: kind === "formula" ? (more ?? "").trim() : null,
      forAll: null,
      position,
    };
    const shown = { ...setup, columns: [...setup.columns, plainColumn(ownColumnId(column))] };
    if (column.name === "") return "Enter a name.";
    if (kind === "formula" && column.formula === "") return "Enter a formula.";
    const refused = desk.submit({
      kind: "together",
      what: `Add column ${column.name}`,
      edits: [
        { kind: "setOwnColumn", column },
        { kind: "setList", list: shown },
      ],
    });
    if (refused === null) form.reset({ ...empty, kind });
    return refused;
  });
  const kind = form.watch("kind");
  return (
    <form
      className="grid grid-cols-[1.1fr_130px_1.4fr_auto] items-end gap-2 pt-2"
      noValidate
      onSubmit={onSubmit}
    >
      <FormField form={form} name="name" label="New column" placeholder="Finish" />
      <FormChooser
        form={form}
        name="kind"
        label="It holds"
        choices={OWN_COLUMN_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
      />
      {kind === "choice" || kind === "formula" ? (
        <FormField
          form={form}
          name="more"
          label={kind === "choice" ? "Choices" : "Formula"}
          placeholder={kind === "choice" ? "oiled, painted, raw" : "{count} * {length} / 1000"}
        />
      ) : (
        <span />
      )}
      <Button type="submit" icon={<Plus size={14} aria-hidden />}>
        Add it
      </Button>
      {fault ? <Fault className="col-span-4">{fault}</Fault> : null}
    </form>
  );
}
