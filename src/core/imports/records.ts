/**
 * What was found as ordinary records of a job: members on lines with free ends, panels, bought parts, assemblies with their
 * placements. Ends are joined to what they meet afterwards (`joins.ts`).
 */

import { AT_HOME, type Frame, frameIn, toWorld, turned, type Vec3 } from "../geometry";
import {
  type Asset,
  assetIdOf,
  type BoughtPart,
  cornerFromLeft,
  type Home,
  type Job,
  type Look,
  MOST_CORNERS,
  MOST_WORK,
  newAssembly,
  newBoughtPart,
  newPanel,
  newPlacement,
  type Panel,
  panelHolesInRows,
  textOf,
  type Work,
} from "../job";
import { grouped } from "../kernel";
import { type LengthUnit, MM_PER_UNIT, roundTo, toDegrees } from "../measure";
import type { ReadMember, ReadPanel } from "../recognise";
import type { Stockroom } from "../stockroom";
import { type FoundFile, type FoundPart, MOST_LEVELS, readingFor } from "./found";
import { looksOf } from "./looks";
import { type EnteredMember, memberFrom, type NewId, nameText } from "./member-record";
import { boardKey, sectionKey, type Ways, wayOf } from "./stock";

export type ImportChoices = {
  readonly ways: Ways;
  /** Entries of the stockroom by the keys of needed sections and boards; what is not here stays without. */
  readonly sections: ReadonlyMap<string, string>;
  readonly boards: ReadonlyMap<string, string>;
};

export type Entered = {
  readonly members: readonly EnteredMember[];
  readonly panels: readonly Panel[];
  readonly boughtParts: readonly BoughtPart[];
  readonly assemblies: Job["assemblies"][string][];
  readonly placements: Job["placements"][string][];
  readonly assets: readonly Asset[];
};

/** All that enters. Products that hold others become assemblies; those that stand in nothing stand in the job itself. */
export function enteredOf(
  file: FoundFile,
  { ways, sections, boards }: ImportChoices,
  {
    stockroom,
    unit,
    newId,
  }: { readonly stockroom: Stockroom; readonly unit: LengthUnit; readonly newId: NewId },
): Entered {
  const products = new Map(file.products.map((product) => [product.id, product]));
  const within = grouped(file.uses, ({ parent }) => parent);
  const assemblyOf = new Map<number, string>();
  const members: EnteredMember[] = [];
  const panels: Panel[] = [];
  const boughtParts: BoughtPart[] = [];
  const assemblies: Job["assemblies"][string][] = [];
  const placements: Job["placements"][string][] = [];
  const assets = new Map<string, Asset>();
  const text = inUnit(unit);
  const texts = (place: Vec3): [string, string, string] => [text(place[0]), text(place[1]), text(place[2])];
  const plain = (value: number) => textOf(roundTo(value, 12));

  const looks = looksOf(file);
  const enterPart = (part: FoundPart, name: string, material: string | null, frame: Frame, home: Home) => {
    const read = readingFor(part, wayOf(ways, part.key));
    if (!read) return;
    const look = looks.get(part.key) ?? null;
    switch (read.kind) {
      case "member": {
        const section = sections.get(sectionKey(read.shape, material)) ?? null;
        const entry = section === null ? undefined : stockroom.sectionById.get(section);
        members.push(
          memberFrom(newId("member"), read, {
            name,
            look,
            section,
            material,
            frame,
            home,
            entry: entry?.shape ?? null,
            unit,
            newId,
          }),
        );
        return;
      }
      case "panel":
        panels.push(
          panelFrom(newId("panel"), read, {
            name,
            look,
            board: boards.get(boardKey(read.thickness, material)) ?? null,
            material,
            frame,
            home,
            text,
            texts,
            plain,
            unit,
            newId,
          }),
        );
        return;
      case "other": {
        const foot: Vec3 = [(part.low[0] + part.high[0]) / 2, (part.low[1] + part.high[1]) / 2, part.low[2]];
        const asset: Asset | null = part.triangles && {
          kind: "shape",
          triangles: part.triangles.map((value, i) => roundTo(value - (foot[(i % 3) as 0 | 1 | 2] ?? 0), 4)),
        };
        if (asset) assets.set(assetIdOf(asset), asset);
        const size: Vec3 = [
          part.high[0] - part.low[0],
          part.high[1] - part.low[1],
          part.high[2] - part.low[2],
        ];
        boughtParts.push(
          newBoughtPart(newId("bought"), {
            name,
            look,
            entry: entryNamed(name, stockroom),
            count: "1",
            assembly: home,
            note: part.gaps.length > 0 ? "No solid in the file: its shape is open." : "",
            stand: {
              at: texts(toWorld(frame, foot)),
              turn: turnTexts(frame),
              step: ["0", "0", "0"],
              as: asset
                ? { kind: "shape", name: name.slice(0, 80), asset: assetIdOf(asset) }
                : { kind: "box", size: texts(size.map((one) => Math.max(one, 1)) as unknown as Vec3) },
            },
          }),
        );
        return;
      }
      default:
        return read satisfies never;
    }
  };

  const enterContents = (id: number, frame: Frame, home: Home, depth: number) => {
    const product = products.get(id);
    if (!product || depth > MOST_LEVELS) return;
    for (const [i, part] of product.parts.entries())
      enterPart(
        part,
        partName(part.name, product.name, product.parts.length, i),
        product.material,
        frame,
        home,
      );
    for (const use of within.get(id) ?? []) {
      const place = frameIn(frame, use.frame);
      const child = products.get(use.child);
      if (!child) continue;
      if (!within.has(use.child)) {
        enterContents(use.child, place, home, depth + 1);
        continue;
      }
      const known = assemblyOf.get(use.child);
      const assembly = known ?? newId("assembly");
      if (known === undefined) {
        assemblyOf.set(use.child, assembly);
        assemblies.push(newAssembly(assembly, { name: nameText(child.name, "Assembly") }));
        enterContents(use.child, AT_HOME.frame, assembly as Home, depth + 1);
      }
      placements.push(
        newPlacement(newId("placement"), {
          assembly,
          into: home,
          at: texts(place.origin),
          turn: turnTexts(place),
        }),
      );
    }
  };
  for (const root of file.roots) enterContents(root, AT_HOME.frame, null, 0);
  return { members, panels, boughtParts, assemblies, placements, assets: [...assets.values()] };
}

/** Solids are often called as what they are: "SOLID", or nothing. */
export function partName(own: string, product: string, count: number, index: number): string {
  const isPlain = /^(#\d+|solid|body|brep|none|manifold.*|)$/i.test(own.trim());
  if (!isPlain) return nameText(own, product);
  const base = nameText(product, "Part");
  return count > 1 ? `${base.slice(0, 54)} ${index + 1}` : base;
}

const entryNamed = (name: string, { bought }: Stockroom): string | null =>
  bought.find((entry) => entry.name.trim().toLowerCase() === name.trim().toLowerCase())?.id ?? null;

/** Degrees about width, depth and height, in this order, that turn a right-handed frame from where it would stand unturned. */
function turnTexts({ x, y, z }: Frame): [string, string, string] {
  const depth = Math.asin(Math.min(1, Math.max(-1, -x[2])));
  const isUpright = Math.abs(x[2]) > 1 - 1e-12;
  const width = isUpright ? 0 : Math.atan2(y[2], z[2]);
  const height = isUpright ? Math.atan2(-y[0], y[1]) : Math.atan2(x[1], x[0]);
  const degrees = (angle: number) => textOf(roundTo(toDegrees(angle), 9));
  return [degrees(width), degrees(depth), degrees(height)];
}

type PanelPlace = {
  readonly name: string;
  readonly look: Look | null;
  readonly board: string | null;
  readonly material: string | null;
  readonly frame: Frame;
  readonly home: Home;
  readonly unit: LengthUnit;
  readonly text: (mm: number) => string;
  readonly texts: (place: Vec3) => [string, string, string];
  readonly plain: (value: number) => string;
  readonly newId: NewId;
};

function panelFrom(
  id: string,
  read: ReadPanel,
  { name, look, board, material, frame, home, unit, text, texts, plain, newId }: PanelPlace,
): Panel {
  const way = (direction: Vec3): [string, string, string] => {
    const [a, b, c] = turned(frame, direction);
    return [plain(a), plain(b), plain(c)];
  };
  return newPanel(id, {
    name: nameText(name, "Panel"),
    look,
    board,
    material: board === null ? material : null,
    assembly: home,
    origin: texts(toWorld(frame, read.origin)),
    lengthAxis: way(read.x),
    faceAxis: way(read.face),
    length: text(read.length),
    width: text(read.width),
    grain: "any",
    outline: read.outline?.map((one) => cornerFromLeft(one, text, () => newId("corner"))) ?? null,
    work: panelWork(read, unit, newId),
  });
}

const inUnit =
  (unit: LengthUnit) =>
  (mm: number): string =>
    textOf(roundTo(mm / MM_PER_UNIT[unit], 7));

/** The work of a panel that was read, holes at even steps as rows. */
function panelWork(read: ReadPanel, unit: LengthUnit, newId: NewId): Work[] {
  const text = inUnit(unit);
  const holes = read.holes.map((hole) => ({
    id: newId("work"),
    kind: "hole" as const,
    face: hole.face,
    x: text(hole.x),
    y: text(hole.y),
    diameter: text(hole.diameter),
    depth: hole.depth === null ? null : text(hole.depth),
    count: "1",
    step: "0",
    along: "length" as const,
  }));
  const grooves = read.grooves.map(({ face, x0, x1, y0, y1, depth }) => {
    const isLong = x1 - x0 >= y1 - y0;
    return {
      id: newId("work"),
      kind: "groove" as const,
      face,
      from: isLong ? ("front" as const) : ("left" as const),
      distance: text(isLong ? y0 : x0),
      width: text(isLong ? y1 - y0 : x1 - x0),
      depth: text(depth),
      stopAtStart: text(isLong ? x0 : y0),
      stopAtEnd: text(isLong ? read.length - x1 : read.width - y1),
    };
  });
  const cutOuts = read.cutOuts.map((corners) => ({
    id: newId("work"),
    kind: "cutOut" as const,
    corners: corners.map((one) => cornerFromLeft(one, text, () => newId("corner"))),
  }));
  return [...grooves, ...panelHolesInRows(holes, unit), ...cutOuts];
}

/** Whether a panel or member that was read has no more corners and no more work than a record takes. */
export function hasRecord(read: ReadPanel | ReadMember): boolean {
  if (read.kind === "member") return read.holes.length + read.notches.length <= MOST_WORK;
  const corners = [read.outline ?? [], ...read.cutOuts];
  if (corners.some(({ length }) => length > MOST_CORNERS)) return false;
  // Rows are looked for only where the holes are too many one by one.
  if (read.holes.length + read.grooves.length + read.cutOuts.length <= MOST_WORK) return true;
  return read.holes.length <= MOST_SINGLE && panelWork(read, "mm", (kind) => kind).length <= MOST_WORK;
}

/** More holes are not put in rows: it would take long. */
const MOST_SINGLE = 5_000;
