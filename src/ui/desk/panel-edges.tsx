"use client";
/** The edging of panels, each edge by its own name and by what it is where the panel stands, with a small picture of the panel. */
import { PANEL_EDGES, type Panel, type PanelEdge, type SimpleEdit } from "@/core/job";
import { type PanelSolid, panelSolid, type StandingEdge, standingEdges } from "@/core/shape";
import { Chooser } from "../common/chooser";
import { useDesk, useDeskState } from "./desk-context";
import { shared, submitEach } from "./shared-fields";

/** What the edges are called where the panel stands; null: by no other names than their own. */
export type EdgeWords = Readonly<Record<PanelEdge, StandingEdge>> | null;

/** The words that all of these panels share. */
export function useEdgeWords(panels: readonly Panel[]): EdgeWords {
  const shape = useDeskState((state) => state.results.shape);
  return shared(
    panels.map(({ id }) => {
      const solid = panelSolid(shape, id);
      return solid ? standingEdges(solid.frame) : null;
    }),
  );
}

/** "front", and where it stands otherwise "front (top)". */
export const edgeName = (edge: PanelEdge, words: EdgeWords): string =>
  words && words[edge] !== edge ? `${edge} (${words[edge]})` : edge;

export function PanelEdges({ panels }: { readonly panels: readonly Panel[] }) {
  const desk = useDesk();
  const edging = useDeskState((state) => state.stockroom.edging);
  const shape = useDeskState((state) => state.results.shape);
  const words = useEdgeWords(panels);
  const [first] = panels;
  const only = first && panels.length === 1 ? panelSolid(shape, first.id) : null;
  /** The edge of each of them, whatever their other edges have. */
  const setEdge = (edge: PanelEdge, id: string) => {
    const edits = panels.map((panel): SimpleEdit => {
      const set = { edging: { ...panel.edging, [edge]: id === "" ? null : id } };
      return { kind: "changePanels", ids: [panel.id], set };
    });
    return submitEach(desk, `Edge ${edits.length} panels`, edits);
  };
  return (
    <section aria-label="Edging" className="col-span-3 flex items-start gap-3">
      {only ? <PanelPicture solid={only} words={words} /> : null}
      <div className="grid min-w-0 flex-1 grid-cols-2 gap-x-3 gap-y-1.5">
        {PANEL_EDGES.map((edge) => (
          <Chooser
            key={edge}
            label={`Edging, ${edgeName(edge, words)}`}
            value={shared(panels.map((panel) => panel.edging[edge] ?? ""))}
            placeholder="mixed values"
            choices={[
              { value: "", label: "none" },
              ...edging.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChoose={(id) => setEdge(edge, id)}
          />
        ))}
      </div>
    </section>
  );
}

const ROOM = { width: 132, height: 84 } as const;

/** The good face of a panel with the names of its edges; edged ones are drawn heavy. */
function PanelPicture({ solid, words }: { readonly solid: PanelSolid; readonly words: EdgeWords }) {
  const { length, width, panel } = solid;
  const scale = Math.min(ROOM.width / length, ROOM.height / width);
  const [w, h] = [Math.max(22, length * scale), Math.max(22, width * scale)];
  const [x, y] = [54 + (ROOM.width - w) / 2, 18 + (ROOM.height - h) / 2];
  const name = (edge: PanelEdge) => (words && words[edge] !== edge ? words[edge] : edge);
  const sides = [
    { edge: "front", line: [x, y + h, x + w, y + h], at: [x + w / 2, y + h + 13], anchor: "middle" },
    { edge: "back", line: [x, y, x + w, y], at: [x + w / 2, y - 6], anchor: "middle" },
    { edge: "left", line: [x, y, x, y + h], at: [x - 6, y + h / 2 + 4], anchor: "end" },
    { edge: "right", line: [x + w, y, x + w, y + h], at: [x + w + 6, y + h / 2 + 4], anchor: "start" },
  ] as const;
  return (
    <svg
      role="img"
      aria-label={`Good face: ${PANEL_EDGES.map((edge) => `${edge} edge ${name(edge)}${panel.edging[edge] === null ? "" : ", edged"}`).join("; ")}`}
      viewBox={`0 0 ${ROOM.width + 108} ${ROOM.height + 38}`}
      className="h-[122px] w-[240px] shrink-0 rounded-sm border border-seam bg-leaf"
    >
      <rect x={x} y={y} width={w} height={h} className="fill-board stroke-ink-soft" />
      <text x={x + w / 2} y={y + h / 2 + 4} textAnchor="middle" className="fill-ink-soft text-[11px]">
        good face
      </text>
      {sides.map(({ edge, line: [x1, y1, x2, y2], at: [tx, ty], anchor }) => (
        <g key={edge}>
          {panel.edging[edge] === null ? null : (
            <line x1={x1} y1={y1} x2={x2} y2={y2} strokeWidth={3} className="stroke-enamel" />
          )}
          <text x={tx} y={ty} textAnchor={anchor} className="fill-ink font-table text-[12px]">
            {name(edge)}
          </text>
        </g>
      ))}
    </svg>
  );
}
