"use client";
/** What the design is made of: key sizes first, then members, panels, bought parts and typed-in rows. */
import { Lock, LockOpen, Plus } from "lucide-react";
import { type ReactNode, useState } from "react";
import {
  type EndCut,
  type Job,
  type KeySize,
  newBoughtPart,
  newKeySize,
  type Point,
  readChoices,
} from "@/core/job";
import { sentence } from "@/core/kernel";
import { styleOf } from "@/core/lists";
import { formatLength, MM_PER_UNIT, roundTo } from "@/core/measure";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { Hint } from "../common/hint";
import { Tag } from "../common/tag";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "../desk/desk-context";
import { Out, PaneHead } from "../desk/pane-head";
import { UNIT_NAMES } from "../jobs/unit-names";
import { Variants } from "./variants";

export function ShapeLedger() {
  const job = useDeskState((state) => state.job);
  const { shape } = useDeskState((state) => state.results);
  const pieces = shape.members.length + shape.panels.length + shape.uncomputed.length;
  return (
    <>
      <PaneHead title="Design" facts={`${pieces} drawn pieces · ${shape.guides} guides`}>
        <Out />
      </PaneHead>
      <div className="min-h-0 flex-1 overflow-auto pb-6">
        <KeySizes />
        <Variants />
        <Members job={job} />
        <Panels job={job} />
        <BoughtParts job={job} />
        <TypedRows job={job} />
        <Points job={job} />
      </div>
    </>
  );
}

function Section({
  title,
  facts,
  children,
}: {
  readonly title: string;
  readonly facts: string;
  readonly children: ReactNode;
}) {
  return (
    <section aria-label={title}>
      <h3 className="flex justify-between bg-ground px-3.5 py-1 text-[13px]">
        <b className="font-semibold">{title}</b>
        <span className="text-ink-soft">{facts}</span>
      </h3>
      {children}
    </section>
  );
}

function KeySizes() {
  const keySizes = useDeskState((state) => state.job.keySizes);
  const unit = useDeskState((state) => state.job.info.job.unit);
  const sorted = Object.values(keySizes).sort((a, b) => a.position - b.position);
  return (
    <Section title="Key sizes" facts={`bare numbers are ${UNIT_NAMES[unit]}`}>
      <ul>
        {sorted.map((size) => (
          <KeySizeRow key={size.id} size={size} />
        ))}
      </ul>
      <NewKeySize count={sorted.length} />
    </Section>
  );
}

function KeySizeRow({ size }: { readonly size: KeySize }) {
  const desk = useDesk();
  const variantId = useDeskState((state) => state.variant);
  const variant = useDeskState((state) => (variantId === null ? undefined : state.job.variants[variantId]));
  const { sizes } = useDeskState((state) => state.results);
  const info = useDeskState((state) => state.job.info.job);
  const chosen = useDeskState((state) => state.selected.has(size.id));
  const text = variant?.formulas[size.name] ?? size.formula;
  const value = sizes.scope.get(size.name);
  const problem = sizes.problems.get(size.name);
  const computed =
    typeof value !== "number"
      ? typeof value === "boolean"
        ? value
          ? "yes"
          : "no"
        : (value ?? "")
      : size.measure === "length"
        ? formatLength(value * MM_PER_UNIT[info.unit], styleOf(info), 0.1)
        : String(roundTo(value, 3));
  const [refused, setRefused] = useState<string | null>(null);
  const fault = refused ?? (problem ? sentence(problem) : null);
  return (
    <li
      className={`grid grid-cols-[104px_136px_64px_minmax(0,1fr)_24px] items-start gap-2 border-seam border-b px-3.5 py-1 ${chosen ? "bg-brass-pale" : ""}`}
    >
      <button
        type="button"
        aria-pressed={chosen}
        title="Its settings stand below"
        className="truncate pt-1 text-left font-semibold font-table hover:underline"
        onClick={() => desk.select([size.id])}
      >
        {size.name}
      </button>
      <SizeValue
        size={size}
        text={text}
        fault={fault}
        onFault={setRefused}
        onCommit={(formula) => desk.submit({ kind: "setKeySize", id: size.id, formula, variant: variantId })}
      />
      {fault ? (
        // In the place of the note, so that no row moves away from under the pointer.
        <span
          id={`${size.id}-fault`}
          role="alert"
          className="col-span-2 text-[12px] text-oxide leading-[14px]"
        >
          {fault}
        </span>
      ) : (
        <>
          <span className="pt-1 text-right font-table" title="Computed value">
            {computed === text ? "" : `= ${computed}`}
          </span>
          <span className="pt-1 text-[13px] text-ink-soft leading-tight" title={rangeWords(size)}>
            {size.note || rangeWords(size)}
          </span>
        </>
      )}
      <Hint text={size.locked ? "Unlock" : "Lock"}>
        <button
          type="button"
          aria-label={`${size.locked ? "Unlock" : "Lock"} ${size.name}`}
          className="pt-1.5 text-ink-soft hover:text-ink"
          onClick={() => desk.submit({ kind: "changeKeySize", id: size.id, set: { locked: !size.locked } })}
        >
          {size.locked ? <Lock size={15} aria-hidden /> : <LockOpen size={15} aria-hidden />}
        </button>
      </Hint>
    </li>
  );
}

type SizeValueProps = {
  readonly size: KeySize;
  readonly text: string;
  readonly fault: string | null;
  readonly onFault: (sentence: string | null) => void;
  readonly onCommit: (formula: string) => string | null;
};

/** Yes or no and choices are picked; a formula in their place is typed like any other. */
function SizeValue({ size, text, fault, onFault, onCommit }: SizeValueProps) {
  const picks = size.measure === "yesNo" ? ["yes", "no"] : size.measure === "choice" ? size.choices : [];
  if (picks.includes(text) && !size.locked) {
    return (
      <Chooser
        label={size.name}
        hideLabel
        value={text}
        choices={picks.map((value) => ({ value, label: value }))}
        onChoose={(value) => onFault(onCommit(value))}
      />
    );
  }
  return (
    <TextField
      label={size.name}
      hideLabel
      value={text}
      disabled={size.locked}
      invalid={fault}
      fault={{ id: `${size.id}-fault`, show: onFault }}
      onCommit={onCommit}
    />
  );
}

function rangeWords({ least, greatest }: KeySize): string {
  if (least && greatest) return `from ${least} to ${greatest}`;
  return least ? `at least ${least}` : greatest ? `at most ${greatest}` : "";
}

const MEASURES = [
  { value: "length", label: "length" },
  { value: "number", label: "number" },
  { value: "angle", label: "angle" },
  { value: "yesNo", label: "yes or no" },
  { value: "choice", label: "choice" },
];

function NewKeySize({ count }: { readonly count: number }) {
  const desk = useDesk();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const [measure, setMeasure] = useState<KeySize["measure"]>("length");
  const [choices, setChoices] = useState<string[]>([]);
  if (!open) {
    return (
      <p className="px-3 py-1">
        <Button look="plain" icon={<Plus size={15} aria-hidden />} onClick={() => setOpen(true)}>
          Add key size
        </Button>
      </p>
    );
  }
  const rename = (text: string) => {
    setName(text.trim());
    return null;
  };
  const add = (formula: string): string | null => {
    if (!/^[A-Za-z_][A-Za-z0-9_]{0,39}$/.test(name)) return sentence({ kind: "badName", name });
    const refused = desk.submit({
      kind: "addKeySize",
      keySize: newKeySize(`size-${crypto.randomUUID().slice(0, 8)}`, name, formula, {
        position: count,
        measure,
        choices: measure === "choice" ? choices : [],
      }),
    });
    if (refused === null) {
      setOpen(false);
      setName("");
    }
    return refused;
  };
  return (
    <div className="grid grid-cols-[104px_110px_1fr_auto] items-start gap-2 px-3.5 py-1">
      <TextField label="Name" value={name} onCommit={rename} />
      <Chooser
        label="Kind"
        value={measure}
        choices={MEASURES}
        onChoose={(next) => setMeasure(next as KeySize["measure"])}
      />
      <span className="space-y-1">
        {measure === "choice" ? (
          <TextField
            label="Choices, parted by commas"
            value={choices.join(", ")}
            onCommit={(text) => {
              setChoices(readChoices(text));
              return null;
            }}
          />
        ) : null}
        <TextField
          label={measure === "yesNo" ? "yes, no or formula" : "Value or formula"}
          value=""
          onCommit={add}
        />
      </span>
      <span className="pt-5">
        <Button look="plain" onClick={() => setOpen(false)}>
          Leave it
        </Button>
      </span>
    </div>
  );
}

type RowProps = { readonly id: string; readonly name: string; readonly detail: string; readonly end: string };

/** A record in the ledger; its mark comes from the tally. */
function RecordRow({ id, name, detail, end }: RowProps) {
  const desk = useDesk();
  const chosen = useDeskState((state) => state.selected.has(id));
  const row = useDeskState((state) => state.results.tally.rowOfPiece.get(id));
  const broken = useDeskState((state) => state.results.shape.uncomputed.find((piece) => piece.id === id));
  const absent = useDeskState((state) => state.results.shape.absent.has(id));
  const selected = useDeskState((state) => state.selected);
  const pick = (event: React.MouseEvent) =>
    desk.select(event.shiftKey || event.ctrlKey ? [...selected, id] : [id]);
  return (
    <li>
      <button
        type="button"
        aria-pressed={chosen}
        onClick={pick}
        className={`grid h-7 w-full grid-cols-[44px_150px_1fr_auto] items-center gap-2 border-seam border-b px-3.5 text-left font-table ${chosen ? "bg-brass-pale" : "hover:bg-ground"}`}
      >
        <span>{row?.mark ? <Tag mark={row.mark} selected={chosen} /> : null}</span>
        <span className="truncate">{name}</span>
        <span className="truncate text-[13px] text-ink-soft">{detail}</span>
        <span className={`text-[13px] ${broken ? "font-semibold text-oxide" : "text-ink-soft"}`}>
          {broken ? "not computed" : absent ? "not there now" : end}
        </span>
      </button>
    </li>
  );
}

function cutWords(cut: EndCut): string {
  if (cut.kind === "square") return cut.past ? "runs past" : "square";
  return cut.kind;
}

function Members({ job }: { readonly job: Job }) {
  const stockroom = useDeskState((state) => state.stockroom);
  const members = Object.values(job.members);
  if (members.length === 0) return null;
  return (
    <Section title="Members" facts={String(members.length)}>
      <ul>
        {members.map((member) => {
          const line = job.lines[member.line];
          const points = line
            ? `${job.points[line.from]?.name ?? "?"}–${job.points[line.to]?.name ?? "?"}`
            : "";
          const section =
            member.section === null
              ? "no section"
              : (stockroom.sectionById.get(member.section)?.name ?? "not in the stockroom");
          return (
            <RecordRow
              key={member.id}
              id={member.id}
              name={member.name}
              detail={`${points} · ${section}`}
              end={`${cutWords(member.start)} · ${cutWords(member.end)}`}
            />
          );
        })}
      </ul>
    </Section>
  );
}

function Panels({ job }: { readonly job: Job }) {
  const stockroom = useDeskState((state) => state.stockroom);
  const panels = Object.values(job.panels);
  if (panels.length === 0) return null;
  return (
    <Section title="Panels" facts={String(panels.length)}>
      <ul>
        {panels.map((panel) => {
          const board =
            panel.board === null
              ? "no board"
              : (stockroom.boardById.get(panel.board)?.name ?? "not in the stockroom");
          const edged = Object.values(panel.edging).filter((edge) => edge !== null).length;
          const end = [
            edged > 0 ? `${edged} edged` : "",
            panel.work.length > 0 ? `${panel.work.length} groove` : "",
          ]
            .filter(Boolean)
            .join(" · ");
          return <RecordRow key={panel.id} id={panel.id} name={panel.name} detail={board} end={end} />;
        })}
      </ul>
    </Section>
  );
}

function BoughtParts({ job }: { readonly job: Job }) {
  const stockroom = useDeskState((state) => state.stockroom);
  const { bought } = useDeskState((state) => state.results.shape);
  const desk = useDesk();
  const parts = Object.values(job.boughtParts);
  const add = () => {
    const entry = stockroom.bought[0];
    const part = newBoughtPart(`bought-${crypto.randomUUID().slice(0, 8)}`, {
      name: entry?.name.slice(0, 80) ?? "Bought part",
      entry: entry?.id ?? null,
      count: "1",
    });
    const nothing = { points: [], lines: [], members: [], panels: [] };
    const refused = desk.submit({
      kind: "insert",
      what: "Add a bought part",
      ...nothing,
      boughtParts: [part],
    });
    if (refused === null) desk.select([part.id]);
  };
  return (
    <Section title="Bought parts" facts={String(parts.length)}>
      <ul>
        {parts.map((part) => {
          const entry =
            part.entry === null
              ? "nothing chosen"
              : (stockroom.boughtById.get(part.entry)?.name ?? "not in the stockroom");
          const count = bought.find((one) => one.part.id === part.id)?.count;
          return (
            <RecordRow
              key={part.id}
              id={part.id}
              name={part.name}
              detail={entry}
              end={count === null || count === undefined ? "not counted" : `${count} off`}
            />
          );
        })}
      </ul>
      <p className="px-3 py-1">
        <Button look="plain" icon={<Plus size={15} aria-hidden />} onClick={add}>
          Add bought part
        </Button>
      </p>
    </Section>
  );
}

function TypedRows({ job }: { readonly job: Job }) {
  const rows = Object.values(job.typedPieces).sort((a, b) => a.position - b.position);
  if (rows.length === 0) return null;
  return (
    <Section title="Typed-in pieces" facts={String(rows.length)}>
      <ul>
        {rows.map((typed) => (
          <RecordRow
            key={typed.id}
            id={typed.id}
            name={typed.name}
            detail={typed.stockText ?? ""}
            end={`${typed.quantity} off`}
          />
        ))}
      </ul>
    </Section>
  );
}

const AXES = ["width", "depth", "height"] as const;

/** The guide points: their coordinates as texts, in the order width, depth, height. */
function Points({ job }: { readonly job: Job }) {
  const points = Object.values(job.points);
  if (points.length === 0) return null;
  return (
    <Section title="Points" facts="width · depth · height">
      <ul>
        {points.map((point) => (
          <PointRow key={point.id} point={point} />
        ))}
      </ul>
    </Section>
  );
}

function PointRow({ point }: { readonly point: Point }) {
  const desk = useDesk();
  const chosen = useDeskState((state) => state.selected.has(point.id));
  const lines = useDeskState((state) => state.job.lines);
  const ends = Object.values(lines).filter((line) => line.from === point.id || line.to === point.id).length;
  const move = (i: number, text: string) => {
    const at = point.at.map((old, k) => (k === i ? text : old)) as [string, string, string];
    return desk.submit({ kind: "movePoints", points: [{ id: point.id, at }] });
  };
  return (
    <li
      className={`grid grid-cols-[64px_1fr_1fr_1fr_64px] items-start gap-2 border-seam border-b px-3.5 py-0.5 ${chosen ? "bg-brass-pale" : ""}`}
    >
      <button
        type="button"
        aria-pressed={chosen}
        className="h-7 text-left font-semibold font-table hover:underline"
        onClick={() => desk.select([point.id])}
      >
        {point.name}
      </button>
      {AXES.map((axis, i) => (
        <TextField
          key={axis}
          label={`${axis} of ${point.name}`}
          hideLabel
          value={point.at[i] ?? ""}
          onCommit={(text) => move(i, text)}
        />
      ))}
      <span className="pt-1 text-right text-[12px] text-ink-soft">
        {ends === 0 ? "loose" : ends === 1 ? "1 line" : `${ends} lines`}
      </span>
    </li>
  );
}
