"use client";
/** A STEP file before it enters the job: what was found in it, as what each piece enters, and what has to be known of it. */
import { FileInput } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import {
  cutLength,
  type FoundFile,
  type FoundPart,
  type FoundReading,
  imported,
  neededStock,
  plainSectionName,
  readingFor,
  remarksOn,
  type Skeleton,
  scaledFile,
  type TakeWay,
  timesOf,
  usualWays,
  type Ways,
  wayOf,
} from "@/core/imports";
import { jobStyle } from "@/core/job";
import { counted, sentence } from "@/core/kernel";
import { type LengthStyle, sayLength } from "@/core/measure";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { Dialog, DialogClose } from "../common/dialog";
import { FileField } from "../common/file-field";
import { LongList, ScrolledBox } from "../common/long-list";
import { Fault, Notice } from "../common/notice";
import { useDesk, useDeskState } from "../desk/desk-context";
import { type SolidsReading, useDrawingReaders } from "../desk/drawing-readers";
import { freshIds } from "./fresh-ids";
import { SkeletonForm } from "./skeleton-form";

export function ImportDialog({
  open,
  onOpen,
}: {
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
}) {
  return (
    <Dialog
      open={open}
      onOpen={onOpen}
      title="Import"
      about="STEP: solids become members, panels and bought parts. DXF: lines become a skeleton of points and lines, with members where you choose a section. Nothing enters the job before you say so."
      width="wide"
      trigger={
        <Button look="plain" icon={<FileInput size={15} aria-hidden />}>
          Import
        </Button>
      }
      close={null}
    >
      {open ? <ImportForm onDone={() => onOpen(false)} /> : null}
    </Dialog>
  );
}

function ImportForm({ onDone }: { readonly onDone: () => void }) {
  const { solids, skeleton: readLines } = useDrawingReaders();
  const [skeleton, setSkeleton] = useState<Skeleton | null>(null);
  const [file, setFile] = useState<FoundFile | null>(null);
  const [progress, setProgress] = useState<{ readonly words: string; readonly share: number } | null>(null);
  const reading = useRef<SolidsReading | null>(null);
  // A dialog that is closed stops what it was reading.
  useEffect(() => () => reading.current?.stop(), []);
  const read = async (chosen: File): Promise<string | null> => {
    reading.current?.stop();
    setFile(null);
    setSkeleton(null);
    if (/\.dxf$/i.test(chosen.name)) {
      const lines = await readLines(chosen);
      if (!lines.ok) return sentence(lines.problem);
      setSkeleton(lines.value);
      return null;
    }
    setProgress({ words: "Opening the file", share: 0 });
    const next = solids(chosen, (words, share) => setProgress({ words, share }));
    reading.current = next;
    const found = await next.found;
    if (reading.current !== next) return null;
    setProgress(null);
    if (found === null) return "Stopped. Nothing was taken over.";
    if (!found.ok) return sentence(found.problem);
    setFile(found.value);
    return null;
  };
  return (
    <div className="mt-3 flex min-h-0 flex-col gap-3">
      <div className="flex">
        <FileField
          label={
            file || skeleton
              ? `${(file ?? skeleton)?.name}: choose another file`
              : "Choose a STEP or DXF file"
          }
          accept=".stp,.step,.p21,.dxf"
          onFile={read}
        />
      </div>
      {progress ? (
        <div className="flex items-center gap-3">
          <progress
            aria-label="Reading the file"
            className="h-2 flex-1 accent-enamel"
            value={progress.share}
            max={1}
          />
          <span className="text-[13px] text-ink-soft" aria-live="polite">
            {progress.words}
          </span>
          <Button onClick={() => reading.current?.stop()}>Stop</Button>
        </div>
      ) : null}
      {file ? (
        <Found file={file} onDone={onDone} />
      ) : skeleton ? (
        <SkeletonForm skeleton={skeleton} onDone={onDone} />
      ) : (
        <div className="flex justify-end">
          <DialogClose />
        </div>
      )}
    </div>
  );
}

const SCALES = [
  { value: "1", label: "as the file says" },
  { value: String(1 / 25.4), label: "mm, though it says inches" },
  { value: "25.4", label: "inches, though it says mm" },
  { value: "0.001", label: "a thousandth" },
  { value: "1000", label: "a thousand times" },
] as const;

type Told = { readonly file: FoundFile; readonly ways: Ways; readonly words: readonly string[] };

const KIND_NAMES = { member: "member", panel: "panel", other: "bought part" } as const;

type Shown = { readonly part: FoundPart; readonly name: string; readonly times: number };

function Found({ file: unscaled, onDone }: { readonly file: FoundFile; readonly onDone: () => void }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const stockroom = useDeskState((state) => state.stockroom);
  const style = jobStyle(job);
  const [scale, setScale] = useState("1");
  const [chosen, setChosen] = useState<Ways>(new Map());
  const [sections, setSections] = useState<ReadonlyMap<string, string>>(new Map());
  const [boards, setBoards] = useState<ReadonlyMap<string, string>>(new Map());
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  /** What only shows once the ends are computed, for what was chosen then. */
  const [told, setTold] = useState<Told | null>(null);
  const file = useMemo(() => scaledFile(unscaled, Number(scale)), [unscaled, scale]);
  const ways: Ways = useMemo(
    () => new Map([...usualWays(file, stockroom), ...chosen]),
    [file, stockroom, chosen],
  );
  const needed = useMemo(() => neededStock(file, ways, stockroom), [file, ways, stockroom]);
  const remarks = useMemo(() => remarksOn(file, ways), [file, ways]);
  const shown = useMemo(() => {
    const times = timesOf(file);
    return file.products.flatMap((product): readonly Shown[] =>
      (times.get(product.id) ?? 0) === 0
        ? []
        : product.parts.map((part) => ({
            part,
            name: part.name && !/^solid$/i.test(part.name) ? part.name : product.name || "Part",
            times: times.get(product.id) ?? 0,
          })),
    );
  }, [file]);
  const counts = { member: 0, panel: 0, other: 0 };
  for (const { part, times } of shown) {
    const read = readingFor(part, wayOf(ways, part.key));
    if (read) counts[read.kind] += times;
  }
  const nameOf = new Map(shown.map(({ part, name }) => [part.key, name]));
  const all = counts.member + counts.panel + counts.other;

  const isShown = (words: string) => remarks.some((one) => one.part === null && one.words === words);
  const lateWords = told && told.file === file && told.ways === ways ? told.words : null;

  const enter = async () => {
    setBusy(true);
    setFault(null);
    const before = desk.store.getState();
    const entered = imported(
      file,
      { ways, sections, boards },
      before.job,
      before.stockroom,
      freshIds(before.job),
    );
    const late = entered.remarks.flatMap(({ part, words }) =>
      part === null && !isShown(words) ? [words] : [],
    );
    if (late.length > 0 && lateWords === null) {
      setTold({ file, ways, words: late });
      setBusy(false);
      return;
    }
    // What the records name has to be there before them.
    let refused = await desk.addEntries(entered.added.sections, entered.added.boards);
    for (const asset of entered.assets) refused ??= await desk.storeAsset(asset);
    refused ??= desk.submit(entered.edit);
    setBusy(false);
    setFault(refused);
    if (refused === null) onDone();
  };

  return (
    <>
      <p className="text-[14px]" aria-live="polite">
        <b>
          {[
            counted(counts.member, "member"),
            counted(counts.panel, "panel"),
            counted(counts.other, "bought part"),
          ].join(", ")}
        </b>
        , {file.size.map((size) => sayLength(size, style)).join(" × ")} over all. {file.schema}
        {file.units.length > 0
          ? `, lengths in ${file.units.map((unit) => PLURALS[unit] ?? unit).join(" and ")}`
          : ""}
        .
      </p>
      <div className="grid min-h-0 grid-cols-[1fr_360px] gap-5 narrow:grid-cols-1">
        <section aria-label="Pieces">
          <h3 className="mb-1 font-semibold text-[13px]">Pieces</h3>
          <ScrolledBox className="h-[330px] overflow-auto border border-seam">
            <LongList items={shown} keyOf={({ part }) => part.key}>
              {(one) => (
                <PieceRow
                  one={one}
                  way={wayOf(ways, one.part.key)}
                  style={style}
                  onWay={(way) => setChosen(new Map([...chosen, [one.part.key, way]]))}
                />
              )}
            </LongList>
          </ScrolledBox>
        </section>
        <div className="flex max-h-[352px] flex-col gap-3 overflow-auto">
          <Chooser label="Scale" value={scale} choices={SCALES} onChoose={setScale} />
          {needed.sections.length > 0 ? (
            <section aria-label="Sections">
              <h3 className="font-semibold text-[13px]">Sections</h3>
              {needed.sections.map((one) => (
                <Chooser
                  key={one.key}
                  label={`${plainSectionName(one.shape)}, ${counted(one.pieces, "piece")}`}
                  value={sections.get(one.key) ?? one.entries[0]?.id ?? NEW}
                  choices={[
                    ...one.entries.map(({ id, name }) => ({ value: id, label: name })),
                    ...(one.entries.length === 0 ? [{ value: NEW, label: "Add it to the stockroom" }] : []),
                    ...stockroom.sections
                      .filter(({ shape }) => shape.kind === one.shape.kind)
                      .filter((entry) => !one.entries.includes(entry))
                      .map(({ id, name }) => ({ value: id, label: `${name} (other size)` })),
                  ]}
                  onChoose={(id) => setSections(withChoice(sections, one.key, id))}
                />
              ))}
            </section>
          ) : null}
          {needed.boards.length > 0 ? (
            <section aria-label="Boards">
              <h3 className="font-semibold text-[13px]">Boards</h3>
              {needed.boards.map((one) => (
                <Chooser
                  key={one.key}
                  label={`${sayLength(one.thickness, style)} thick, ${counted(one.pieces, "piece")}`}
                  value={boards.get(one.key) ?? one.entries[0]?.id ?? NEW}
                  choices={[
                    ...one.entries.map(({ id, name }) => ({ value: id, label: name })),
                    ...(one.entries.length === 0 ? [{ value: NEW, label: "Add it to the stockroom" }] : []),
                  ]}
                  onChoose={(id) => setBoards(withChoice(boards, one.key, id))}
                />
              ))}
            </section>
          ) : null}
        </div>
      </div>
      {remarks.length > 0 ? (
        <section aria-label="Remarks" className="max-h-[120px] overflow-auto">
          <Notice tone="warning">
            <ul className="list-disc pl-4 text-[13px]">
              {remarks.slice(0, MOST_REMARKS).map(({ part, words }) => (
                <li key={`${part} ${words}`}>{part === null ? words : `${nameOf.get(part)}: ${words}`}</li>
              ))}
              {remarks.length > MOST_REMARKS ? <li>{remarks.length - MOST_REMARKS} more.</li> : null}
            </ul>
          </Notice>
        </section>
      ) : null}
      {lateWords ? (
        <Notice tone="warning">{lateWords.join(" ")} Import again to take it as it is, or cancel.</Notice>
      ) : null}
      {fault ? <Fault>{fault}</Fault> : null}
      <div className="flex justify-end gap-2">
        <DialogClose />
        <Button look="primary" disabled={busy || all === 0} onClick={() => void enter()}>
          {busy ? "Importing" : `Import ${counted(all, "piece")}`}
        </Button>
      </div>
    </>
  );
}

const PLURALS: Readonly<Record<string, string>> = {
  millimetre: "millimetres",
  centimetre: "centimetres",
  metre: "metres",
  inch: "inches",
  foot: "feet",
};

const NEW = "new";
const MOST_REMARKS = 40;

/** A choice; "new" is what holds without one. */
function withChoice(
  choices: ReadonlyMap<string, string>,
  key: string,
  id: string,
): ReadonlyMap<string, string> {
  const next = new Map(choices);
  if (id === NEW) next.delete(key);
  else next.set(key, id);
  return next;
}

function PieceRow({
  one: { part, name, times },
  way,
  style,
  onWay,
}: {
  readonly one: Shown;
  readonly way: TakeWay;
  readonly style: LengthStyle;
  readonly onWay: (way: TakeWay) => void;
}) {
  const read = readingFor(part, way);
  const [other] = part.otherwise;
  const choices = [
    { value: "taken" as const, label: `as a ${KIND_NAMES[part.taken.kind]}` },
    ...(other && other.kind !== part.taken.kind
      ? [{ value: "otherwise" as const, label: `as a ${KIND_NAMES[other.kind]}` }]
      : []),
    ...(part.taken.kind === "other" ? [] : [{ value: "bought" as const, label: "as a bought part" }]),
    { value: "leave" as const, label: "leave out" },
  ];
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_40px_minmax(0,2.6fr)_126px] items-center gap-2 border-seam border-b px-2 py-0.5 text-[13px]">
      <span className="truncate" title={name}>
        {name}
      </span>
      <span className="text-right font-table">{times} ×</span>
      <span className="truncate" title={read ? readingWords(read, part, style) : ""}>
        {read ? readingWords(read, part, style) : ""}
      </span>
      <Chooser label={`How ${name} enters`} hideLabel value={way} choices={choices} onChoose={onWay} />
    </div>
  );
}

/** What a piece was found to be, in a few words. */
function readingWords(read: FoundReading, part: FoundPart, style: LengthStyle): string {
  switch (read.kind) {
    case "member": {
      const ends = [read.start, read.end].map((end) =>
        end.kind === "plane"
          ? end.slope[0] === 0 && end.slope[1] === 0
            ? "square"
            : "angled"
          : end.kind === "cope"
            ? "coped"
            : "complex",
      );
      const holes = read.holes.length > 0 ? `, ${counted(read.holes.length, "hole")}` : "";
      const [first, second] = ends;
      const words = first === second ? `${first} ends` : `${first} and ${second} ends`;
      return `${plainSectionName(read.shape)}, ${sayLength(cutLength(read), style)}, ${words}${holes}`;
    }
    case "panel": {
      const sizes = [read.length, read.width, read.thickness]
        .map((size) => sayLength(size, style))
        .join(" × ");
      const holes = read.holes.length > 0 ? `, ${counted(read.holes.length, "hole")}` : "";
      const grooves = read.grooves.length > 0 ? `, ${counted(read.grooves.length, "groove")}` : "";
      return `${sizes}${read.outline ? ", with outline" : ""}${holes}${grooves}`;
    }
    case "other": {
      if (part.gaps.length > 0) return "no solid: open";
      const size = part.high.map((high, i) => sayLength(high - (part.low[i] ?? 0), style)).join(" × ");
      return `${read.hardware ?? "shape"}, ${size}`;
    }
    default:
      return read satisfies never;
  }
}
