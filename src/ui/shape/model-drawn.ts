/** The two objects of the 3D picture over one set of vertices, their colours, and whether edges are drawn smooth. */
import * as THREE from "three";
import { invariant } from "@/core/kernel";
import type { ModelBuffers } from "./model-buffers";

/** From how many pieces a browser that draws without a graphics card leaves edges as they come, four times as fast. */
const SMOOTH_UP_TO = 300;

/** Whether edges are drawn smooth: always with a graphics card, without one while there are few pieces. */
export function canDrawSmooth(pieces: number): boolean {
  if (pieces <= SMOOTH_UP_TO) return true;
  const context = document.createElement("canvas").getContext("webgl2");
  const names = context?.getExtension("WEBGL_debug_renderer_info");
  const renderer = context?.getParameter(names ? names.UNMASKED_RENDERER_WEBGL : context.RENDERER);
  context?.getExtension("WEBGL_lose_context")?.loseContext();
  return !/swiftshader|llvmpipe|softpipe|software|basic render/i.test(String(renderer));
}

/** The faces and the edges of arrays that were made anew. */
export function drawnWith(buffers: ModelBuffers) {
  const places = new THREE.BufferAttribute(buffers.positions, 3);
  const geometryOf = (corners: Uint32Array) => {
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute("position", places);
    geometry.setAttribute("color", colourAttribute(buffers.positions.length / 3));
    geometry.setIndex(new THREE.BufferAttribute(corners, 1));
    return geometry;
  };
  const faces = new THREE.Mesh(
    geometryOf(buffers.triangles),
    new THREE.MeshLambertMaterial({
      vertexColors: true,
      // Corners are shared between faces, so each face has the normal of its plane.
      flatShading: true,
      // Cut open, a solid shows its inner faces.
      side: THREE.DoubleSide,
      polygonOffset: true,
      polygonOffsetFactor: 1,
      polygonOffsetUnits: 1,
    }),
  );
  const lines = new THREE.LineSegments(
    geometryOf(buffers.edges),
    new THREE.LineBasicMaterial({ vertexColors: true }),
  );
  // Both are everything that there is: asking whether they are in view costs more than drawing what is not.
  faces.frustumCulled = false;
  lines.frustumCulled = false;
  return { buffers, faces, lines };
}

/** Colours in 16 bits, since those of the edges are too dark for 8 in a linear scale; the fourth fills the word. */
const colourAttribute = (vertices: number) =>
  new THREE.BufferAttribute(new Uint16Array(4 * vertices).fill(65_535), 4, true);

export function attributeOf(drawn: THREE.Mesh | THREE.LineSegments, name: "position" | "color") {
  const attribute = drawn.geometry.getAttribute(name);
  invariant(
    attribute instanceof THREE.BufferAttribute,
    "the picture's vertices stand in arrays of their own",
  );
  return attribute;
}

/** Gives vertices one colour. */
export function fill(
  { array }: THREE.BufferAttribute,
  { r, g, b }: THREE.Color,
  from: number,
  to: number,
): void {
  for (let i = 4 * from; i < 4 * to; i += 4) {
    array[i] = 65_535 * r;
    array[i + 1] = 65_535 * g;
    array[i + 2] = 65_535 * b;
  }
}
