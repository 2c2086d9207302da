/**
 * The 3D picture: plain three, drawn only when something changed. All solids are one mesh and all edges
 * one set of lines (two draw calls), coloured by vertex; a triangle knows its piece for picking.
 */
import * as THREE from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import type { Mesh, Vec3 } from "@/core/geometry";
import type { Look } from "@/core/job";

export type ModelPiece = {
  readonly id: string;
  /** The record that it shows, and the placements that lead to it, from the job inwards. */
  readonly record: string;
  readonly path: readonly string[];
  readonly mesh: Mesh;
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

/** The looks that a piece can be given, as the picture mixes them. */
const LOOK_COLOURS: Readonly<Record<Look, THREE.Color>> = {
  "chalk white": new THREE.Color("#f7f6f0"),
  slate: new THREE.Color("#8d9899"),
  coal: new THREE.Color("#4b4f50"),
  brick: new THREE.Color("#c4745c"),
  straw: new THREE.Color("#e6cf83"),
  "leaf green": new THREE.Color("#8fb07a"),
  "sea blue": new THREE.Color("#84a9c4"),
  plum: new THREE.Color("#9a7a96"),
};

type Range = {
  readonly piece: ModelPiece;
  readonly from: number;
  readonly to: number;
  readonly centre: THREE.Vector3;
};

export class ModelScene {
  /** Called after each drawn frame. */
  onFrame: (() => void) | null = null;
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.OrthographicCamera(-1, 1, 1, -1, -100_000, 100_000);
  private readonly controls: OrbitControls;
  private readonly box: HTMLElement;
  private readonly watcher: ResizeObserver;
  private faces: THREE.Mesh | null = null;
  private lines: THREE.LineSegments | null = null;
  private ranges: readonly Range[] = [];
  private selected: ReadonlySet<string> = new Set();
  private frame = 0;
  private reach = 1000;
  /** Nobody has turned, moved or zoomed the picture since it was fitted: it stays so when its box changes. */
  private fitted = false;
  private cutter: THREE.Plane | null = null;

  constructor(box: HTMLElement) {
    this.box = box;
    this.renderer = new THREE.WebGLRenderer({ antialias: true, preserveDrawingBuffer: true });
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.renderer.setClearColor("#ffffff");
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
    this.watcher = new ResizeObserver(() => this.resize());
    this.watcher.observe(box);
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    this.watcher.disconnect();
    this.controls.dispose();
    this.faces?.geometry.dispose();
    this.lines?.geometry.dispose();
    this.renderer.dispose();
    this.renderer.domElement.remove();
  }

  /** Replaces what is shown; the view stays, unless there was nothing before. */
  setModel(pieces: readonly ModelPiece[]): void {
    const fresh = this.faces === null;
    for (const old of [this.faces, this.lines]) {
      if (!old) continue;
      this.scene.remove(old);
      old.geometry.dispose();
    }
    const { positions, normals, edges, edgeColours, ranges } = gathered(pieces);
    this.ranges = ranges;
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute("position", new THREE.BufferAttribute(positions, 3));
    geometry.setAttribute("normal", new THREE.BufferAttribute(normals, 3));
    geometry.setAttribute("color", new THREE.BufferAttribute(new Float32Array(positions.length), 3));
    this.faces = new THREE.Mesh(
      geometry,
      new THREE.MeshLambertMaterial({
        vertexColors: true,
        // Cut open, a solid shows its inner faces.
        side: THREE.DoubleSide,
        polygonOffset: true,
        polygonOffsetFactor: 1,
        polygonOffsetUnits: 1,
      }),
    );
    const lineGeometry = new THREE.BufferGeometry();
    lineGeometry.setAttribute("position", new THREE.BufferAttribute(edges, 3));
    lineGeometry.setAttribute("color", new THREE.BufferAttribute(edgeColours, 3));
    this.lines = new THREE.LineSegments(lineGeometry, new THREE.LineBasicMaterial({ vertexColors: true }));
    this.scene.add(this.faces, this.lines);
    this.colour();
    if (fresh) this.look("iso");
    this.draw();
  }

  setSelected(selected: ReadonlySet<string>): void {
    this.selected = selected;
    this.colour();
    this.draw();
  }

  private colour(): void {
    const colours = this.faces?.geometry.getAttribute("color");
    if (!(colours instanceof THREE.BufferAttribute)) return;
    for (const { piece, from, to } of this.ranges) {
      const { r, g, b } = this.colourOf(piece);
      for (let vertex = from * 3; vertex < to * 3; vertex++) colours.setXYZ(vertex, r, g, b);
    }
    colours.needsUpdate = true;
  }

  private colourOf({ record, path, tint, look, faded }: ModelPiece): THREE.Color {
    if (this.selected.has(record) || path.some((id) => this.selected.has(id))) return COLOURS.picked;
    if (faded) return COLOURS.faded;
    return look === null ? COLOURS[tint] : LOOK_COLOURS[look];
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
    const positions = this.faces?.geometry.getAttribute("position");
    if (!positions) return box;
    const worked = this.ranges.filter(({ piece }) => !piece.faded);
    const corner = new THREE.Vector3();
    for (const { from, to } of worked.length > 0 ? worked : this.ranges)
      for (let i = from * 3; i < to * 3; i++) box.expandByPoint(corner.fromBufferAttribute(positions, i));
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

  /** Asks for one frame; several asks before it give one. */
  draw(): void {
    if (this.frame !== 0) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      this.renderer.render(this.scene, this.camera);
      this.onFrame?.();
    });
  }

  /** The piece under a place of the window, or null. */
  pick(clientX: number, clientY: number): ModelPiece | null {
    if (!this.faces) return null;
    const { left, top, width, height } = this.renderer.domElement.getBoundingClientRect();
    const place = new THREE.Vector2(((clientX - left) / width) * 2 - 1, -((clientY - top) / height) * 2 + 1);
    const ray = new THREE.Raycaster();
    ray.setFromCamera(place, this.camera);
    const { cutter } = this;
    const hits = ray.intersectObject(this.faces);
    const hit = cutter ? hits.find(({ point }) => cutter.distanceToPoint(point) >= 0) : hits[0];
    const triangle = hit?.faceIndex;
    if (triangle === undefined || triangle === null) return null;
    return this.ranges.find((range) => triangle >= range.from && triangle < range.to)?.piece ?? null;
  }

  /** Where the middle of a record is first seen, in pixels of the box. */
  placeOf(record: string): { readonly x: number; readonly y: number } | null {
    const range = this.ranges.find((one) => one.piece.record === record);
    return range ? this.seen(range.centre) : null;
  }

  /** Where a place of the job is seen, in pixels of the box. */
  project([x, y, z]: Vec3): { readonly x: number; readonly y: number } {
    return this.seen(new THREE.Vector3(x, y, z));
  }

  /**
   * The place under a spot of the box, in the plane of the view through a place of the job; seen aslant, in the
   * level plane through it.
   */
  unproject(spot: { readonly x: number; readonly y: number }, through: Vec3): Vec3 | null {
    const { clientWidth, clientHeight } = this.renderer.domElement;
    const ray = new THREE.Raycaster();
    ray.setFromCamera(
      new THREE.Vector2((spot.x / clientWidth) * 2 - 1, 1 - (spot.y / clientHeight) * 2),
      this.camera,
    );
    const towards = ray.ray.direction.toArray().map(Math.abs);
    const straight = towards.findIndex((part) => part > 0.999);
    const normal = new THREE.Vector3().setComponent(straight < 0 ? 2 : straight, 1);
    const plane = new THREE.Plane().setFromNormalAndCoplanarPoint(normal, new THREE.Vector3(...through));
    // The eye of a parallel view may stand beyond the plane.
    ray.ray.origin.addScaledVector(ray.ray.direction, -200_000);
    const hit = ray.ray.intersectPlane(plane, new THREE.Vector3());
    return hit ? [hit.x, hit.y, hit.z] : null;
  }

  private seen(place: THREE.Vector3): { readonly x: number; readonly y: number } {
    const seen = place.clone().project(this.camera);
    const { clientWidth, clientHeight } = this.renderer.domElement;
    return { x: ((seen.x + 1) / 2) * clientWidth, y: ((1 - seen.y) / 2) * clientHeight };
  }
}

function gathered(pieces: readonly ModelPiece[]) {
  const triangles = pieces.reduce((sum, { mesh }) => sum + mesh.triangles.length / 3, 0);
  const edgeEnds = pieces.reduce((sum, { mesh }) => sum + mesh.edges.length, 0);
  const positions = new Float32Array(triangles * 9);
  const normals = new Float32Array(triangles * 9);
  const edges = new Float32Array(edgeEnds * 3);
  const edgeColours = new Float32Array(edgeEnds * 3);
  const ranges: Range[] = [];
  let triangle = 0;
  let edge = 0;
  const [a, b, c] = [new THREE.Vector3(), new THREE.Vector3(), new THREE.Vector3()];
  for (const piece of pieces) {
    const { mesh } = piece;
    const from = triangle;
    const corner = (i: number, into: THREE.Vector3) => {
      const [x, y, z] = mesh.vertices[mesh.triangles[i] ?? 0] ?? [0, 0, 0];
      return into.set(x, y, z);
    };
    for (let i = 0; i < mesh.triangles.length; i += 3) {
      corner(i, a).toArray(positions, triangle * 9);
      corner(i + 1, b).toArray(positions, triangle * 9 + 3);
      corner(i + 2, c).toArray(positions, triangle * 9 + 6);
      const normal = b.sub(a).cross(c.sub(a)).normalize();
      for (let k = 0; k < 3; k++) normal.toArray(normals, triangle * 9 + 3 * k);
      triangle++;
    }
    for (const index of mesh.edges) {
      edges.set(mesh.vertices[index] ?? [0, 0, 0], edge);
      (piece.faded ? EDGE.faded : EDGE.plain).toArray(edgeColours, edge);
      edge += 3;
    }
    const centre = new THREE.Vector3();
    for (const [x, y, z] of mesh.vertices) centre.add(a.set(x, y, z));
    ranges.push({
      piece,
      from,
      to: triangle,
      centre: centre.divideScalar(Math.max(1, mesh.vertices.length)),
    });
  }
  return { positions, normals, edges, edgeColours, ranges };
}
