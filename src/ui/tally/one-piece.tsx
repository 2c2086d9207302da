"use client";
import { useState } from "react";
import { readCuttingList, rowFaultWords } from "@/core/job";
import { sentence } from "@/core/kernel";
import { Button } from "../common/button";
import { FormChooser, FormField } from "../common/form-field";
/** One typed-in piece after the other: what it is, how many, of what, how large. The fields are read as a list's row is. */
import { newId } from "../common/fresh-id";
import { Fault } from "../common/notice";
import { useSentForm } from "../common/use-sent-form";
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
type Entered = typeof NOTHING & { stock: string };

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
  const [said, setSaid] = useState<string | null>(null);
  const { form, onSubmit, fault } = useSentForm<Entered>({ ...NOTHING, stock: "" }, (entered) => {
    setSaid(null);
    return add(entered);
  });
  const stock = form.watch("stock");
  const entry = [...stockroom.sections, ...stockroom.boards].find((one) => one.id === stock);
  const isBoard = stockroom.boardById.has(stock);
  const add = (entered: Entered): string | null => {
    // Fields that a board does not have, or a section, are not sent.
    const row = { ...NOTHING, ...entered, stock: entry?.name ?? "" };
    const read = readCuttingList([COLUMNS.map((column) => row[column])], {
      unit: job.info.job.unit,
      stockroom,
      newId: () => newId("typed"),
      firstPosition: Object.keys(job.typedPieces).length,
      columns: { meanings: COLUMNS, hasHeadings: false },
    });
    const [piece] = read.ok ? read.value.pieces : [];
    const [unreadable] = read.ok ? read.value.unreadable : [];
    const unread = !read.ok ? sentence(read.problem) : unreadable ? rowFaultWords(unreadable.fault) : null;
    if (!piece || unread !== null) return unread ?? "It cannot be read.";
    const refused = desk.submit({ kind: "addTypedPieces", pieces: [piece] });
    if (refused !== null) return refused;
    desk.select([piece.id]);
    setSaid(`${piece.quantity} × ${piece.name} added; type the next one, or close.`);
    form.setValue("name", "");
    form.setValue("mark", "");
    return null;
  };
  return (
    <form onSubmit={onSubmit} noValidate className="space-y-3 px-4 py-3">
      <div className="grid grid-cols-[1.4fr_70px_90px_1.6fr_1fr] gap-3">
        <FormField form={form} name="name" label="Name" />
        <FormField form={form} name="quantity" label="Count" />
        <FormField form={form} name="mark" label="Mark" placeholder="next free" />
        <FormChooser
          form={form}
          name="stock"
          label="Section or board"
          choices={[
            { value: "", label: "none; counted only, or a bare length" },
            ...[...stockroom.sections, ...stockroom.boards].map(({ id, name }) => ({
              value: id,
              label: name,
            })),
          ]}
        />
        <FormField form={form} name="material" label="Material" placeholder={entry?.material ?? "none"} />
      </div>
      <div className="grid grid-cols-4 gap-3">
        <FormField form={form} name="length" label="Length" unit={job.info.job.unit} />
        {isBoard ? (
          <>
            <FormField form={form} name="width" label="Width" unit={job.info.job.unit} />
            <FormField form={form} name="edging" label="Edged" placeholder="none; front + left" />
          </>
        ) : (
          <>
            <FormField form={form} name="angles" label="Ends, ° from square" placeholder="0 / 0" />
            <FormField form={form} name="stand" label="End direction" placeholder="opposed, parallel" />
          </>
        )}
        <span className="self-end text-right">
          <Button look="primary" type="submit">
            Add the piece
          </Button>
        </span>
      </div>
      {fault ? <Fault>{fault}</Fault> : null}
      {said ? (
        <p role="status" className="text-moss">
          {said}
        </p>
      ) : null}
    </form>
  );
}
