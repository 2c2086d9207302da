/** The tally as data (docs/formats.md): lengths in millimetres, angles in degrees from square. */
import { kindOf } from "@/core/ends";
import type { Job } from "@/core/job";
import { fromNm } from "@/core/kernel";
import {
  type CornerForm,
  type Form,
  type MemberForm,
  standOfForm,
  type Tally,
  type TallyRow,
} from "@/core/tally";

const EDGES = ["front", "back", "left", "right"] as const;

export function tallyToJson(job: Job, tally: Tally) {
  return {
    unit: "mm" as const,
    job: { code: job.info.job.code, title: job.info.job.title, batch: tally.batch },
    rows: tally.rows.map((row) => rowToJson(row, tally.batch)),
    checks: tally.checks.map(({ kind, severity, marks, message, records, listRow }) => ({
      kind,
      severity,
      marks,
      message,
      records,
      ...listRow,
    })),
    balance: tally.balance,
  };
}

function rowToJson(row: TallyRow, batch: number) {
  const { form } = row.shown;
  return {
    mark: row.mark === "" ? null : row.mark,
    name: row.name,
    kind: row.kind,
    count: row.count,
    hands: row.hands,
    stock: row.stockName,
    section:
      form.kind === "member" && form.shape ? { kind: form.shape.kind, size: [...form.shape.size] } : null,
    material: row.material,
    ...sizes(form),
    ...ends(form),
    ...panelFacts(form),
    typed: row.typed,
    pieces: pieceIds(row, batch),
  };
}

function sizes(form: Form) {
  switch (form.kind) {
    case "member":
      return {
        length: fromNm(form.cutNm),
        longestEdge: fromNm(form.longestNm),
        shortestEdge: fromNm(form.shortestNm),
        width: null,
        thickness: null,
      };
    case "panel":
      return {
        length: fromNm(form.lengthNm),
        width: fromNm(form.widthNm),
        thickness: form.thicknessNm === null ? null : fromNm(form.thicknessNm),
      };
    case "none":
      return { length: null, width: null, thickness: null };
    default:
      return form satisfies never;
  }
}

function ends(form: Form) {
  if (form.kind !== "member") return { ends: null, stand: null, turn: 0 };
  const stand = standOfForm(form);
  return {
    ends: form.ends.map((end) => kindOf(end).record(end)),
    stand: stand.kind,
    turn: stand.turn,
  };
}

/** Holes from the tip of the first end; `across` from the middle of the face. */
const memberWork = ({ holes, notches }: MemberForm) => [
  ...holes.map((hole) => ({
    kind: "hole" as const,
    face: hole.face,
    along: fromNm(hole.fromTip),
    across: fromNm(hole.across),
    diameter: fromNm(hole.diameterNm),
    slot: hole.slotNm > hole.diameterNm ? fromNm(hole.slotNm) : null,
    walls: hole.through ? ("all" as const) : ("one" as const),
  })),
  ...notches.map(({ end, face, depthNm, lengthNm }) => ({
    kind: "notch" as const,
    end: end + 1,
    face,
    depth: fromNm(depthNm),
    length: fromNm(lengthNm),
  })),
];

const cornersOf = (corners: readonly CornerForm[]) =>
  corners.map(({ x, y, radiusNm }) => ({ x: fromNm(x), y: fromNm(y), radius: fromNm(radiusNm) }));

function panelFacts(form: Form) {
  if (form.kind !== "panel")
    return {
      grain: null,
      goodFace: false,
      outline: null,
      edging: [],
      work: form.kind === "member" ? memberWork(form) : [],
    };
  return {
    grain: form.grain,
    goodFace: form.goodFace,
    outline: form.outline && cornersOf(form.outline),
    edging: EDGES.filter((edge) => form.edging[edge] !== null),
    work: [
      ...form.grooves.map((groove) => ({
        kind: "groove" as const,
        face: groove.face,
        x: [fromNm(groove.x0), fromNm(groove.x1)],
        y: [fromNm(groove.y0), fromNm(groove.y1)],
        depth: fromNm(groove.depthNm),
      })),
      ...form.holes.map((hole) => ({
        kind: "hole" as const,
        face: hole.depthNm === null ? null : hole.face,
        x: fromNm(hole.x),
        y: fromNm(hole.y),
        diameter: fromNm(hole.diameterNm),
        depth: hole.depthNm === null ? null : fromNm(hole.depthNm),
      })),
      ...form.notches.map((notch) => ({
        kind: "notch" as const,
        x: [fromNm(notch.x0), fromNm(notch.x1)],
        y: [fromNm(notch.y0), fromNm(notch.y1)],
      })),
      ...form.cutOuts.map((corners) => ({ kind: "cutOut" as const, corners: cornersOf(corners) })),
    ],
  };
}

/** One id a piece: the record's own, numbered from the second on; both hands of one record go on counting. */
function pieceIds({ pieces }: TallyRow, batch: number): readonly string[] {
  const given = new Map<string, number>();
  return pieces.flatMap(({ id, quantity }) => {
    const before = given.get(id) ?? 0;
    given.set(id, before + quantity * batch);
    return Array.from({ length: quantity * batch }, (_, i) =>
      before + i === 0 ? id : `${id}#${before + i + 1}`,
    );
  });
}
