"use client";
import { LogOut, Plus } from "lucide-react";
import { useMemo, useState } from "react";
import {
  cutWords,
  findAssembly,
  type Home,
  homeOfMember,
  type Job,
  nameOfEntry,
  newBoughtPart,
  newInsert,
} from "@/core/job";
/** What the design is made of: key sizes first, then members, panels, bought parts and typed-in rows. */
import { counted } from "@/core/kernel";
import { Button } from "../common/button";
import { freshId } from "../common/fresh-id";
import { LongList, ScrolledBox } from "../common/long-list";
import { Tag } from "../common/tag";
import { useDesk, useDeskState } from "../desk/desk-context";
import { Out, PaneHead } from "../desk/pane-head";
import { UsualFields } from "../desk/placement-settings";
import { AssemblyTree } from "./assembly-tree";
import { KeySizes } from "./key-sizes";
import { Section } from "./ledger-section";
import { Guides, Points } from "./points";
import { Variants } from "./variants";

export function ShapeLedger() {
  const job = useDeskState((state) => state.job);
  const inside = useDeskState((state) => state.inside);
  const { tally } = useDeskState((state) => state.results);
  const { balance, batch } = tally;
  const facts = [
    counted(balance.design / batch, "piece"),
    ...(balance.guides > 0 ? [counted(balance.guides, "guide")] : []),
  ].join(" · ");
  return (
    <>
      <PaneHead title="Design" facts={facts}>
        <Out />
      </PaneHead>
      <OpenAssembly />
      <ScrolledBox className="min-h-0 flex-1 overflow-auto pb-6">
        {inside === null ? (
          <>
            <KeySizes />
            <Variants />
            <UsualOfJob />
          </>
        ) : null}
        <AssemblyTree />
        <Members job={job} home={inside} />
        <Panels job={job} home={inside} />
        <BoughtParts job={job} home={inside} />
        {inside === null ? <TypedRows job={job} /> : null}
        <Guides job={job} home={inside} />
        <Points job={job} home={inside} />
      </ScrolledBox>
    </>
  );
}

/** Says which assembly is open and leads back. */
function OpenAssembly() {
  const desk = useDesk();
  const assembly = useDeskState((state) => findAssembly(state.job, state.inside));
  const places = useDeskState((state) =>
    assembly ? state.results.shape.places.get(assembly.id) : undefined,
  );
  if (!assembly) return null;
  const times = places?.length ?? 0;
  return (
    <p className="flex items-center gap-2 border-brass border-b bg-brass-pale px-3.5 py-1 text-[13px]">
      <span className="min-w-0 flex-1 truncate">
        Open: <b className="font-semibold">{assembly.name}</b>, {counted(times, "placement")}. Changes apply
        to all.
      </span>
      <Button look="plain" icon={<LogOut size={14} aria-hidden />} onClick={() => desk.enter(null)}>
        Back to the job
      </Button>
    </p>
  );
}

/** Stock and materials that hold wherever nothing narrower is chosen. */
function UsualOfJob() {
  const desk = useDesk();
  const usual = useDeskState((state) => state.job.info.job.usual);
  const [open, setOpen] = useState(false);
  const chosen = Object.values(usual).filter((value) => value !== null).length;
  return (
    <Section title="Default stock and materials" facts={chosen === 0 ? "none set" : `${chosen} set`}>
      {open ? (
        <div className="grid grid-cols-2 gap-x-3 gap-y-1.5 px-3.5 py-1.5">
          <UsualFields
            usual={usual}
            wider="none"
            onChange={(next) => desk.submit({ kind: "changeInfo", set: { usual: next } })}
          />
        </div>
      ) : null}
      <p className="px-3 py-1">
        <Button look="plain" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Collapse" : "Set defaults"}
        </Button>
      </p>
    </Section>
  );
}

const ROLE_WORDS = { bought: "bought, not made", guide: "guide" } as const;

type RowProps = { readonly id: string; readonly name: string; readonly detail: string; readonly end: string };

/** A record in the ledger; its mark comes from the tally. */
function RecordRow({ id, name, detail, end }: RowProps) {
  const desk = useDesk();
  const chosen = useDeskState((state) => state.selected.has(id));
  const row = useDeskState((state) => state.results.tally.rowOfPiece.get(id));
  const broken = useDeskState((state) => state.results.shape.uncomputed.find((piece) => piece.id === id));
  const absent = useDeskState((state) => state.results.shape.absent.has(id));
  const role = useDeskState((state) => (state.job.members[id] ?? state.job.panels[id])?.role ?? "made");
  const pick = (event: React.MouseEvent) => {
    const { selected } = desk.store.getState();
    desk.select(event.shiftKey || event.ctrlKey ? [...selected, id] : [id]);
  };
  return (
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
        {broken ? "not computed" : absent ? "not there now" : role === "made" ? end : ROLE_WORDS[role]}
      </span>
    </button>
  );
}

type HomeProps = { readonly job: Job; readonly home: Home };

function Members({ job, home }: HomeProps) {
  const stockroom = useDeskState((state) => state.stockroom);
  const solids = useDeskState((state) => state.results.shape.members);
  const members = Object.values(job.members).filter((member) => homeOfMember(job, member) === home);
  const usual = useMemo(() => new Map(solids.map(({ member, entry }) => [member.id, entry.name])), [solids]);
  if (members.length === 0) return null;
  return (
    <Section title="Members" facts={String(members.length)}>
      <LongList items={members} keyOf={({ id }) => id}>
        {(member) => {
          const line = job.lines[member.line];
          const points = line
            ? `${job.points[line.from]?.name ?? "?"}–${job.points[line.to]?.name ?? "?"}`
            : "";
          const section =
            member.section === null
              ? (usual.get(member.id) ?? "no section")
              : (stockroom.sectionById.get(member.section)?.name ?? "not in the stockroom");
          return (
            <RecordRow
              id={member.id}
              name={member.name}
              detail={`${points} · ${section}`}
              end={`${cutWords(member.start)} · ${cutWords(member.end)}`}
            />
          );
        }}
      </LongList>
    </Section>
  );
}

function Panels({ job, home }: HomeProps) {
  const stockroom = useDeskState((state) => state.stockroom);
  const solids = useDeskState((state) => state.results.shape.panels);
  const panels = Object.values(job.panels).filter((panel) => panel.assembly === home);
  const usual = useMemo(() => new Map(solids.map(({ panel, board }) => [panel.id, board?.name])), [solids]);
  if (panels.length === 0) return null;
  return (
    <Section title="Panels" facts={String(panels.length)}>
      <LongList items={panels} keyOf={({ id }) => id}>
        {(panel) => {
          const board =
            panel.board === null
              ? (usual.get(panel.id) ?? "no board")
              : (stockroom.boardById.get(panel.board)?.name ?? "not in the stockroom");
          const edged = Object.values(panel.edging).filter((edge) => edge !== null).length;
          const end = [
            edged > 0 ? `${edged} edged` : "",
            panel.work.length > 0 ? `work: ${panel.work.length}` : "",
            panel.between ? "attached" : "",
          ]
            .filter(Boolean)
            .join(" · ");
          return <RecordRow id={panel.id} name={panel.name} detail={board} end={end} />;
        }}
      </LongList>
    </Section>
  );
}

function BoughtParts({ job, home }: HomeProps) {
  const stockroom = useDeskState((state) => state.stockroom);
  const { bought } = useDeskState((state) => state.results.shape);
  const desk = useDesk();
  const parts = Object.values(job.boughtParts).filter((part) => part.assembly === home);
  const add = () => {
    const entry = stockroom.bought[0];
    const part = newBoughtPart(`bought-${freshId(8)}`, {
      name: nameOfEntry(entry),
      entry: entry?.id ?? null,
      count: "1",
      assembly: home,
    });
    const refused = desk.submit(newInsert("Add a bought part", { boughtParts: [part] }));
    if (refused === null) desk.select([part.id]);
  };
  return (
    <Section title="Bought parts" facts={String(parts.length)}>
      <LongList items={parts} keyOf={({ id }) => id}>
        {(part) => {
          const entry =
            part.entry === null
              ? "nothing chosen"
              : (stockroom.boughtById.get(part.entry)?.name ?? "not in the stockroom");
          const count = bought.find((one) => one.part.id === part.id)?.count;
          return (
            <RecordRow
              id={part.id}
              name={part.name}
              detail={entry}
              end={count === null || count === undefined ? "not counted" : `× ${count}`}
            />
          );
        }}
      </LongList>
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
      <LongList items={rows} keyOf={({ id }) => id}>
        {(typed) => (
          <RecordRow
            id={typed.id}
            name={typed.name}
            detail={typed.stockText ?? ""}
            end={`× ${typed.quantity}`}
          />
        )}
      </LongList>
    </Section>
  );
}
