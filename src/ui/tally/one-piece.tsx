"use client";
import { type ChangeEvent, type FormEvent, useState } from "react";
import { readCuttingList, rowFaultWords, type TypedPiece } from "@/core/job";
import { sentence } from "@/core/kernel";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { Field } from "../common/field";
/** One typed-in piece after the other: what it is, how many, of what, how large. The fields are read as a list's row is. */
import { newId } from "../common/fresh-id";
import { useDesk, useDeskState } from "../desk/desk-context";

const NOTHING = {
  name: "",
  quantity: "1",
  length: "",
  width: "",
  material: "",
  mark: "",
  angles: "",
  stand: "",
  edging: "",
};
type Fields = typeof NOTHING;

const COLUMNS = [
  "name",
  "quantity",
  "length",
  "width",
  "material",
  "mark",
  "angles",
  "stand",
  "edging",
  "stock",
] as const;

export function OnePiece() {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const stockroom = useDeskState((state) => state.stockroom);
  const [fields, setFields] = useState<Fields>(NOTHING);
  const [stock, setStock] = useState("");
  const [said, setSaid] = useState<{ readonly good: boolean; readonly text: string } | null>(null);
  const entry = [...stockroom.sections, ...stockroom.boards].find((one) => one.id === stock);
  const isBoard = stockroom.boardById.has(stock);
  const set = (name: keyof Fields) => (event: ChangeEvent<HTMLInputElement>) =>
    setFields({ ...fields, [name]: event.target.value });
  const add = (event: FormEvent) => {
    event.preventDefault();
    const width = isBoard ? fields.width : "";
    const ends = isBoard ? { angles: "", stand: "" } : { edging: "" };
    const row = { ...fields, width, ...ends, stock: entry?.name ?? "" };
    const read = readCuttingList([COLUMNS.map((column) => row[column])], {
      unit: job.info.job.unit,
      stockroom,
      newId: () => newId("typed"),
      firstPosition: Object.keys(job.typedPieces).length,
      columns: { meanings: COLUMNS, hasHeadings: false },
    });
    const [piece] = read.ok ? read.value.pieces : [];
    const [unreadable] = read.ok ? read.value.unreadable : [];
    const fault = !read.ok ? sentence(read.problem) : unreadable ? rowFaultWords(unreadable.fault) : null;
    if (!piece || fault !== null) return setSaid({ good: false, text: fault ?? "It cannot be read." });
    submit(piece);
  };
  const submit = (piece: TypedPiece) => {
    const refused = desk.submit({ kind: "addTypedPieces", pieces: [piece] });
    if (refused !== null) return setSaid({ good: false, text: refused });
    desk.select([piece.id]);
    setSaid({ good: true, text: `${piece.quantity} × ${piece.name} added; type the next one, or close.` });
    setFields({ ...fields, name: "", mark: "" });
  };
  return (
    <form onSubmit={add} className="space-y-3 px-4 py-3">
      <div className="grid grid-cols-[1.4fr_70px_90px_1.6fr_1fr] gap-3">
        <Field label="Name" value={fields.name} onChange={set("name")} />
        <Field label="Count" value={fields.quantity} onChange={set("quantity")} />
        <Field label="Mark" value={fields.mark} placeholder="next free" onChange={set("mark")} />
        <Chooser
          label="Section or board"
          value={stock}
          choices={[
            { value: "", label: "none; counted only, or a bare length" },
            ...[...stockroom.sections, ...stockroom.boards].map(({ id, name }) => ({
              value: id,
              label: name,
            })),
          ]}
          onChoose={setStock}
        />
        <Field
          label="Material"
          value={fields.material}
          placeholder={entry?.material ?? "none"}
          onChange={set("material")}
        />
      </div>
      <div className="grid grid-cols-4 gap-3">
        <Field label="Length" unit={job.info.job.unit} value={fields.length} onChange={set("length")} />
        {isBoard ? (
          <>
            <Field label="Width" unit={job.info.job.unit} value={fields.width} onChange={set("width")} />
            <Field
              label="Edged"
              value={fields.edging}
              placeholder="none; front + left"
              onChange={set("edging")}
            />
          </>
        ) : (
          <>
            <Field
              label="Ends, ° from square"
              value={fields.angles}
              placeholder="0 / 0"
              onChange={set("angles")}
            />
            <Field
              label="End direction"
              value={fields.stand}
              placeholder="opposed, parallel"
              onChange={set("stand")}
            />
          </>
        )}
        <span className="self-end text-right">
          <Button look="primary" type="submit">
            Add the piece
          </Button>
        </span>
      </div>
      {said ? (
        <p role={said.good ? "status" : "alert"} className={said.good ? "text-moss" : "text-oxide"}>
          {said.text}
        </p>
      ) : null}
    </form>
  );
}
