"use client";
import { useQuery } from "@tanstack/react-query";
import { Tags } from "lucide-react";
import { useState } from "react";
import { sentence } from "@/core/kernel";
import { parseLength } from "@/core/measure";
import type { BoardEntry, EntryUnit, RackPiece, SectionEntry } from "@/core/stockroom";
import { Button, buttonClass } from "../common/button";
import { Chooser } from "../common/chooser";
/** The rack: offcuts with their label, place and note; which job has set each aside; labels to stick on them. */
import { newId } from "../common/fresh-id";
import { HomeFrame } from "../common/home-frame";
import { answerOf } from "../common/queries";
import { Table, TableCell, type TableColumn } from "../common/table";
import { Tag } from "../common/tag";
import { TextField } from "../common/text-field";
import { lengthText } from "../stockroom/entry-columns";
import { type RackEntry, useRack } from "./use-rack";

export type RackPageProps = {
  readonly rack: readonly RackPiece[];
  /** Revision of each piece, by id. */
  readonly revisions: Readonly<Record<string, number>>;
  readonly sections: readonly SectionEntry[];
  readonly boards: readonly BoardEntry[];
};

const RACK_COLUMNS: readonly TableColumn[] = [
  ...["Label", "Section or board", "Length", "Width", "Location", "Note", "From", "Reserved for"].map(
    (heading) => ({ id: heading, heading }),
  ),
  { id: "remove", heading: "Remove", hidden: true },
];

export function RackPage({ sections, boards, ...opened }: RackPageProps) {
  const { data, refetch } = useQuery({
    queryKey: ["rack"],
    queryFn: () => answerOf<Pick<RackPageProps, "rack" | "revisions">>("/api/rack"),
    initialData: opened,
  });
  const { rack, revisions } = data;
  /** The unit in which the section or board of a piece was typed. */
  const unitOf = (entry: string): EntryUnit =>
    [...sections, ...boards].find((one) => one.id === entry)?.unit ?? "mm";
  const nameOf = (entry: string) =>
    [...sections, ...boards].find((one) => one.id === entry)?.name ?? "no longer in the stockroom";
  const { change, add, remove } = useRack(rack, revisions, () => void refetch());
  return (
    <HomeFrame current="Rack">
      <div className="mx-auto max-w-[1240px] px-6 py-6">
        <div className="flex items-end gap-4">
          <div>
            <h1 className="font-semibold font-slab text-[26px]">Rack</h1>
            <p className="mt-1 text-ink-soft">
              Offcuts in stock. Saved layouts reserve the offcuts that they use. Releasing a layout removes
              them and adds its own offcuts.
            </p>
          </div>
          {rack.length > 0 ? (
            <a
              className={`${buttonClass("outline")} ml-auto`}
              href={`/api/rack/labels?ids=${rack.map((piece) => piece.id).join(",")}`}
              target="_blank"
              rel="noreferrer"
            >
              <Tags size={15} aria-hidden /> All labels (PDF)
            </a>
          ) : null}
        </div>
        <div className="mt-4 border border-seam bg-leaf">
          <Table columns={RACK_COLUMNS}>
            <tbody>
              {rack.map((piece) => (
                <tr key={piece.id} className="border-seam border-b">
                  <TableCell>
                    <Tag mark={piece.label} />
                  </TableCell>
                  <TableCell>
                    {nameOf(piece.entry)}
                    {piece.material ? <span className="text-ink-soft"> · {piece.material}</span> : null}
                  </TableCell>
                  <TableCell className="w-[92px]">
                    <LengthField
                      label={`Length of ${piece.label}`}
                      value={piece.length}
                      unit={unitOf(piece.entry)}
                      onCommit={(length) => void change(piece.id, (one) => ({ ...one, length }))}
                    />
                  </TableCell>
                  <TableCell className="w-[92px]">
                    {piece.width === null ? null : (
                      <LengthField
                        label={`Width of ${piece.label}`}
                        value={piece.width}
                        unit={unitOf(piece.entry)}
                        onCommit={(width) => void change(piece.id, (one) => ({ ...one, width }))}
                      />
                    )}
                  </TableCell>
                  <TableCell className="w-[150px]">
                    <Words
                      label={`Place of ${piece.label}`}
                      value={piece.place}
                      most={60}
                      onCommit={(place) => void change(piece.id, (one) => ({ ...one, place }))}
                    />
                  </TableCell>
                  <TableCell className="w-[190px]">
                    <Words
                      label={`Note on ${piece.label}`}
                      value={piece.note}
                      most={200}
                      onCommit={(note) => void change(piece.id, (one) => ({ ...one, note }))}
                    />
                  </TableCell>
                  <TableCell className="text-ink-soft">{piece.from ?? "typed in"}</TableCell>
                  <TableCell>
                    {piece.holder ? piece.holder.code : <span className="text-ink-soft">free</span>}
                  </TableCell>
                  <TableCell className="text-right">
                    <Button
                      look="danger"
                      aria-label={`Remove ${piece.label}`}
                      onClick={() => void remove(piece)}
                    >
                      Remove
                    </Button>
                  </TableCell>
                </tr>
              ))}
            </tbody>
          </Table>
          {rack.length === 0 ? (
            <p className="p-3 text-ink-soft">The rack is empty. Add the first offcut below.</p>
          ) : null}
        </div>
        <NewPiece sections={sections} boards={boards} onSave={add} />
      </div>
    </HomeFrame>
  );
}

function LengthField({
  label,
  value,
  unit,
  onCommit,
}: {
  readonly label: string;
  readonly value: number;
  readonly unit: EntryUnit;
  readonly onCommit: (value: number) => void;
}) {
  return (
    <TextField
      label={label}
      hideLabel
      align="right"
      value={`${lengthText(value, unit)} ${unit}`}
      onCommit={(text) => {
        const read = parseLength(text, unit);
        if (!read.ok) return sentence(read.problem);
        if (read.value <= 0) return "It must be above zero.";
        onCommit(read.value);
        return null;
      }}
    />
  );
}

function Words({
  label,
  value,
  most,
  onCommit,
}: {
  readonly label: string;
  readonly value: string;
  readonly most: number;
  readonly onCommit: (value: string) => void;
}) {
  return (
    <TextField
      label={label}
      hideLabel
      value={value}
      placeholder="none"
      onCommit={(text) => {
        if (text.trim().length > most) return `At most ${most} characters.`;
        onCommit(text.trim());
        return null;
      }}
    />
  );
}

function NewPiece({
  sections,
  boards,
  onSave,
}: {
  readonly sections: readonly SectionEntry[];
  readonly boards: readonly BoardEntry[];
  readonly onSave: (piece: RackEntry) => Promise<void>;
}) {
  const [entry, setEntry] = useState(sections[0]?.id ?? boards[0]?.id ?? "");
  const [place, setPlace] = useState("");
  const [count, setCount] = useState(0);
  const board = boards.find((one) => one.id === entry);
  const unit = [...sections, ...boards].find((one) => one.id === entry)?.unit ?? "mm";
  const add = (text: string): string | null => {
    if (text.trim() === "") return null;
    const parts = text.split(/\s*[x×]\s*/i);
    const read = parts.map((part) => parseLength(part, unit));
    const fault = read.find((one) => !one.ok);
    if (fault && !fault.ok) return sentence(fault.problem);
    const sizes = read.flatMap((one) => (one.ok ? [one.value] : []));
    if (sizes.some((size) => size <= 0)) return "It must be above zero.";
    if (board ? sizes.length !== 2 : sizes.length !== 1)
      return board
        ? "A sheet needs two sizes, along the grain first: 900 x 400 or 36 x 16 in."
        : "A bar has one length.";
    const material = board?.material ?? sections.find((one) => one.id === entry)?.material ?? null;
    void onSave({
      id: newId("rack"),
      label: null,
      entry,
      material,
      length: sizes[0] ?? 0,
      width: board ? (sizes[1] ?? null) : null,
      place,
      note: "",
      from: null,
    }).then(() => setCount(count + 1));
    return null;
  };
  return (
    <div className="mt-4 flex items-end gap-3">
      <div className="w-[280px]">
        <Chooser
          label="Add offcut of"
          value={entry}
          choices={[...sections, ...boards].map(({ id, name }) => ({ value: id, label: name }))}
          onChoose={setEntry}
        />
      </div>
      <div className="w-[180px]">
        <TextField
          label="Location"
          value={place}
          placeholder="none"
          onCommit={(text) => {
            setPlace(text.trim().slice(0, 60));
            return null;
          }}
        />
      </div>
      <div className="w-[220px]">
        <TextField
          key={count}
          label={board ? `Length x width, ${unit}, then Enter` : `Length, ${unit}, then Enter`}
          value=""
          onCommit={add}
        />
      </div>
    </div>
  );
}
