import { describe, expect, it } from "vitest";
import type { FlatMesh } from "@/core/geometry";
import { type Random, seededRandom } from "@/core/kernel";
import { middleOf, newBuffers, rangeOfTriangle, rewritten } from "./model-buffers";

/** A fan of triangles over random places: a mesh of `corners` vertices. */
function fan(corners: number, random: Random): FlatMesh {
  const triangles = Array.from({ length: corners - 2 }, (_, i) => [0, i + 1, i + 2]).flat();
  const edges = Array.from({ length: corners }, (_, i) => [i, (i + 1) % corners]).flat();
  return { places: Array.from({ length: 3 * corners }, () => random.next() * 1000), triangles, edges };
}

/** The corners of every triangle and edge, looked up the slow way. */
function drawn({ positions, triangles, edges }: ReturnType<typeof newBuffers>) {
  const place = (i: number) => [...positions.slice(3 * i, 3 * i + 3)];
  return { triangles: [...triangles].map(place), edges: [...edges].map(place) };
}

const vertex = ({ places }: FlatMesh, i: number) => places.slice(3 * i, 3 * i + 3).map(Math.fround);
const asDrawn = (meshes: readonly FlatMesh[]) => ({
  triangles: meshes.flatMap((mesh) => mesh.triangles.map((i) => vertex(mesh, i))),
  edges: meshes.flatMap((mesh) => mesh.edges.map((i) => vertex(mesh, i))),
});

describe("the vertices of the picture", () => {
  const random = seededRandom(11);
  const meshes = [4, 8, 3, 12, 5].map((corners) => fan(corners, random));

  it("draws every triangle and edge of every piece", () => {
    expect(drawn(newBuffers(meshes))).toEqual(asDrawn(meshes));
  });

  it("copies what stood first and stands there again, as if all were made anew", () => {
    const other = fan(6, random);
    const lists = [
      [...meshes, other],
      [...meshes.slice(0, 3), other, ...meshes.slice(3)],
      [other, ...meshes],
      meshes.slice(0, 2),
      meshes.slice(1),
      [],
    ];
    for (const list of lists) {
      expect(newBuffers(list, newBuffers(meshes))).toEqual(newBuffers(list));
      expect(newBuffers(meshes, newBuffers(list))).toEqual(newBuffers(meshes));
    }
    const rest = rewritten(newBuffers(meshes), [fan(4, random), ...meshes.slice(1)]);
    if (!rest) throw new Error("of the same build");
    const again = rest.buffers.ranges.map(({ mesh }) => mesh);
    expect(newBuffers([...again, other], rest.buffers)).toEqual(newBuffers([...again, other]));
  });

  it("writes changed pieces in their places, as if all were made anew", () => {
    const after = meshes.map((mesh, i) => (i === 1 || i === 2 ? fan(mesh.places.length / 3, random) : mesh));
    const written = rewritten(newBuffers(meshes), after);
    expect(written?.buffers).toEqual(newBuffers(after));
    // Two neighbours are one run: their 8 and 3 vertices stand behind the first piece's 4.
    expect(written?.runs).toEqual([[4, 15]]);
  });

  it("writes nothing where nothing changed", () => {
    expect(rewritten(newBuffers(meshes), meshes)?.runs).toEqual([]);
  });

  it("gives up where a piece came, went or is built otherwise", () => {
    const before = newBuffers(meshes);
    const turned = meshes.map((mesh) => ({ ...mesh, triangles: [...mesh.triangles].reverse() }));
    expect(rewritten(before, meshes.slice(1))).toBeNull();
    expect(rewritten(before, [...meshes, fan(3, random)])).toBeNull();
    expect(rewritten(before, turned)).toBeNull();
    expect(drawn(before)).toEqual(asDrawn(meshes));
  });

  it("finds the piece of every triangle, and none beyond the last", () => {
    const { ranges, triangles } = newBuffers(meshes);
    const owners = meshes.flatMap((mesh, i) => Array(mesh.triangles.length / 3).fill(i));
    expect(owners.map((_, i) => rangeOfTriangle(ranges, i))).toEqual(owners);
    expect(rangeOfTriangle(ranges, triangles.length / 3)).toBeNull();
    expect(rangeOfTriangle([], 0)).toBeNull();
  });

  it("has the middle of a mesh, and of one without vertices", () => {
    const square: FlatMesh = {
      places: [0, 0, 1, 4, 0, 1, 4, 2, 1, 0, 2, 1],
      triangles: [],
      edges: [],
    };
    expect(middleOf(square)).toEqual([2, 1, 1]);
    expect(middleOf({ places: [], triangles: [], edges: [] })).toEqual([0, 0, 0]);
  });
});
