"use client";
/** What the design is made of: key sizes first, then members, panels, bought parts and typed-in rows. */
import { Plus } from "lucide-react";
import { type EndCut, type Job, newBoughtPart } from "@/core/job";
import { Button } from "../common/button";
import { Tag } from "../common/tag";
import { useDesk, useDeskState } from "../desk/desk-context";
import { Out, PaneHead } from "../desk/pane-head";
import { KeySizes } from "./key-sizes";
import { Section } from "./ledger-section";
import { Points } from "./points";
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
