"use client";
/** The title block of the shop as it stands on pages, and the fields that it is made of. */
import { useQuery } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import * as v from "valibot";
import { titleBlockDrawing } from "@/core/drawing";
import { type Asset, assetIdOf, issueWords, NO_ASSETS, readPicture } from "@/core/job";
import { sentence } from "@/core/kernel";
import { parseLength } from "@/core/measure";
import {
  TITLE_WORDS,
  type TitleBlock,
  TitleBlockSchema,
  type TitleField,
  USUAL_TITLE_BLOCK,
} from "@/core/stockroom";
import { Button } from "../common/button";
import { DisplayList } from "../common/display-list";
import { FileField } from "../common/file-field";
import { call } from "../common/http";
import { answerOf } from "../common/queries";
import { useSentState } from "../common/sent-state";
import { TextField } from "../common/text-field";

/** What the words stand for in the picture of the block. */
const EXAMPLE = {
  shop: "Name of the shop",
  title: "Potting bench",
  number: "HL-204",
  page: "Frame",
  variant: "–",
  "drawn by": "",
  date: "2026-05-01",
  revision: "3",
  scale: "1:10",
  sheet: "2",
  sheets: "5",
};

const NEW_FIELD: TitleField = { kind: "text", label: "Label", text: "", parts: 4 };
const SYMBOL: TitleField = { kind: "symbol", parts: 3 };

type Rows = TitleBlock["rows"];

export function TitleBlockEditor({ saved }: { readonly saved: TitleBlock }) {
  const [block, send] = useSentState(saved, "/api/stockroom/title-block");
  /** Carries a change out where the block still fits its rules; the sentence why not, or null. */
  const change = (make: (now: TitleBlock) => TitleBlock): string | null => {
    const checked = v.safeParse(TitleBlockSchema, make(block));
    if (!checked.success) return `The title block ${issueWords(checked.issues)}.`;
    send(make);
    return null;
  };
  const setRows = (make: (rows: Rows) => Rows) => change((now) => ({ ...now, rows: make(now.rows) }));
  const { data: picture = null } = useQuery({
    queryKey: ["asset", block.logo?.asset],
    queryFn: () => answerOf<Asset>(`/api/assets/${block.logo?.asset}`),
    enabled: block.logo !== null,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const assets = block.logo && picture ? new Map([[block.logo.asset, picture]]) : NO_ASSETS;
  const takePicture = async (file: File): Promise<string | null> => {
    const read = readPicture(new Uint8Array(await file.arrayBuffer()));
    if (!read.ok) return sentence(read.problem);
    const asset = assetIdOf(read.value);
    const reply = await call("PUT", `/api/assets/${asset}`, read.value);
    if (!reply.ok) return reply.problem.message;
    return change((now) => ({ ...now, logo: { asset, ratio: read.value.height / read.value.width } }));
  };
  return (
    <div className="grid gap-4">
      <div className="max-w-[900px] border border-seam bg-leaf p-4">
        <DisplayList
          drawing={titleBlockDrawing(block, { values: EXAMPLE, projection: "first", assets })}
          label="The title block with example values"
          fluid
        />
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <SizeField
          label="Width, mm"
          value={block.width}
          onSize={(width) => change((now) => ({ ...now, width }))}
        />
        <SizeField
          label="Row height, mm"
          value={block.rowHeight}
          onSize={(rowHeight) => change((now) => ({ ...now, rowHeight }))}
        />
        <FileField label="Picture of the shop" accept="image/png,image/jpeg" onFile={takePicture} />
        {block.logo ? (
          <Button look="danger" onClick={() => change((now) => ({ ...now, logo: null }))}>
            Remove the picture
          </Button>
        ) : null}
        <Button look="plain" onClick={() => change(() => USUAL_TITLE_BLOCK)}>
          Back to the usual one
        </Button>
      </div>
      <p className="max-w-[90ch] text-[13px] text-ink-soft">
        Words in braces are filled on every page: {TITLE_WORDS.map((word) => `{${word}}`).join(" ")}. A width
        is the part of its row that a field takes.
      </p>
      <ol className="grid gap-3">
        {block.rows.map((row, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows and fields have no name but their place.
          <li key={i} className="border border-seam bg-leaf p-3">
            <RowFields
              row={row}
              number={i + 1}
              rows={block.rows.length}
              onRow={(make) => setRows((rows) => rows.map((one, k) => (k === i ? make(one) : one)))}
              onRemove={() => setRows((rows) => rows.filter((_, k) => k !== i))}
              onMove={(by) => setRows((rows) => swapped(rows, i, i + by))}
            />
          </li>
        ))}
      </ol>
      <div>
        <Button
          look="plain"
          icon={<Plus size={16} aria-hidden />}
          disabled={block.rows.length >= 8}
          onClick={() => setRows((rows) => [...rows, [NEW_FIELD]])}
        >
          Add row
        </Button>
      </div>
    </div>
  );
}

function swapped<T>(all: readonly T[], from: number, to: number): T[] {
  const [a, b] = [all[from], all[to]];
  return a === undefined || b === undefined
    ? [...all]
    : all.map((one, i) => (i === from ? b : i === to ? a : one));
}

function SizeField({
  label,
  value,
  onSize,
}: {
  readonly label: string;
  readonly value: number;
  readonly onSize: (value: number) => string | null;
}) {
  return (
    <span className="w-[110px]">
      <TextField
        label={label}
        value={String(value)}
        align="right"
        onCommit={(text) => {
          const read = parseLength(text, "mm");
          return read.ok ? onSize(read.value) : sentence(read.problem);
        }}
      />
    </span>
  );
}

type Row = Rows[number];

function RowFields({
  row,
  number,
  rows,
  onRow,
  onRemove,
  onMove,
}: {
  readonly row: Row;
  readonly number: number;
  readonly rows: number;
  readonly onRow: (make: (row: Row) => Row) => string | null;
  readonly onRemove: () => void;
  readonly onMove: (by: -1 | 1) => void;
}) {
  const set = (at: number, field: TitleField) =>
    onRow((fields) => fields.map((one, k) => (k === at ? field : one)));
  return (
    <fieldset>
      <legend className="float-left mr-3 font-semibold">Row {number}</legend>
      <span className="flex justify-end gap-1">
        <Button
          look="plain"
          aria-label={`Move row ${number} up`}
          disabled={number === 1}
          onClick={() => onMove(-1)}
          icon={<ArrowUp size={16} aria-hidden />}
        />
        <Button
          look="plain"
          aria-label={`Move row ${number} down`}
          disabled={number === rows}
          onClick={() => onMove(1)}
          icon={<ArrowDown size={16} aria-hidden />}
        />
        <Button look="danger" disabled={rows === 1} onClick={onRemove} aria-label={`Remove row ${number}`}>
          Remove
        </Button>
      </span>
      <div className="clear-both flex flex-wrap items-end gap-x-4 gap-y-2">
        {row.map((field, k) => {
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: rows and fields have no name but their place.
            <fieldset key={k} aria-label={`Field ${k + 1} of row ${number}`} className="flex items-end gap-1">
              {field.kind === "text" ? (
                <>
                  <span className="w-[110px]">
                    <TextField
                      label="Label"
                      value={field.label}
                      placeholder="none"
                      onCommit={(label) => set(k, { ...field, label })}
                    />
                  </span>
                  <span className="w-[150px]">
                    <TextField
                      label="Text"
                      value={field.text}
                      placeholder="written by hand"
                      onCommit={(text) => set(k, { ...field, text })}
                    />
                  </span>
                </>
              ) : (
                <span className="h-7 content-center text-ink-soft">Symbol of the projection</span>
              )}
              <span className="w-[56px]">
                <TextField
                  label="Width"
                  align="right"
                  value={String(field.parts)}
                  onCommit={(text) =>
                    /^\d+$/.test(text.trim())
                      ? set(k, { ...field, parts: Number(text) })
                      : "Enter a whole number."
                  }
                />
              </span>
              <Button
                look="plain"
                aria-label={`Remove field ${k + 1} of row ${number}`}
                disabled={row.length === 1}
                onClick={() => onRow((fields) => fields.filter((_, at) => at !== k))}
                icon={<Trash2 size={15} aria-hidden />}
              />
            </fieldset>
          );
        })}
      </div>
      <span className="mt-1 flex gap-3">
        <Button
          look="plain"
          disabled={row.length >= 8}
          onClick={() => onRow((fields) => [...fields, NEW_FIELD])}
          icon={<Plus size={15} aria-hidden />}
        >
          Add field
        </Button>
        <Button
          look="plain"
          disabled={row.length >= 8}
          onClick={() => onRow((fields) => [...fields, SYMBOL])}
          icon={<Plus size={15} aria-hidden />}
        >
          Add symbol
        </Button>
      </span>
    </fieldset>
  );
}
