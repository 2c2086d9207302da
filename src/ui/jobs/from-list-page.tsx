"use client";
import { FileText, FileUp } from "lucide-react";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { type CuttingList, readCuttingList, type TypedPiece } from "@/core/job";
import { counted, ok, sentence } from "@/core/kernel";
import { formatLength, type LengthStyle, type LengthUnit } from "@/core/measure";
import { indexStockroom, type Stockroom, type StockroomData } from "@/core/stockroom";
import { Button } from "../common/button";
import { HomeFrame } from "../common/home-frame";
import { call } from "../common/http";
import { type ListReader, type ListRows, listFileFaultWords, useListReader } from "../common/list-reader";
/**
 * A new job from a cutting list: a CSV or XLSX file, or rows pasted from a spreadsheet. What was read and what
 * cannot be read is shown row by row before anything is made.
 */
import { Notice } from "../common/notice";
import { Table, TableCell } from "../common/table";
import { UnreadableRows } from "../common/unreadable-rows";
import { type JobFacts, JobFields, useJobForm } from "./job-form";

type Preview =
  | { readonly kind: "empty" }
  | { readonly kind: "problem"; readonly message: string }
  | { readonly kind: "list"; readonly list: CuttingList };

/** A file that was read: it stands in for what is typed until it is taken away. */
type ReadFile = { readonly name: string; readonly rows: ListRows };

function previewOf(
  file: ReadFile | null,
  text: string,
  unit: LengthUnit,
  stockroom: Stockroom,
  readRows: ListReader["rows"],
): Preview {
  if (!file && text.trim() === "") return { kind: "empty" };
  const rows = file ? ok(file.rows) : readRows(text);
  if (!rows.ok) return { kind: "problem", message: sentence(rows.problem) };
  const list = readCuttingList(rows.value, { unit, stockroom, newId: (index) => `row-${index}` });
  return list.ok ? { kind: "list", list: list.value } : { kind: "problem", message: sentence(list.problem) };
}

export function FromListPage({ stockroom: data }: { readonly stockroom: StockroomData }) {
  const router = useRouter();
  const stockroom = useMemo(() => indexStockroom(data), [data]);
  const reader = useListReader();
  const [text, setText] = useState("");
  const [file, setFile] = useState<ReadFile | null>(null);
  const [reading, setReading] = useState(false);
  const form = useJobForm("mm");
  const unit = form.watch("unit");
  const [fault, setFault] = useState<string | null>(null);
  const preview = useMemo(
    () => previewOf(file, text, unit, stockroom, reader.rows),
    [file, text, unit, stockroom, reader],
  );
  const load = async (chosen: File | undefined) => {
    if (!chosen) return;
    setReading(true);
    const rows = await reader.file(chosen);
    setReading(false);
    setFault(rows.ok ? null : listFileFaultWords(rows.problem));
    if (rows.ok) setFile({ name: chosen.name, rows: rows.value });
  };
  const make = async (facts: JobFacts) => {
    const made = await call<{ id: string }>("POST", "/api/jobs/from-list", {
      ...facts,
      ...(file ? { rows: file.rows } : { text }),
    });
    if (made.ok) router.push(`/jobs/${made.value.id}?stage=tally`);
    else setFault(made.problem.message);
  };
  const good = preview.kind === "list" ? preview.list.pieces.length : 0;
  return (
    <HomeFrame current="Jobs">
      <form
        onSubmit={(event) => void form.handleSubmit(make)(event)}
        noValidate
        className="mx-auto max-w-[1180px] px-6 py-6"
      >
        <h1 className="font-semibold font-slab text-[26px]">New job from a cut list</h1>
        <p className="mt-1 max-w-[90ch] text-ink-soft">
          The first row holds the headings, in any order: mark or name, quantity, length, width, thickness,
          section or board, material, end 1 and end 2 in degrees from square, how the ends stand, edging.
          Comma, semicolon or tab; any common length notation.
        </p>
        <div className="mt-4 grid grid-cols-[180px_1fr_260px] gap-4">
          <JobFields form={form} unitLabel="Numbers without unit" like={["HL-231", "Allotment gate"]} />
        </div>
        {file ? (
          <p className="mt-4 flex items-center gap-2 border border-seam bg-leaf px-3 py-1.5">
            <FileText size={16} aria-hidden className="text-ink-soft" />
            Read from {file.name}
            <Button look="plain" onClick={() => setFile(null)}>
              Remove the file
            </Button>
          </p>
        ) : (
          <label className="mt-4 block">
            <span className="block text-[13px] text-ink-soft">
              Rows copied from a spreadsheet, or the text of a CSV file
            </span>
            <textarea
              value={text}
              onChange={(event) => setText(event.target.value)}
              spellCheck={false}
              placeholder={"Mark\tName\tQty\tLength\tSection\nA\tRail\t2\t1200\tSHS 40 x 40 x 3"}
              className="mt-0.5 h-[150px] w-full rounded-sm border border-seam bg-leaf p-2 font-table text-[14px]"
            />
          </label>
        )}
        <div className="mt-2 flex items-center gap-3">
          <label className="inline-flex h-8 cursor-pointer items-center gap-1.5 rounded-sm border border-seam bg-leaf px-3 focus-within:outline-2 focus-within:outline-enamel hover:border-enamel">
            <FileUp size={16} aria-hidden /> Read a CSV or XLSX file
            <input
              type="file"
              accept=".csv,.txt,.tsv,.xlsx,text/csv"
              className="sr-only"
              onChange={(event) => {
                void load(event.target.files?.[0]);
                // The same file, mended and chosen again, is read again.
                event.target.value = "";
              }}
            />
          </label>
          {reading ? <span role="status">Reading the file</span> : null}
          <span className="ml-auto" />
          <Button look="primary" type="submit" disabled={good === 0 || reading}>
            {good === 0 ? "Create job" : `Create job with ${counted(good, "row")}`}
          </Button>
        </div>
        {fault ? (
          <Notice tone="error" className="mt-2">
            {fault}
          </Notice>
        ) : null}
        <PreviewPane preview={preview} unit={unit} />
      </form>
    </HomeFrame>
  );
}

const READ_COLUMNS = ["Mark", "Name", "Count", "Size", "Ends", "Section or board", "Material"].map(
  (heading) => ({ id: heading, heading }),
);

function PreviewPane({ preview, unit }: { readonly preview: Preview; readonly unit: LengthUnit }) {
  if (preview.kind === "empty")
    return <p className="mt-6 text-ink-soft">What is read will be shown here before the job is made.</p>;
  if (preview.kind === "problem") {
    return (
      <Notice tone="error" className="mt-6">
        {preview.message}
      </Notice>
    );
  }
  const { pieces, unreadable, notes } = preview.list;
  return (
    <section aria-label="What was read" className="mt-6 border border-seam bg-leaf">
      <h2 className="border-seam border-b px-3 py-1.5 font-semibold font-slab text-[16px]">
        {counted(pieces.length, "row")} read
        {unreadable.length > 0 ? `, ${unreadable.length} not` : ""}
      </h2>
      <UnreadableRows rows={unreadable} />
      {notes.map((note) => (
        <p key={note} className="border-seam border-b bg-amber-pale px-3 py-1 text-[13px] text-amber">
          {note}
        </p>
      ))}
      <Table columns={READ_COLUMNS} className="font-table">
        <tbody>
          {pieces.slice(0, 200).map((piece) => (
            <tr key={piece.id} className="border-seam border-b">
              <TableCell>{piece.mark ?? ""}</TableCell>
              <TableCell>{piece.name}</TableCell>
              <TableCell>{piece.quantity}</TableCell>
              <TableCell>{sizeWords(piece, unit)}</TableCell>
              <TableCell>{endWords(piece)}</TableCell>
              <TableCell className={`${piece.stock === null && piece.kind !== "other" ? "text-amber" : ""}`}>
                {piece.stockText ?? "none"}
                {piece.stock === null && piece.kind !== "other" ? " (not in the stockroom)" : ""}
              </TableCell>
              <TableCell>{piece.material ?? ""}</TableCell>
            </tr>
          ))}
        </tbody>
      </Table>
      {pieces.length > 200 ? <p className="px-3 py-1 text-ink-soft">and {pieces.length - 200} more</p> : null}
    </section>
  );
}

function sizeWords(piece: TypedPiece, unit: LengthUnit): string {
  const style: LengthStyle = {
    unit,
    format:
      unit === "in" || unit === "ft"
        ? { kind: "fraction", denominator: 64 }
        : { kind: "decimal", places: 3, trailingZeros: false },
  };
  const write = (mm: number) => formatLength(mm, style, 0.1);
  if (piece.kind === "other") return "counted only";
  if (piece.kind === "member") return `${write(piece.length)} ${unit}`;
  return `${[piece.length, piece.width, ...(piece.thickness === null ? [] : [piece.thickness])].map(write).join(" × ")} ${unit}`;
}

function endWords(piece: TypedPiece): string {
  if (piece.kind === "panel") return piece.edged.length > 0 ? `edged ${piece.edged.join(" + ")}` : "";
  if (piece.kind === "other" || piece.angles.every((angle) => angle === 0)) return "";
  const stand =
    piece.stand === null ? "" : typeof piece.stand === "string" ? piece.stand : `turned ${piece.stand.turn}°`;
  return `${piece.angles[0]}° / ${piece.angles[1]}° ${stand}`;
}
