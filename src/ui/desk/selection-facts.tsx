"use client";
/** What is known of the selected row: sizes, ends, saw settings, mass, where it is cut from. */
import { kindOf, sawSettings } from "@/core/ends";
import { type Chooser, chosenBy, contentsOf, findAssembly, ownColumnId } from "@/core/job";
import { counted, fromNm } from "@/core/kernel";
import { layoutKind, type SavedLayout, savedFor } from "@/core/layout";
import { rowNotes, severalWords, standWords, styleOf } from "@/core/lists";
import { formatDecimal, formatDegrees, formatLength } from "@/core/measure";
import { sectionMass } from "@/core/stockroom";
import type { TallyRow } from "@/core/tally";
import { useDeskState } from "./desk-context";
import type { DeskState } from "./desk-store";

export function SelectionFacts() {
  const state = useDeskState((whole) => whole);
  const row = [...state.selected]
    .map((id) => state.results.tally.rowOfPiece.get(id))
    .find((one) => one !== undefined);
  const placed = [...state.selected].find((id) => state.job.placements[id] ?? state.job.assemblies[id]);
  if (!row && placed) return <Facts facts={placementFacts(placed, state)} />;
  if (!row)
    return <p className="text-[13px] text-ink-soft">Sizes, ends and where it is cut from appear here.</p>;
  return <Facts facts={factsOf(row, state)} />;
}

function Facts({ facts }: { readonly facts: readonly Fact[] }) {
  return (
    <dl className="grid grid-cols-[84px_1fr] gap-x-3 gap-y-0.5 text-[13px]">
      {facts.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="text-ink-soft">{name}</dt>
          <dd className="font-table">{value}</dd>
        </div>
      ))}
    </dl>
  );
}

type Fact = readonly [string, string];

/** Of an assembly: how often it stands, and what is in one of it. */
function placementFacts(id: string, { job, results }: DeskState): readonly Fact[] {
  const assembly = findAssembly(job, job.placements[id]?.assembly ?? id);
  if (!assembly) return [];
  const all = results.shape.places.get(assembly.id) ?? [];
  const own = all.filter(({ path }) => path.at(-1) === id);
  const mirrored = all.filter(({ pose }) => pose.mirrored).length;
  const contents = contentsOf(job, assembly.id);
  const count = (table: Readonly<Record<string, unknown>>) => contents.filter((one) => table[one]).length;
  const inside = [
    [count(job.members), "member", "members"],
    [count(job.panels), "panel", "panels"],
    [count(job.boughtParts), "bought part", "bought parts"],
    [count(job.placements), "assembly", "assemblies"],
  ]
    .filter(([number]) => number !== 0)
    .map(([number, one, many]) => counted(Number(number), String(one), String(many)));
  return [
    ["Position", `${all.length} × in the job${mirrored > 0 ? `, ${mirrored} of them mirrored` : ""}`],
    ...(own.length > 0 && own.length < all.length ? [["Here", `${own.length} ×`] as const] : []),
    ["In one", inside.join(", ") || "nothing yet"],
  ];
}

function factsOf(row: TallyRow, state: DeskState): readonly Fact[] {
  return [...rowFacts(row, state), ...ownColumnFacts(row, state)];
}

/** What was typed in custom columns for the pieces of the row: each value with how many have it. */
function ownColumnFacts(row: TallyRow, { job, results }: DeskState): readonly Fact[] {
  return Object.values(job.ownColumns).flatMap((column): Fact[] => {
    const values = new Map<string, number>();
    for (const { id, quantity } of row.pieces) {
      const typed = Object.values(job.listCells).find(
        (cell) => cell.list === null && cell.column === ownColumnId(column) && cell.records.includes(id),
      );
      const text = typed?.text ?? column.forAll;
      if (text !== null) values.set(text, (values.get(text) ?? 0) + quantity * results.tally.batch);
    }
    if (values.size === 0) return [];
    const set = [...values.values()].reduce((sum, count) => sum + count, 0);
    const several = [...values].map(([text, count]) => ({ text, count }));
    const rest = row.count - set;
    const all = rest > 0 ? [...several, { text: "not set", count: rest }] : several;
    return [[column.name, all.length === 1 ? (all[0]?.text ?? "") : severalWords(all)]];
  });
}

function rowFacts(row: TallyRow, state: DeskState): readonly Fact[] {
  const style = styleOf(state.job.info.job);
  const write = (nm: number) => `${formatLength(fromNm(nm), style, 0.1)} ${style.unit}`;
  const { form } = row.shown;
  const stock = stockFacts(row, state);
  const cutFrom = cutFromFact(row, state);
  const notes = rowNotes(row, style, state.stockroom).map((note): Fact => ["Note", note]);
  if (form.kind === "member") {
    const saw = form.ends.map((end) => {
      const kind = kindOf(end);
      if (!kind.sawn) return kind.name;
      const settings = kind.slopes(end).map(sawSettings);
      return settings
        .map(({ mitre, bevel }) => `${formatDegrees(mitre)} / ${formatDegrees(bevel)}°`)
        .join(" and ");
    });
    return [
      ...stock,
      ["Cut length", write(form.cutNm)],
      ["Edges", `${write(form.longestNm)} longest, ${write(form.shortestNm)} shortest`],
      ["Ends", standWords(form)],
      ["Saw", `mitre / bevel ${saw[0]}, then ${saw[1]}, on its y face`],
      ["Mass", massWords(row, state)],
      ...cutFrom,
      ...notes.slice(0, 2),
    ];
  }
  if (form.kind === "panel") {
    const thickness = form.thicknessNm === null ? "no thickness" : write(form.thicknessNm);
    return [
      ...stock,
      ["Finished", `${write(form.lengthNm)} × ${write(form.widthNm)} × ${thickness}`],
      ["Grain", form.grain ? "along the length" : "none"],
      ...cutFrom,
      ...uniqueNames(notes),
    ];
  }
  return [...stock, ["Count", String(row.count)], ...notes];
}

/** Stock and material, each with who chose it; what nobody in the job chose says so. */
function stockFacts(row: TallyRow, { job, selected, stockroom }: DeskState): readonly Fact[] {
  const id = [...selected].find((one) => row.pieces.some((piece) => piece.id === one)) ?? row.shown.id;
  const entry =
    row.stock === null
      ? undefined
      : (stockroom.sectionById.get(row.stock) ?? stockroom.boardById.get(row.stock));
  const by = chosenBy(job, id, entry?.material ?? null);
  const stock = row.stockName ?? "none chosen";
  if (!by || row.kind === "bought") return [["Stock", [stock, row.material].filter(Boolean).join(", ")]];
  return [
    ["Stock", `${stock}${by.stock.kind === "own" ? "" : ` · ${byWords(by.stock)}`}`],
    ["Material", `${row.material ?? "none"} · ${byWords(by.material)}`],
  ];
}

function byWords(by: Chooser): string {
  switch (by.kind) {
    case "own":
      return "set here";
    case "assembly":
      return `default of ${by.name}`;
    case "job":
      return "default of this job";
    case "stock":
      return "assumed, the stock's own";
    case "nobody":
      return "not set";
    default:
      return by satisfies never;
  }
}

const uniqueNames = (notes: readonly Fact[]): readonly Fact[] =>
  notes.map(([name, value], i) => [i === 0 ? name : `${name} ${i + 1}`, value]);

function massWords(row: TallyRow, { stockroom }: DeskState): string {
  const entry = row.stock === null ? undefined : stockroom.sectionById.get(row.stock);
  const perMetre = entry ? sectionMass(stockroom, entry, row.material) : null;
  if (perMetre === null || row.shown.form.kind !== "member") return "unknown";
  const each = `${formatDecimal((fromNm(row.shown.form.centreNm) / 1000) * perMetre.value, 2)} kg each`;
  return perMetre.by === null ? each : `${each}, by the ${perMetre.by}`;
}

function cutFromFact(row: TallyRow, { results, layouts }: DeskState): readonly Fact[] {
  const task = results.tasks.find((one) => one.rows.some((other) => other.id === row.id));
  const found = task ? savedFor(task, layouts) : null;
  if (!found) return [["Cut from", "no layout yet"]];
  const { saved, outdated } = found;
  const index = saved.pieces.findIndex((piece) => piece.mark === row.mark);
  const places = placesOf(saved, index);
  return [["Cut from", `${places.join(", ") || "not placed"}${outdated ? " (outdated)" : ""}`]];
}

/** The patterns or sheets that a piece is cut from. */
function placesOf(saved: SavedLayout, piece: number): readonly string[] {
  const kind = layoutKind(saved);
  // A bar stands for all that are cut like it.
  const name = kind.noun === "bar" ? "pattern" : kind.noun;
  return kind
    .used(saved.layout)
    .flatMap(({ pieces }, i) => (pieces.includes(piece) ? [`${name} ${i + 1}`] : []));
}
