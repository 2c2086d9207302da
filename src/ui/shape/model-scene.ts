/**
 * The 3D picture: plain three, drawn only when something changed. All solids are one mesh and all edges
 * one set of lines (two draw calls) over the same vertices, coloured by vertex; a triangle knows its piece for picking.
 */
import * as THREE from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import type { FlatMesh, PlaneBox, Vec3 } from "@/core/geometry";
import { LOOK_COLOURS, LOOKS, type Look } from "@/core/job";
import { at } from "@/core/kernel";
import { type ModelBuffers, middleOf, newBuffers, rangeOfTriangle, rewritten } from "./model-buffers";
import { attributeOf, canDrawSmooth, drawnWith, fill } from "./model-drawn";

export type ModelPiece = {
  readonly id: string;
  /** The record that it shows, and the placements that lead to it, from the job inwards. */
  readonly record: string;
  readonly path: readonly string[];
  readonly mesh: FlatMesh;
  readonly tint: "steel" | "timber" | "board" | "bought";
  readonly look: Look | null;
  /** Stands around what is worked on. */
  readonly faded: boolean;
};
/** A plane across an axis (0 width, 1 depth, 2 height) and the side of it that stays. */
export type CutAway = { readonly axis: 0 | 1 | 2; readonly at: number; readonly keep: "below" | "above" };
export type ViewName = "iso" | "front" | "top" | "side";

const COLOURS = {
  steel: new THREE.Color("#cdd4d2"),
  timber: new THREE.Color("#eedcb6"),
  board: new THREE.Color("#f1e5cd"),
  bought: new THREE.Color("#c9c6bd"),
  faded: new THREE.Color("#f2f2ec"),
  picked: new THREE.Color("#d39a3f"),
};
const EDGE = { plain: new THREE.Color("#1d2321"), faded: new THREE.Color("#b9bcb4") };
const VIEW_FROM: Readonly<Record<ViewName, readonly [number, number, number]>> = {
  iso: [-0.62, -1, 0.62],
  front: [0, -1, 0],
  top: [0, -0.0001, 1],
  side: [1, 0, 0],
};

/** The looks that a piece can be given. */
const LOOK_PAINTS = new Map(LOOKS.map((look) => [look, new THREE.Color(LOOK_COLOURS[look])]));

/** What is drawn: the pieces in the order of their ranges, and the two objects over one set of places. */
type Drawn = {
  readonly pieces: readonly ModelPiece[];
  readonly buffers: ModelBuffers;
  readonly faces: THREE.Mesh;
  readonly lines: THREE.LineSegments;
};

export class ModelScene {
  /** Told from where it is looked at, towards whoever looks. */
  onTurned: ((towards: Vec3) => void) | null = null;
  /** Called after each drawn frame. */
  onFrame: (() => void) | null = null;
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.OrthographicCamera(-1, 1, 1, -1, -100_000, 100_000);
  private readonly controls: OrbitControls;
  private readonly box: HTMLElement;
  private readonly watcher: ResizeObserver;
  private readonly place = new THREE.Vector3();
  /** Pixels of the box: asked of the page for each of thousands of places, it would be laid out each time. */
  private size = { width: 0, height: 0 };
  private drawn: Drawn | null = null;
  private selected: ReadonlySet<string> = new Set();
  private frame = 0;
  private reach = 1000;
  /** Nobody has turned, moved or zoomed the picture since it was fitted: it stays so when its box changes. */
  private fitted = false;
  private cutter: THREE.Plane | null = null;

  /** `expected`: about how many pieces will be shown. */
  constructor(box: HTMLElement, expected: number) {
    this.box = box;
    this.renderer = new THREE.WebGLRenderer({
      antialias: canDrawSmooth(expected),
      preserveDrawingBuffer: true,
    });
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.renderer.setClearColor("#ffffff");
    // There are two objects, and putting them in order asks for a sphere round all their vertices.
    this.renderer.sortObjects = false;
    const { domElement } = this.renderer;
    domElement.style.display = "block";
    domElement.setAttribute("aria-hidden", "true");
    box.append(domElement);
    this.camera.up.set(0, 0, 1);
    this.scene.add(new THREE.HemisphereLight("#ffffff", "#b9b9ad", 2.1));
    const sun = new THREE.DirectionalLight("#ffffff", 1.5);
    sun.position.set(-0.5, -1, 1.6);
    this.scene.add(sun);
    this.controls = new OrbitControls(this.camera, domElement);
    this.controls.addEventListener("change", () => this.draw());
    this.controls.addEventListener("start", () => {
      this.fitted = false;
    });
    this.controls.addEventListener("end", () => this.turned());
    this.watcher = new ResizeObserver(() => this.resize());
    this.watcher.observe(box);
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    this.watcher.disconnect();
    this.controls.dispose();
    this.drawn?.faces.geometry.dispose();
    this.drawn?.lines.geometry.dispose();
    this.renderer.dispose();
    this.renderer.domElement.remove();
  }

  /** Replaces what is shown; the view stays, unless there was nothing before. */
  setModel(pieces: readonly ModelPiece[]): void {
    const before = this.drawn?.pieces.length ?? null;
    // A first member that somebody draws leaves the view to the hand that draws on.
    const fresh = before === null || (before === 0 && pieces.length > 1);
    const meshes = pieces.map(({ mesh }) => mesh);
    const written = this.drawn && rewritten(this.drawn.buffers, meshes);
    if (this.drawn && written) {
      const { faces, lines } = this.drawn;
      const places = attributeOf(faces, "position");
      for (const [from, to] of written.runs) places.addUpdateRange(3 * from, 3 * (to - from));
      places.needsUpdate = written.runs.length > 0;
      // Made anew when somebody points at a piece.
      faces.geometry.boundingSphere = null;
      const were = this.drawn.pieces;
      this.drawn = { pieces, buffers: written.buffers, faces, lines };
      const likeBefore = pieces.every((piece, i) => {
        const one = at(were, i);
        return piece.tint === one.tint && piece.look === one.look && piece.faded === one.faded;
      });
      if (!likeBefore || this.selected.size > 0) this.colour();
      else if (written.runs.length === 0) return;
    } else {
      const buffers = newBuffers(meshes, this.drawn?.buffers);
      this.takeAway();
      this.drawn = { pieces, ...drawnWith(buffers) };
      this.scene.add(this.drawn.faces, this.drawn.lines);
      this.colour();
    }
    if (fresh) this.look("iso");
    this.draw();
  }

  private takeAway(): void {
    if (!this.drawn) return;
    for (const old of [this.drawn.faces, this.drawn.lines]) {
      this.scene.remove(old);
      old.geometry.dispose();
    }
  }

  setSelected(selected: ReadonlySet<string>): void {
    this.selected = selected;
    this.colour();
    this.draw();
  }

  private colour(): void {
    if (!this.drawn) return;
    const { pieces, buffers, faces, lines } = this.drawn;
    const [surface, edge] = [attributeOf(faces, "color"), attributeOf(lines, "color")];
    pieces.forEach((piece, i) => {
      const [from, to] = at(buffers.ranges, i).vertices;
      fill(surface, this.colourOf(piece), from, to);
      fill(edge, piece.faded ? EDGE.faded : EDGE.plain, from, to);
    });
    surface.needsUpdate = true;
    edge.needsUpdate = true;
  }

  private colourOf({ record, path, tint, look, faded }: ModelPiece): THREE.Color {
    if (this.selected.has(record) || path.some((id) => this.selected.has(id))) return COLOURS.picked;
    if (faded) return COLOURS.faded;
    return (look && LOOK_PAINTS.get(look)) ?? COLOURS[tint];
  }

  /** Looks from one side and shows everything. */
  look(view: ViewName): void {
    const sphere = this.sphere();
    const [x, y, z] = VIEW_FROM[view];
    this.reach = sphere.radius * 1.06;
    // However large the job is, nothing of it lies beyond what the camera sees.
    this.camera.near = -10 * sphere.radius - 1000;
    this.camera.far = 10 * sphere.radius + 1000;
    const away = new THREE.Vector3(x, y, z).normalize().multiplyScalar(sphere.radius * 3 + 10);
    this.controls.target.copy(sphere.center);
    this.camera.position.copy(sphere.center).add(away);
    this.fitted = true;
    this.resize();
    this.controls.update();
    this.turned();
  }

  /** Tells from where it is looked at now. */
  private turned(): void {
    const { x, y, z } = this.camera.position.clone().sub(this.controls.target).normalize();
    this.onTurned?.([x, y, z]);
  }

  /** How far the sphere can be enlarged so that the model, which is flatter, fills the picture. */
  private fittingZoom(centre: THREE.Vector3): number {
    const bounds = this.bounds();
    if (bounds.isEmpty()) return 1;
    this.camera.lookAt(centre);
    this.camera.updateMatrixWorld();
    const seen = new THREE.Box3();
    for (let i = 0; i < 8; i++) {
      const corner = new THREE.Vector3(
        i & 1 ? bounds.max.x : bounds.min.x,
        i & 2 ? bounds.max.y : bounds.min.y,
        i & 4 ? bounds.max.z : bounds.min.z,
      );
      seen.expandByPoint(corner.applyMatrix4(this.camera.matrixWorldInverse));
    }
    const size = seen.getSize(new THREE.Vector3());
    const { width, height } = this.box.getBoundingClientRect();
    const shorter = Math.min(width, height) || 1;
    const across = (2 * this.reach * width) / shorter;
    const up = (2 * this.reach * height) / shorter;
    return 0.9 * Math.min(across / (size.x || 1), up / (size.y || 1));
  }

  /** The room that is looked at: what is worked on, or everything when all of it is. */
  private bounds(): THREE.Box3 {
    const box = new THREE.Box3();
    if (!this.drawn) return box;
    const { pieces, buffers } = this.drawn;
    const { positions, ranges } = buffers;
    const worked = ranges.filter((_, i) => !at(pieces, i).faded);
    const corner = new THREE.Vector3();
    for (const { vertices } of worked.length > 0 ? worked : ranges)
      for (let i = vertices[0]; i < vertices[1]; i++) box.expandByPoint(corner.fromArray(positions, 3 * i));
    return box;
  }

  private sphere(): THREE.Sphere {
    const box = this.bounds();
    if (box.isEmpty()) return new THREE.Sphere(new THREE.Vector3(), 1000);
    return box.getBoundingSphere(new THREE.Sphere());
  }

  private resize(): void {
    const { width, height } = this.box.getBoundingClientRect();
    if (width === 0 || height === 0) return;
    if (this.fitted) this.camera.zoom = this.fittingZoom(this.controls.target);
    this.size = { width, height };
    this.renderer.setSize(width, height);
    const shorter = Math.min(width, height);
    this.camera.left = (-this.reach * width) / shorter;
    this.camera.right = (this.reach * width) / shorter;
    this.camera.top = (this.reach * height) / shorter;
    this.camera.bottom = (-this.reach * height) / shorter;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  /** Leaves out what lies beyond a plane across one of the axes; null shows everything. */
  cutAway(cut: CutAway | null): void {
    const normal = new THREE.Vector3();
    if (cut) normal.setComponent(cut.axis, cut.keep === "below" ? -1 : 1);
    this.cutter = cut ? new THREE.Plane(normal, cut.keep === "below" ? cut.at : -cut.at) : null;
    this.renderer.clippingPlanes = this.cutter ? [this.cutter] : [];
    this.draw();
  }

  /** How far the model reaches along an axis. */
  extent(axis: 0 | 1 | 2): readonly [number, number] {
    const { min, max } = this.bounds();
    return [min.getComponent(axis), max.getComponent(axis)];
  }

  /** Whether the pointer turns the picture. */
  turning(allowed: boolean): void {
    this.controls.enabled = allowed;
  }

  /** Asks for one frame; several asks before it give one, and none before there is a model. */
  draw(): void {
    if (this.frame !== 0 || !this.drawn) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      this.renderer.render(this.scene, this.camera);
      this.onFrame?.();
    });
  }

  /** The piece under a place of the window, or null. */
  pick(clientX: number, clientY: number): ModelPiece | null {
    if (!this.drawn) return null;
    const { pieces, buffers, faces } = this.drawn;
    const { left, top, width, height } = this.renderer.domElement.getBoundingClientRect();
    const place = new THREE.Vector2(((clientX - left) / width) * 2 - 1, -((clientY - top) / height) * 2 + 1);
    const ray = new THREE.Raycaster();
    ray.setFromCamera(place, this.camera);
    const { cutter } = this;
    const hits = ray.intersectObject(faces);
    const hit = cutter ? hits.find(({ point }) => cutter.distanceToPoint(point) >= 0) : hits[0];
    const triangle = hit?.faceIndex;
    if (triangle === undefined || triangle === null) return null;
    const index = rangeOfTriangle(buffers.ranges, triangle);
    return index === null ? null : (pieces[index] ?? null);
  }

  /** The pieces that lie wholly within a box of pixels; those that stand around what is worked on are left out. */
  within({ x0, y0, x1, y1 }: PlaneBox): readonly ModelPiece[] {
    if (!this.drawn) return [];
    const { pieces, buffers } = this.drawn;
    const isIn = (i: number) => {
      const { x, y } = this.seen(this.place.fromArray(buffers.positions, 3 * i));
      return x >= x0 && x <= x1 && y >= y0 && y <= y1;
    };
    return pieces.filter(({ faded }, k) => {
      const [from, to] = at(buffers.ranges, k).vertices;
      if (faded || from === to) return false;
      for (let i = from; i < to; i++) if (!isIn(i)) return false;
      return true;
    });
  }

  /** Where the middle of a record is first seen, in pixels of the box. */
  placeOf(record: string): { readonly x: number; readonly y: number } | null {
    const piece = this.drawn?.pieces.find((one) => one.record === record);
    return piece ? this.project(middleOf(piece.mesh)) : null;
  }

  /** Where a place of the job is seen, in pixels of the box. */
  project([x, y, z]: Vec3): { readonly x: number; readonly y: number } {
    return this.seen(this.place.set(x, y, z));
  }

  /**
   * The place under a spot of the box, in the plane of the view through a place of the job; seen aslant, in the
   * level plane through it.
   */
  unproject(spot: { readonly x: number; readonly y: number }, through: Vec3): Vec3 | null {
    const { width, height } = this.size;
    const ray = new THREE.Raycaster();
    ray.setFromCamera(new THREE.Vector2((spot.x / width) * 2 - 1, 1 - (spot.y / height) * 2), this.camera);
    const towards = ray.ray.direction.toArray().map(Math.abs);
    const straight = towards.findIndex((part) => part > 0.999);
    const normal = new THREE.Vector3().setComponent(straight < 0 ? 2 : straight, 1);
    const plane = new THREE.Plane().setFromNormalAndCoplanarPoint(normal, new THREE.Vector3(...through));
    // The eye of a parallel view may stand beyond the plane.
    ray.ray.origin.addScaledVector(ray.ray.direction, -200_000);
    const hit = ray.ray.intersectPlane(plane, new THREE.Vector3());
    return hit ? [hit.x, hit.y, hit.z] : null;
  }

  /** Where a place is seen; the vector becomes its place in the view. */
  private seen(place: THREE.Vector3): { readonly x: number; readonly y: number } {
    const seen = place.project(this.camera);
    return { x: ((seen.x + 1) / 2) * this.size.width, y: ((1 - seen.y) / 2) * this.size.height };
  }
}
