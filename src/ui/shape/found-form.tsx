"use client";
/** What a STEP file was found to hold, before it enters the job: as what each piece enters, and what has to be known of it. */
import { useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import {
  chosenBefore,
  exists,
  type FoundFile,
  keptPrints,
  keptWith,
  neededStock,
  type Prints,
  plainSectionName,
  readAgain,
  readingFor,
  remarksOn,
  scaledFile,
  timesOf,
  usualWays,
  type Ways,
  wayOf,
  withClosed,
} from "@/core/imports";
import { jobStyle } from "@/core/job";
import { agreeing, counted, type Problem, type Result, sentence } from "@/core/kernel";
import { sayLength } from "@/core/measure";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { DialogClose } from "../common/dialog";
import { freshId } from "../common/fresh-id";
import { LongList, ScrolledBox } from "../common/long-list";
import { Fault, Notice } from "../common/notice";
import { useDesk, useDeskState } from "../desk/desk-context";
import { useDrawingReaders } from "../desk/drawing-readers";
import { AgainForm, type Compared } from "./again-form";
import { CloseDialog } from "./close-dialog";
import { PieceRow, type Shown } from "./found-piece";
import { freshIds } from "./fresh-ids";
import { submitImport } from "./submit-import";

const SCALES = [
  { value: "1", label: "as the file says" },
  { value: String(1 / 25.4), label: "mm, though it says inches" },
  { value: "25.4", label: "inches, though it says mm" },
  { value: "0.001", label: "a thousandth" },
  { value: "1000", label: "a thousand times" },
] as const;

/** What the file of an import said when it entered, and was chosen for it; null: it is none, or is still fetched. */
function useEarlier(id: string): Result<Prints, Problem> | null {
  const desk = useDesk();
  const imports = useDeskState((state) => state.job.imports);
  const record = Object.values(imports).find((one) => one.id === id);
  const [found, setFound] = useState<{
    readonly asset: string;
    readonly prints: Result<Prints, Problem>;
  } | null>(null);
  useEffect(() => {
    if (!record) return;
    let left = false;
    void desk.fetchAsset(record.asset).then((asset) => {
      if (!left) setFound({ asset: record.asset, prints: keptPrints(asset ?? undefined, record.name) });
    });
    return () => {
      left = true;
    };
  }, [desk, record]);
  return record && found?.asset === record.asset ? found.prints : null;
}

const NO_MEMORY = "There is not memory enough to import all of it at once; leave some of it out.";

type Told = { readonly file: FoundFile; readonly ways: Ways; readonly words: readonly string[] };

export function FoundForm({
  file: unscaled,
  onDone,
}: {
  readonly file: FoundFile;
  readonly onDone: () => void;
}) {
  const desk = useDesk();
  const { imported } = useDrawingReaders();
  const job = useDeskState((state) => state.job);
  const stockroom = useDeskState((state) => state.stockroom);
  const style = jobStyle(job);
  const [ownScale, setScale] = useState<string | null>(null);
  const [chosen, setChosen] = useState<Ways>(new Map());
  const [sections, setSections] = useState<ReadonlyMap<string, string>>(new Map());
  const [boards, setBoards] = useState<ReadonlyMap<string, string>>(new Map());
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  /** What only shows once the ends are computed, for what was chosen then. */
  const [told, setTold] = useState<Told | null>(null);
  /** Parts whose rims are joined, with the gap in mm; null: left open. */
  const [ownGaps, setGaps] = useState<ReadonlyMap<string, number | null>>(new Map());
  const [closing, setClosing] = useState<Shown | null>(null);
  const kept = Object.values(job.imports);
  const [earlier, setEarlier] = useState(
    () => kept.findLast(({ name }) => name === unscaled.name)?.id ?? NEW,
  );
  const known = useEarlier(earlier);
  const scale = ownScale ?? String(known?.ok ? known.value.scale : 1);
  const scaled = useMemo(() => scaledFile(unscaled, Number(scale)), [unscaled, scale]);
  const chosenThen = useMemo(
    () => chosenBefore(scaled, known?.ok ? known.value.choices : []),
    [scaled, known],
  );
  const gaps = useMemo(() => {
    const all = [...chosenThen.gaps, ...ownGaps];
    return new Map(
      all.flatMap(([key, gap]) => (gap === null || ownGaps.get(key) === null ? [] : [[key, gap]])),
    );
  }, [chosenThen, ownGaps]);
  const file = useMemo(() => withClosed(scaled, gaps), [scaled, gaps]);
  const ways: Ways = useMemo(
    () => new Map([...usualWays(file, stockroom), ...chosenThen.ways, ...chosen]),
    [file, stockroom, chosenThen, chosen],
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

  const [compared, setCompared] = useState<Compared | null>(null);
  /** All that would enter, as it is chosen now. */
  const enteredInto = async ({ job: into, stockroom: stock }: ReturnType<typeof desk.store.getState>) => {
    setBusy(true);
    setFault(null);
    const choices = { ways, sections, boards };
    const entered = await imported({ file, choices, job: into, stockroom: stock, stamp: freshId(8) });
    setBusy(false);
    if (entered === null) setFault(NO_MEMORY);
    else if (entered.refusal !== null)
      setFault(sentence({ kind: "malformed", what: file.name, why: entered.refusal }));
    return entered?.refusal === null ? entered : null;
  };
  const compare = async () => {
    const record = kept.find(({ id }) => id === earlier);
    if (!record || !known) return;
    setFault(known.ok ? null : sentence(known.problem));
    if (!known.ok) return;
    const state = desk.store.getState();
    const entered = await enteredInto(state);
    if (!entered) return;
    const again = readAgain(known.value, entered.prints, (id) => exists(state.job, id));
    setCompared({ record, entered, again });
  };
  const rescale = (next: string) => {
    setScale(next);
    // A gap was chosen for what it closes at that size.
    setGaps(new Map());
  };
  const isShown = (words: string) => remarks.some((one) => one.part === null && one.words === words);
  const lateWords = told && told.file === file && told.ways === ways ? told.words : null;

  const enter = async () => {
    const before = desk.store.getState();
    const entered = await enteredInto(before);
    if (!entered) return;
    const late = entered.remarks.flatMap(({ part, words }) =>
      part === null && !isShown(words) ? [words] : [],
    );
    if (late.length > 0 && lateWords === null) {
      setTold({ file, ways, words: late });
      return;
    }
    setBusy(true);
    const whole = keptWith(entered, file.name, freshIds(before.job));
    const refused = await submitImport(desk, entered.added, whole);
    setBusy(false);
    setFault(refused);
    if (refused !== null) return;
    if (entered.joined > 0)
      toast(
        `${counted(entered.joined, "end")} ${agreeing(entered.joined, "is", "are")} cut against other members, and ${agreeing(entered.joined, "follows", "follow")} when those move.`,
      );
    onDone();
  };

  if (compared) return <AgainForm compared={compared} onBack={() => setCompared(null)} onDone={onDone} />;
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
                  onClose={() => setClosing(one)}
                  onLeaveOpen={() => setGaps(new Map([...ownGaps, [one.part.key, null]]))}
                />
              )}
            </LongList>
          </ScrolledBox>
        </section>
        <div className="flex max-h-[352px] flex-col gap-3 overflow-auto">
          {kept.length > 0 ? (
            <Chooser
              label="Enters as"
              value={earlier}
              choices={[
                ...kept.map(({ id, name }) => ({ value: id as string, label: `a later state of ${name}` })),
                { value: NEW, label: "new pieces" },
              ]}
              onChoose={setEarlier}
            />
          ) : null}
          <Chooser label="Scale" value={scale} choices={SCALES} onChoose={rescale} />
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
      {closing ? (
        <CloseDialog
          key={closing.part.key}
          part={closing.part}
          name={closing.name}
          onTake={(gap) => {
            setGaps(new Map([...ownGaps, [closing.part.key, gap]]));
            setClosing(null);
          }}
          onCancel={() => setClosing(null)}
        />
      ) : null}
      {lateWords ? (
        <Notice tone="warning">{lateWords.join(" ")} Import again to take it as it is, or cancel.</Notice>
      ) : null}
      {fault ? <Fault>{fault}</Fault> : null}
      <div className="flex justify-end gap-2">
        <DialogClose />
        {earlier === NEW ? (
          <Button look="primary" disabled={busy || all === 0} onClick={() => void enter()}>
            {busy ? "Importing" : `Import ${counted(all, "piece")}`}
          </Button>
        ) : (
          <Button look="primary" disabled={busy || !known} onClick={() => void compare()}>
            {busy ? "Comparing" : "Compare with what it was"}
          </Button>
        )}
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
