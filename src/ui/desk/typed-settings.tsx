"use client";
/** What can be set on pieces of a cutting list that nobody drew: stock, size, edging, how many. */
import { PANEL_EDGES, type PanelEdge, type SimpleEdit, type TypedPiece, UNNAMED_EDGING } from "@/core/job";
import { sentence } from "@/core/kernel";
import { parseLength, sayLength } from "@/core/measure";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "./desk-context";
import { LeaveOut, shared, submitEach } from "./shared-fields";

const GRID = "grid grid-cols-3 gap-x-3 gap-y-1.5";

type TypedPanel = Extract<TypedPiece, { readonly kind: "panel" }>;

export function TypedSettings({ typed }: { readonly typed: readonly TypedPiece[] }) {
  const desk = useDesk();
  const { sections, boards } = useDeskState((state) => state.stockroom);
  const ids = typed.map(({ id }) => id as string);
  const [only] = typed.length === 1 ? typed : [];
  const panels = typed.flatMap((piece) => (piece.kind === "panel" ? [piece] : []));
  const asPanel = typed.every((piece) => piece.kind === "panel");
  const entries = asPanel ? boards : sections;
  const count = (text: string): string | null => {
    const quantity = Number(text);
    if (!Number.isInteger(quantity) || quantity < 1 || quantity > 100_000)
      return "A whole number from 1 to 100,000.";
    return desk.submit({ kind: "changeTypedPieces", ids, set: { quantity } });
  };
  return (
    <div className={GRID}>
      {typed.every((piece) => piece.kind === typed[0]?.kind && piece.kind !== "other") ? (
        <Chooser
          label={asPanel ? "Board" : "Section"}
          value={shared(typed.map((piece) => piece.stock ?? ""))}
          placeholder="mixed values"
          choices={[
            { value: "", label: only?.stockText ? `as typed: ${only.stockText}` : "none chosen" },
            ...entries.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChoose={(id) =>
            desk.submit({ kind: "changeTypedPieces", ids, set: { stock: id === "" ? null : id } })
          }
        />
      ) : null}
      {only ? (
        <TextField
          label="Name"
          value={only.name}
          onCommit={(name) =>
            name.trim() === ""
              ? "Enter a name."
              : desk.submit({ kind: "changeTypedPieces", ids, set: { name: name.trim().slice(0, 80) } })
          }
        />
      ) : null}
      {only ? <TextField label="Count" value={String(only.quantity)} onCommit={count} /> : null}
      {only ? <TypedSizes piece={only} /> : null}
      {panels.length === typed.length ? <TypedEdging panels={panels} /> : null}
      <TextField
        label="Material (empty: from stock)"
        value={shared(typed.map((piece) => piece.material)) ?? ""}
        placeholder="as the stock's"
        onCommit={(text) =>
          desk.submit({
            kind: "changeTypedPieces",
            ids,
            set: { material: text.trim() === "" ? null : text.trim().slice(0, 60) },
          })
        }
      />
      <div className="self-end">
        <LeaveOut
          leftOut={typed.every((piece) => piece.leftOut)}
          onChange={(leftOut) => desk.submit({ kind: "changeTypedPieces", ids, set: { leftOut } })}
        />
        <Button look="danger" onClick={() => desk.submit({ kind: "removeTypedPieces", ids })}>
          Remove
        </Button>
      </div>
    </div>
  );
}

/** Length, and of a panel its width, written as the job writes lengths. */
function TypedSizes({ piece }: { readonly piece: TypedPiece }) {
  const desk = useDesk();
  const { unit, format } = useDeskState((state) => state.job.info.job);
  if (piece.kind === "other") return null;
  const field = (label: string, name: "length" | "width", mm: number) => (
    <TextField
      label={label}
      value={sayLength(mm, { unit, format })}
      onCommit={(text) => {
        const read = parseLength(text, unit);
        if (!read.ok) return sentence(read.problem);
        if (!(read.value > 0)) return "It must be greater than 0.";
        return desk.submit({ kind: "changeTypedPieces", ids: [piece.id], set: { [name]: read.value } });
      }}
    />
  );
  return (
    <>
      {field("Length", "length", piece.length)}
      {piece.kind === "panel" ? field("Width", "width", piece.width) : null}
    </>
  );
}

const tapeOf = (panel: TypedPanel, edge: PanelEdge): string =>
  panel.edged.includes(edge) ? (panel.edgingTexts?.[edge] ?? panel.edgingText ?? UNNAMED_EDGING) : "";

/** The panel with another tape on one edge; the words of the list stay on the others. */
function withTape(panel: TypedPanel, edge: PanelEdge, tape: string): SimpleEdit {
  const tapes = PANEL_EDGES.flatMap((one) => {
    const text = one === edge ? tape : tapeOf(panel, one);
    return text === "" ? [] : [[one, text] as const];
  });
  const set = {
    edged: tapes.map(([one]) => one),
    edgingText: null,
    edgingTexts: Object.fromEntries(tapes.filter(([, text]) => text !== UNNAMED_EDGING)),
  };
  return { kind: "changeTypedPieces", ids: [panel.id], set };
}

/** Which edges of read or typed-in panels are edged, and with what. */
function TypedEdging({ panels }: { readonly panels: readonly TypedPanel[] }) {
  const desk = useDesk();
  const edging = useDeskState((state) => state.stockroom.edging);
  const set = (edge: PanelEdge, tape: string) => {
    const edits = panels.map((panel) => withTape(panel, edge, tape));
    submitEach(desk, `Edge ${edits.length} panels`, edits);
  };
  return PANEL_EDGES.map((edge) => {
    const value = shared(panels.map((panel) => tapeOf(panel, edge)));
    const known = edging.map(({ name }) => ({ value: name, label: name }));
    const own = value && !known.some((one) => one.value === value) ? [{ value, label: value }] : [];
    return (
      <Chooser
        key={edge}
        label={`Edging, ${edge}`}
        value={value}
        placeholder="mixed values"
        choices={[{ value: "", label: "none" }, ...own, ...known]}
        onChoose={(tape) => set(edge, tape)}
      />
    );
  });
}
