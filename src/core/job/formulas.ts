/**
 * Where formulas stand in the records of a job: one way through all of them, for renaming a key size and
 * for finding what uses it.
 */
import type { Assembly, Placement } from "./assembly";
import type { BoughtPart, StandIn } from "./bought-part";
import { withCutTexts } from "./end-cuts";
import type { Point } from "./frame";
import type { Job } from "./job";
import type { KeySize, Variant } from "./key-size";
import type { Member } from "./member";
import { withWorkTexts } from "./member-work";
import type { OutlineCorner, Panel, Work } from "./panel";

export type ChangeText = (text: string) => string;
type Three = [string, string, string];

const orNull = (text: string | null, change: ChangeText) => (text === null ? null : change(text));
const three = ([x, y, z]: readonly [string, string, string], change: ChangeText): Three => [
  change(x),
  change(y),
  change(z),
];

const inKeySize = (size: KeySize, change: ChangeText): KeySize => ({
  ...size,
  formula: change(size.formula),
  least: orNull(size.least, change),
  greatest: orNull(size.greatest, change),
});

const inVariant = (variant: Variant, change: ChangeText): Variant => ({
  ...variant,
  formulas: Object.fromEntries(Object.entries(variant.formulas).map(([name, text]) => [name, change(text)])),
});

const inPoint = (point: Point, change: ChangeText): Point => ({ ...point, at: three(point.at, change) });

const inMember = (member: Member, change: ChangeText): Member => ({
  ...member,
  roll: change(member.roll),
  when: orNull(member.when, change),
  start: withCutTexts(member.start, change),
  end: withCutTexts(member.end, change),
  work: member.work.map((one) => withWorkTexts(one, change)),
});

function inWork(work: Work, change: ChangeText): Work {
  switch (work.kind) {
    case "groove":
      return {
        ...work,
        distance: change(work.distance),
        width: change(work.width),
        depth: change(work.depth),
        stopAtStart: change(work.stopAtStart),
        stopAtEnd: change(work.stopAtEnd),
      };
    case "hole":
      return {
        ...work,
        x: change(work.x),
        y: change(work.y),
        diameter: change(work.diameter),
        depth: orNull(work.depth, change),
        count: change(work.count),
        step: change(work.step),
      };
    case "notch":
      return {
        ...work,
        distance: change(work.distance),
        width: change(work.width),
        depth: change(work.depth),
      };
    case "cutOut":
      return { ...work, corners: work.corners.map((corner) => inCorner(corner, change)) };
    default:
      return work satisfies never;
  }
}

const inCorner = (corner: OutlineCorner, change: ChangeText): OutlineCorner => ({
  ...corner,
  x: change(corner.x),
  y: change(corner.y),
  radius: change(corner.radius),
});

const inPanel = (panel: Panel, change: ChangeText): Panel => ({
  ...panel,
  origin: three(panel.origin, change),
  lengthAxis: three(panel.lengthAxis, change),
  faceAxis: three(panel.faceAxis, change),
  length: change(panel.length),
  width: change(panel.width),
  tilt: panel.tilt && { ...panel.tilt, angle: change(panel.tilt.angle) },
  between: panel.between && {
    ...panel.between,
    reachFirst: change(panel.between.reachFirst),
    reachSecond: change(panel.between.reachSecond),
    distance: change(panel.between.distance),
    insetStart: change(panel.between.insetStart),
    insetEnd: change(panel.between.insetEnd),
  },
  outline: panel.outline?.map((corner) => inCorner(corner, change)) ?? null,
  when: orNull(panel.when, change),
  work: panel.work.map((one) => inWork(one, change)),
});

function inStandIn(standIn: StandIn, change: ChangeText): StandIn {
  if (standIn.kind === "box") return { ...standIn, size: three(standIn.size, change) };
  if (standIn.kind === "shape") return standIn;
  return { ...standIn, diameter: change(standIn.diameter), height: change(standIn.height) };
}

const inBoughtPart = (part: BoughtPart, change: ChangeText): BoughtPart => ({
  ...part,
  count: change(part.count),
  length: orNull(part.length, change),
  when: orNull(part.when, change),
  stand: part.stand && {
    at: three(part.stand.at, change),
    turn: three(part.stand.turn, change),
    step: three(part.stand.step, change),
    as: inStandIn(part.stand.as, change),
  },
});

const inPlacement = (placement: Placement, change: ChangeText): Placement => ({
  ...placement,
  at: three(placement.at, change),
  turn: three(placement.turn, change),
  count: change(placement.count),
  step: three(placement.step, change),
  when: orNull(placement.when, change),
});

function mapped<T>(records: Readonly<Record<string, T>>, change: (record: T) => T): Record<string, T> {
  return Object.fromEntries(
    Object.entries(records).map(([id, record]) => {
      const next = change(record);
      return [id, JSON.stringify(record) === JSON.stringify(next) ? record : next];
    }),
  );
}

/** The document with every formula text changed; records whose texts stay the same stay the same objects. */
export function withFormulas(job: Job, change: ChangeText): Job {
  return {
    ...job,
    keySizes: mapped(job.keySizes, (size) => inKeySize(size, change)),
    variants: mapped(job.variants, (variant) => inVariant(variant, change)),
    points: mapped(job.points, (point) => inPoint(point, change)),
    members: mapped(job.members, (member) => inMember(member, change)),
    panels: mapped(job.panels, (panel) => inPanel(panel, change)),
    boughtParts: mapped(job.boughtParts, (part) => inBoughtPart(part, change)),
    placements: mapped(job.placements, (placement) => inPlacement(placement, change)),
  };
}

/** What a person calls each thing that holds formulas, in the order of the ledger. */
export function formulaHolders(
  job: Job,
): readonly { readonly words: string; readonly texts: readonly string[] }[] {
  const texts = (visit: (note: ChangeText) => unknown): readonly string[] => {
    const found: string[] = [];
    visit((text) => {
      found.push(text);
      return text;
    });
    return found;
  };
  const all = <T>(records: Readonly<Record<string, T>>) => Object.values(records);
  const named = (placement: Placement) =>
    (job.assemblies as Readonly<Record<string, Assembly>>)[placement.assembly]?.name ?? "an assembly";
  return [
    ...all(job.keySizes).map((size) => ({
      words: `key size ${size.name}`,
      texts: texts((note) => inKeySize(size, note)),
    })),
    ...all(job.points).map((point) => ({
      words: `point ${point.name}`,
      texts: texts((note) => inPoint(point, note)),
    })),
    ...all(job.members).map((member) => ({
      words: member.name,
      texts: texts((note) => inMember(member, note)),
    })),
    ...all(job.panels).map((panel) => ({ words: panel.name, texts: texts((note) => inPanel(panel, note)) })),
    ...all(job.boughtParts).map((part) => ({
      words: part.name,
      texts: texts((note) => inBoughtPart(part, note)),
    })),
    ...all(job.placements).map((placement) => ({
      words: `where ${named(placement)} stands`,
      texts: texts((note) => inPlacement(placement, note)),
    })),
  ];
}
