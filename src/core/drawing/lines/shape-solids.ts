/** The pieces of a shape as solids that stand in a view. */
import {
  AT_HOME,
  type Fineness,
  type Pose,
  poseIn,
  type Solid,
  solidOfMesh,
  type Vec3,
} from "../../geometry";
import { type Assets, NO_ASSETS } from "../../job";
import { remembersEach } from "../../kernel";
import {
  type BoughtCount,
  type Instance,
  type MemberSolid,
  meshOfStandIn,
  type PanelSolid,
  plainSolidOfMember,
  roundRadii,
  type Shape,
  solidOfMember,
  solidOfPanel,
} from "../../shape";
import { type SectionShape, sectionProperties } from "../../stockroom";
import type { SeenSolid } from "./candidates";
import { inView, towardsViewer, type ViewFrame } from "./view-frame";

/** A piece in a view: the record that it is of, and where it stands. */
export type SeenPiece = SeenSolid & { readonly record: string; readonly instance: Instance };

/** Radians from one point of an arc to the next; silhouettes are exact whatever it is. */
const STEP = Math.PI / 16;

type SeenOptions = {
  readonly assets?: Assets;
  /** At most so many pieces. */
  readonly most?: number;
  /** Members without the roundings and bores of their sections, where that is no matter. */
  readonly plain?: boolean;
  /** Which pieces are drawn, by record and instance; all where not said. */
  readonly isShown?: (record: string, instance: Instance) => boolean;
};

/** All pieces that stand somewhere, in the axes of the view. */
export function seenPieces(
  shape: Shape,
  view: ViewFrame,
  {
    assets = NO_ASSETS,
    most = Number.POSITIVE_INFINITY,
    plain = false,
    isShown = () => true,
  }: SeenOptions = {},
): readonly SeenPiece[] {
  const pieces: SeenPiece[] = [];
  const alike: Alike = new Map();
  const stand = (
    record: string,
    home: MemberSolid["home"],
    own: Pose,
    made: (towards: Vec3) => Pick<SeenSolid, "solid" | "round">,
  ) => {
    for (const instance of shape.places.get(home) ?? []) {
      if (pieces.length >= most) return;
      if (!isShown(record, instance)) continue;
      const pose = poseIn(instance.pose, own);
      pieces.push({
        ...made(towardsViewer(view, pose)),
        frame: inView(view, pose.frame),
        record,
        instance,
      });
    }
  };
  for (const member of shape.members)
    stand(member.member.id, member.home, { frame: member.frame, mirrored: false }, (towards) =>
      drawnMember(member, towards, plain, alike),
    );
  for (const panel of shape.panels)
    stand(panel.panel.id, panel.panel.assembly, { frame: panel.frame, mirrored: false }, (towards) =>
      drawnPanel(panel, towards, alike),
    );
  for (const one of shape.bought)
    for (const solid of standInSolids(one, [assets], () => meshOfStandIn(one, assets).map(solidOfMesh)))
      stand(one.part.id, one.part.assembly, AT_HOME, () => ({ solid, round: 0 }));
  return pieces;
}

const standInSolids = remembersEach<BoughtCount, readonly Solid[]>();
const memberSolids = remembersEach<MemberSolid, Map<string, Solid>>();
const panelSolids = remembersEach<PanelSolid, Map<string, Solid>>();

/** The same solid for the same directions: pieces that stand alike share it. */
function remembered(known: Map<string, Solid>, silhouettes: readonly number[], make: () => Solid): Solid {
  const key = silhouettes.join(" ");
  const before = known.get(key);
  if (before) return before;
  // Somebody who turns the view makes a solid for each step; the last few are enough.
  if (known.size > 8) known.clear();
  const solid = make();
  known.set(key, solid);
  return solid;
}

/** Solids that members and panels of the same form share in one view, by their section or `null`, then by what else they hang on. */
type Alike = Map<SectionShape | null, Map<string, Solid>>;

/** mm, and for slopes a number: sizes that are nearer than this are one, far above the noise of two formulas for one size. */
const ALIKE = 1e-7;
const rounded = (size: number) => Math.round(size / ALIKE);

/** The solid of another piece of this form where there is one. `form`: all that its solid hangs on but the section. */
function shared(
  alike: Alike,
  shape: SectionShape | null,
  form: readonly (number | string)[],
  make: () => Solid,
): Solid {
  const known = alike.get(shape) ?? new Map<string, Solid>();
  alike.set(shape, known);
  const key = form.map((one) => (typeof one === "number" ? rounded(one) : one)).join(" ");
  const solid = known.get(key) ?? make();
  known.set(key, solid);
  return solid;
}

const formOfEnd = ({ z, form }: MemberSolid["start"]): readonly (number | string)[] => {
  switch (form.kind) {
    case "plane":
      return [form.kind, z, ...form.slope];
    case "twoPlanes":
      // In their order, which their faces are named by.
      return [form.kind, z, ...form.faces.flatMap(({ slope, beyond }) => [...slope, beyond])];
    case "cope":
      return [form.kind, form.curve, z, ...form.u, ...form.offset, form.cos, form.sin, form.radius];
  }
};

const plainSolids = remembersEach<MemberSolid, Solid | null>();

function drawnMember(
  member: MemberSolid,
  towards: Vec3,
  plain: boolean,
  alike: Alike,
): Pick<SeenSolid, "solid" | "round"> {
  const simple = plain ? plainSolids(member, [], () => plainSolidOfMember(member)) : null;
  if (simple) return { solid: simple, round: 0 };
  const silhouettes = silhouettesOf(towards);
  const { loops } = sectionProperties(member.entry.shape);
  const fineness: Fineness = { step: STEP, silhouettes, creases: true };
  const make = () => solidOfMember(member, fineness);
  const solid = remembered(
    memberSolids(member, [], () => new Map()),
    silhouettes,
    // The faces of holes and notches bear the names of their records.
    member.work
      ? make
      : () =>
          shared(
            alike,
            member.entry.shape,
            [...silhouettes, "from", ...formOfEnd(member.start), "to", ...formOfEnd(member.end)],
            make,
          ),
  );
  return { solid, round: roundOf(loops.flat().flatMap((one) => (one.kind === "arc" ? [one.radius] : []))) };
}

function drawnPanel(panel: PanelSolid, towards: Vec3, alike: Alike): Pick<SeenSolid, "solid" | "round"> {
  const silhouettes = silhouettesOf(towards);
  const make = () => solidOfPanel(panel, { step: STEP, silhouettes });
  const { length, width, thickness, outline, grooves, holes, notches, cutOuts } = panel;
  const isPlain = outline === null && [grooves, holes, notches, cutOuts].every((cuts) => cuts.length === 0);
  const solid = remembered(
    panelSolids(panel, [], () => new Map()),
    silhouettes,
    isPlain
      ? () => shared(alike, null, [...silhouettes, "size", length, width, thickness ?? "unknown"], make)
      : make,
  );
  return { solid, round: roundOf(roundRadii(panel)) };
}

/** Where the tangent of an arc about z runs along the direction of view: there its silhouettes are. */
function silhouettesOf([x, y]: Vec3): readonly number[] {
  if (Math.hypot(x, y) < 1e-9) return [];
  const angle = Math.atan2(y, x);
  // Written alike, so that pieces that stand alike share their rings.
  return [angle + Math.PI / 2, angle - Math.PI / 2].map((one) => Number(one.toFixed(9)) + 0);
}

/** How far the next facet but one stands before a silhouette. */
const roundOf = (radii: readonly number[]): number => 2 * Math.max(0, ...radii) * (1 - Math.cos(STEP));
