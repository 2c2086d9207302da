"use client";
import { LogOut, Plus } from "lucide-react";
import { useMemo, useState } from "react";
import {
  cutWords,
  findAssembly,
  type Home,
  type MemberId,
  membersOfHome,
  nameOfEntry,
  newBoughtPart,
  newInsert,
  type Panel,
} from "@/core/job";
/** What the design is made of: key sizes first, then members, panels, bought parts and typed-in rows. */
import { counted } from "@/core/kernel";
import { memberSolid, panelSolid } from "@/core/shape";
import { Button } from "../common/button";
import { newId } from "../common/fresh-id";
import { ScrolledBox } from "../common/long-list";
import { Tag } from "../common/tag";
import { useDesk, useDeskState } from "../desk/desk-context";
import { Out, PaneHead } from "../desk/pane-head";
import { DefaultFields } from "../desk/placement-settings";
import { AssemblyTree } from "./assembly-tree";
import { KeySizes } from "./key-sizes";
import { Section } from "./ledger-section";
import { Guides, Points } from "./points";
import { RecordList, useRecordPick } from "./record-list";
import { Variants } from "./variants";

export function ShapeLedger() {
  const inside = useDeskState((state) => state.inside);
  const balance = useDeskState((state) => state.results.tally.balance);
  const batch = useDeskState((state) => state.results.tally.batch);
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
            <DefaultsOfJob />
          </>
        ) : null}
        <AssemblyTree />
        <Members home={inside} />
        <Panels home={inside} />
        <BoughtParts home={inside} />
        {inside === null ? <TypedRows /> : null}
        <Guides home={inside} />
        <Points home={inside} />
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
function DefaultsOfJob() {
  const desk = useDesk();
  const usual = useDeskState((state) => state.job.info.job.usual);
  const [open, setOpen] = useState(false);
  const chosen = Object.values(usual).filter((value) => value !== null).length;
  return (
    <Section title="Default stock and materials" facts={chosen === 0 ? "none set" : `${chosen} set`}>
      {open ? (
        <div className="grid grid-cols-2 gap-x-3 gap-y-1.5 px-3.5 py-1.5">
          <DefaultFields
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
  const pick = useRecordPick();
  const chosen = useDeskState((state) => state.selected.has(id));
  const row = useDeskState((state) => state.results.tally.rowOfPiece.get(id));
  const broken = useDeskState((state) => state.results.shape.uncomputed.find((piece) => piece.id === id));
  const absent = useDeskState((state) => state.results.shape.absent.has(id));
  const role = useDeskState((state) => (state.job.members[id] ?? state.job.panels[id])?.role ?? "made");
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={(event) => pick(id, event)}
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

type HomeProps = { readonly home: Home };

function Members({ home }: HomeProps) {
  const own = useDeskState(({ job }) => membersOfHome(job, home));
  if (own.length === 0) return null;
  return (
    <Section title="Members" facts={String(own.length)}>
      <RecordList items={own} keyOf={(id) => id}>
        {(id) => <MemberRow id={id} />}
      </RecordList>
    </Section>
  );
}

function MemberRow({ id }: { readonly id: MemberId }) {
  const member = useDeskState(({ job }) => job.members[id]);
  const between = useDeskState(({ job }) => {
    const line = job.lines[job.members[id]?.line ?? ""];
    return line ? `${job.points[line.from]?.name ?? "?"}–${job.points[line.to]?.name ?? "?"}` : "";
  });
  const section = useDeskState(({ job, stockroom, results }) => {
    const chosen = job.members[id]?.section ?? null;
    return chosen === null
      ? (memberSolid(results.shape, id)?.entry.name ?? "no section")
      : (stockroom.sectionById.get(chosen)?.name ?? "not in the stockroom");
  });
  if (!member) return null;
  return (
    <RecordRow
      id={id}
      name={member.name}
      detail={`${between} · ${section}`}
      end={`${cutWords(member.start)} · ${cutWords(member.end)}`}
    />
  );
}

function Panels({ home }: HomeProps) {
  const panels = useDeskState((state) => state.job.panels);
  const own = useMemo(() => Object.values(panels).filter((panel) => panel.assembly === home), [panels, home]);
  if (own.length === 0) return null;
  return (
    <Section title="Panels" facts={String(own.length)}>
      <RecordList items={own} keyOf={({ id }) => id}>
        {(panel) => <PanelRow panel={panel} />}
      </RecordList>
    </Section>
  );
}

function PanelRow({ panel }: { readonly panel: Panel }) {
  const board = useDeskState(({ stockroom, results }) =>
    panel.board === null
      ? (panelSolid(results.shape, panel.id)?.board?.name ?? "no board")
      : (stockroom.boardById.get(panel.board)?.name ?? "not in the stockroom"),
  );
  const edged = Object.values(panel.edging).filter((edge) => edge !== null).length;
  const end = [
    edged > 0 ? `${edged} edged` : "",
    panel.work.length > 0 ? `work: ${panel.work.length}` : "",
    panel.between ? "attached" : "",
  ]
    .filter(Boolean)
    .join(" · ");
  return <RecordRow id={panel.id} name={panel.name} detail={board} end={end} />;
}

function BoughtParts({ home }: HomeProps) {
  const boughtParts = useDeskState((state) => state.job.boughtParts);
  const stockroom = useDeskState((state) => state.stockroom);
  const { bought } = useDeskState((state) => state.results.shape);
  const desk = useDesk();
  const parts = Object.values(boughtParts).filter((part) => part.assembly === home);
  const add = () => {
    const entry = stockroom.bought[0];
    const part = newBoughtPart(newId("bought"), {
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
      <RecordList items={parts} keyOf={({ id }) => id}>
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
      </RecordList>
      <p className="px-3 py-1">
        <Button look="plain" icon={<Plus size={15} aria-hidden />} onClick={add}>
          Add bought part
        </Button>
      </p>
    </Section>
  );
}

function TypedRows() {
  const pieces = useDeskState((state) => state.job.typedPieces);
  const rows = useMemo(() => Object.values(pieces).sort((a, b) => a.position - b.position), [pieces]);
  if (rows.length === 0) return null;
  return (
    <Section title="Typed-in pieces" facts={String(rows.length)}>
      <RecordList items={rows} keyOf={({ id }) => id}>
        {(typed) => (
          <RecordRow
            id={typed.id}
            name={typed.name}
            detail={typed.stockText ?? ""}
            end={`× ${typed.quantity}`}
          />
        )}
      </RecordList>
    </Section>
  );
}
