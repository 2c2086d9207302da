/**
 * Groove settings of one sheet: each groove told from both edges, since the operator may turn the board. Panels that are
 * kept together and carry the same groove across take it once, while their blank is still whole.
 */
import { at, fromNm } from "../kernel";
import { pieceKey, type RowFinder, type SavedSheets } from "../layout";
import { movedTogether } from "../layout/sheets";
import type { GrooveForm, PanelForm } from "../tally";

export type GrooveRun = {
  /** mm from either edge to the nearer side of the groove. */
  readonly settings: readonly [number, number];
  readonly edges: readonly [string, string];
  readonly width: number;
  readonly depth: number;
  /** "C × 2". */
  readonly panels: string;
  /** Placements of the blank that is still whole, by their place in the sheet's list; null: single panels. */
  readonly before: readonly number[] | null;
};

export function grooveRuns(
  { problem, layout, pieces }: SavedSheets,
  sheet: number,
  rowOf: RowFinder,
): readonly GrooveRun[] {
  const { placements } = at(layout.sheets, sheet);
  const formOf = (panel: number): PanelForm | null => {
    const form = rowOf(at(pieces, panel))?.shown.form;
    return form?.kind === "panel" ? form : null;
  };
  const runs = new Map<string, GrooveRun>();
  const singles = new Map<string, { run: Omit<GrooveRun, "panels">; marks: string[] }>();
  placements.forEach((one, i) => {
    const form = formOf(one.panel);
    if (!form) return;
    const group = one.together ? at(problem.together, one.together.group) : null;
    const members = movedTogether(at(layout.sheets, sheet), i);
    for (const groove of form.grooves) {
      const { alongLength, ...told } = fromBothEdges(form, groove);
      const all = members.map((k) => formOf(at(placements, k).panel));
      const across =
        group?.along === (alongLength ? "length" : "width") &&
        all.every((other) => other && carries(other, groove));
      if (across) {
        const key = `${members.join()}:${told.settings.join()}:${told.depth}`;
        const marks = members.map((k) => pieceKey(at(pieces, at(placements, k).panel)));
        if (!runs.has(key)) runs.set(key, { ...told, panels: marks.join(" + "), before: members });
        continue;
      }
      const key = `${one.panel}:${told.settings.join()}:${told.edges.join()}:${told.depth}`;
      const known = singles.get(key);
      if (known) known.marks.push(pieceKey(at(pieces, one.panel)));
      else singles.set(key, { run: { ...told, before: null }, marks: [pieceKey(at(pieces, one.panel))] });
    }
  });
  return [
    ...runs.values(),
    ...[...singles.values()].map(({ run, marks }) => ({
      ...run,
      panels: marks.length === 1 ? at(marks, 0) : `${at(marks, 0)} × ${marks.length}`,
    })),
  ];
}

/** The same groove at the same place: mirrored sides carry it at the same distance from their ends. */
const carries = (form: PanelForm, groove: GrooveForm) =>
  form.grooves.some(
    (other) =>
      other.depthNm === groove.depthNm &&
      ((other.x0 === groove.x0 && other.x1 === groove.x1) ||
        (other.y0 === groove.y0 && other.y1 === groove.y1)),
  );

/** A groove told from both edges that it runs along, since the board may be turned on the saw. */
export function fromBothEdges(form: PanelForm, groove: GrooveForm) {
  const alongLength = groove.x1 - groove.x0 > groove.y1 - groove.y0;
  const [low, high, across] = alongLength
    ? [groove.y0, groove.y1, form.widthNm]
    : [groove.x0, groove.x1, form.lengthNm];
  const edges = alongLength ? (["front", "back"] as const) : (["left", "right"] as const);
  return {
    settings: [fromNm(low), fromNm(across - high)] as const,
    edges,
    width: fromNm(high - low),
    depth: fromNm(groove.depthNm),
    alongLength,
    /** The edge that it stands at, where it is a rebate. */
    rebate: low <= 0 ? edges[0] : high >= across ? edges[1] : null,
  };
}
