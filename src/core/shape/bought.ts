/**
 * Bought parts: how many there are, by value, by formula over key sizes, or by the count of other things
 * (`count("Slat") * 2`), and what stands for them in the picture.
 */
import { boxLoop, circle, levelEnd, type Mesh, placeMesh, prismMesh, ringOf, type Vec3 } from "../geometry";
import {
  type Asset,
  type AssetId,
  type Assets,
  type BoughtPart,
  type Check,
  findAssembly,
  type Home,
  homeOfMember,
  type Job,
  lengthWith,
  plainCheck,
  type Sizes,
  type Stand,
} from "../job";
import { err, ok, type Problem, type Result, remembersEach, sentence } from "../kernel";
import { countedNames, countName } from "../measure";
import type { BoughtEntry, Stockroom } from "../stockroom";
import { faultWords, type ShapeFault, textFault } from "./fault";
import { type Places, poseOf, readStanding, type Standing, threeNumbers, wholeCount } from "./places";

export type BoughtCount = {
  readonly part: BoughtPart;
  readonly entry: BoughtEntry | null;
  /** In one of its assembly; null: its count cannot be computed. */
  readonly count: number | null;
  /** Millimetres of each, for parts bought by length. */
  readonly length: number | null;
  readonly stand: StandSolid | null;
};

/** What stands there: a mesh of its own, or a shape from a file that pictures look up. */
type Form =
  | { readonly kind: "mesh"; readonly mesh: Mesh }
  | { readonly kind: "asset"; readonly asset: AssetId };
export type StandSolid = Standing & { readonly form: Form };

type Ground = {
  readonly sizes: Sizes;
  readonly stockroom: Stockroom;
  readonly absent: ReadonlySet<string>;
  readonly places: Places;
  readonly checks: Check[];
};

const MOST_BOUGHT = 1_000_000;

export function countBought(job: Job, ground: Ground): readonly BoughtCount[] {
  const { sizes, stockroom, absent, checks } = ground;
  const counts = new Counts(job, ground);
  return Object.values(job.boughtParts)
    .filter((part) => !absent.has(part.id))
    .map((part): BoughtCount => {
      const entry = part.entry === null ? null : (stockroom.boughtById.get(part.entry) ?? null);
      const say = (kind: Check["kind"], words: string) =>
        checks.push(plainCheck(kind, "error", `${part.name}: ${words}`, [part.id]));
      if (!entry) say("noBoughtEntry", "it is not in the stockroom; choose an entry.");
      const count = counts.of(part);
      if (!count.ok) say("notComputed", `${faultWords(count.problem, sizes.style)}.`);
      const length = part.length === null ? null : lengthWith(sizes, part.length);
      if (length && !length.ok) say("notComputed", sentence(length.problem));
      const stand = part.stand ? standOf(part.stand, sizes) : null;
      if (stand && !stand.ok)
        say("notComputed", `in the picture: ${faultWords(stand.problem, sizes.style)}.`);
      return {
        part,
        entry,
        count: count.ok ? count.value : null,
        length: length?.ok ? length.value : null,
        stand: stand?.ok ? stand.value : null,
      };
    });
}

/** Counts by name within one home, worked out when they are asked for. */
class Counts {
  private readonly known = new Map<string, Result<number, ShapeFault>>();
  private readonly open = new Set<string>();
  private readonly named = new Map<Home, Map<string, number>>();
  private readonly job: Job;
  private readonly ground: Ground;

  constructor(job: Job, ground: Ground) {
    this.job = job;
    this.ground = ground;
  }

  of(part: BoughtPart): Result<number, ShapeFault> {
    const before = this.known.get(part.id);
    if (before) return before;
    if (this.open.has(part.id)) return err({ kind: "countLoop" });
    this.open.add(part.id);
    const found = this.computed(part);
    this.open.delete(part.id);
    this.known.set(part.id, found);
    return found;
  }

  private computed(part: BoughtPart): Result<number, ShapeFault> {
    const { sizes } = this.ground;
    const scope = new Map(sizes.scope);
    for (const name of countedNames(part.count)) {
      const found = this.within(part.assembly, name);
      if (!found.ok) return found;
      scope.set(countName(name), found.value);
    }
    return wholeCount({ ...sizes, scope }, part.count, MOST_BOUGHT);
  }

  /** How many pieces and assemblies of a name stand in one of a home, those in nested assemblies included. */
  private within(home: Home, name: string): Result<number, ShapeFault> {
    const { job, ground } = this;
    let total = this.pieces(home).get(name) ?? 0;
    let found = total > 0 || this.isName(name);
    for (const part of Object.values(job.boughtParts)) {
      if (part.assembly !== home || part.name !== name || ground.absent.has(part.id)) continue;
      const count = this.of(part);
      if (!count.ok) return count;
      total += count.value;
      found = true;
    }
    for (const placement of Object.values(job.placements)) {
      const assembly = findAssembly(job, placement.assembly);
      if (placement.into !== home || ground.absent.has(placement.id) || !assembly) continue;
      const times = wholeCount(ground.sizes, placement.count, MOST_BOUGHT);
      if (!times.ok || !ground.places.has(assembly.id)) continue;
      const inner = this.within(assembly.id, name);
      if (!inner.ok) return inner;
      total += times.value * (inner.value + (assembly.name === name ? 1 : 0));
    }
    return found ? ok(total) : err({ kind: "countOfNone", name });
  }

  private isName(name: string): boolean {
    const { members, panels, boughtParts, assemblies } = this.job;
    return [members, panels, boughtParts, assemblies].some((table) =>
      Object.values(table).some((record) => record.name === name),
    );
  }

  private pieces(home: Home): ReadonlyMap<string, number> {
    const before = this.named.get(home);
    if (before) return before;
    const counts = new Map<string, number>();
    const add = (id: string, name: string, own: Home) => {
      if (own === home && !this.ground.absent.has(id)) counts.set(name, (counts.get(name) ?? 0) + 1);
    };
    for (const member of Object.values(this.job.members))
      add(member.id, member.name, homeOfMember(this.job, member));
    for (const panel of Object.values(this.job.panels)) add(panel.id, panel.name, panel.assembly);
    this.named.set(home, counts);
    return counts;
  }
}

function standOf(stand: Stand, sizes: Sizes): Result<StandSolid, ShapeFault> {
  const standing = readStanding(stand, sizes);
  if (!standing.ok) return standing;
  const form = standInForm(stand.as, sizes);
  return form.ok ? ok({ ...standing.value, form: form.value }) : form;
}

/** Radians from one corner of a drawn cylinder to the next: so near that it is told from an edge. */
const ROUND_STEP = Math.PI / 12;

/** The stand-in about its own origin, the middle of its foot. */
function standInForm(as: Stand["as"], sizes: Sizes): Result<Form, ShapeFault> {
  if (as.kind === "shape") return ok({ kind: "asset", asset: as.asset });
  const mesh = standInMesh(as, sizes);
  return mesh.ok ? ok({ kind: "mesh", mesh: mesh.value }) : mesh;
}

function standInMesh(as: Exclude<Stand["as"], { kind: "shape" }>, sizes: Sizes): Result<Mesh, ShapeFault> {
  const read = (text: string): Result<number, Problem> => lengthWith(sizes, text);
  if (as.kind === "box") {
    const size = threeNumbers(as.size, read, "size");
    if (!size.ok) return size;
    if (size.value.some((part) => part <= 0)) return err({ kind: "noBox" });
    const [x, y, z] = size.value;
    const foot = ringOf(boxLoop([-x / 2, -y / 2], [x / 2, y / 2]), { step: ROUND_STEP });
    return ok(prismMesh([foot], levelEnd(0), levelEnd(z)));
  }
  const [diameter, height] = [read(as.diameter), read(as.height)];
  if (!diameter.ok) return err(textFault("other", diameter.problem));
  if (!height.ok) return err(textFault("other", height.problem));
  if (diameter.value <= 0 || height.value <= 0) return err({ kind: "noCylinder" });
  const foot = ringOf(circle(diameter.value / 2), { step: ROUND_STEP });
  return ok(prismMesh([foot], levelEnd(0), levelEnd(height.value)));
}

// Assets never change, so their meshes are made once.
const assetMeshes = remembersEach<Asset, Mesh>();

function importedMesh(numbers: readonly number[]): Mesh {
  const vertices: Vec3[] = [];
  for (let i = 0; i + 2 < numbers.length; i += 3)
    vertices.push([numbers[i] ?? 0, numbers[i + 1] ?? 0, numbers[i + 2] ?? 0]);
  const whole = vertices.length - (vertices.length % 3);
  return { vertices, triangles: Array.from({ length: whole }, (_, i) => i), edges: [] };
}

/** The stand-ins of a bought part in its home's axes, one for each that is counted; none while its shape is not at hand. */
export function meshOfStandIn({ stand, count }: BoughtCount, assets: Assets): readonly Mesh[] {
  const own = stand && meshOfForm(stand.form, assets);
  if (!stand || !own) return [];
  // So many are drawn; more would only fill the picture.
  const drawn = Math.min(count ?? 1, 500);
  return Array.from({ length: drawn }, (_, i) => {
    return placeMesh(own, poseOf(stand, i, null).frame);
  });
}

function meshOfForm(form: Form, assets: Assets): Mesh | null {
  if (form.kind === "mesh") return form.mesh;
  const asset = assets.get(form.asset);
  return asset?.kind === "shape" ? assetMeshes(asset, [], () => importedMesh(asset.triangles)) : null;
}
