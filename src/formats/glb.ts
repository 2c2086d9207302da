/** A model as binary glTF 2.0 (Khronos) for viewers: metres, y upwards, one mesh a product, assemblies as nodes. */
import { Document, type Mesh as GltfMesh, type Node as GltfNode, WebIO } from "@gltf-transform/core";
import type { Model, ModelProduct } from "@/core/brep";
import { cross, direction, type Frame, type Mesh, subtract, type Vec3 } from "@/core/geometry";
import { at } from "@/core/kernel";
import { coloursOf } from "./solid-colours";

/** Millimetres with z upwards to metres with y upwards, column by column. */
const ROOT = [0.001, 0, 0, 0, 0, 0, -0.001, 0, 0, 0.001, 0, 0, 0, 0, 0, 1] as const;

const matrixOf = ({ origin, x, y, z }: Frame) =>
  [...x, 0, ...y, 0, ...z, 0, ...origin, 1] as unknown as ReturnType<GltfNode["getMatrix"]>;

export async function writeGlb(model: Model): Promise<Uint8Array> {
  const document = new Document();
  document.getRoot().getAsset().generator = "Rustic Tally";
  const buffer = document.createBuffer();
  const byKey = new Map(model.products.map((product) => [product.key, product]));
  const colourOf = coloursOf(model);
  const materials = new Map<string, ReturnType<Document["createMaterial"]>>();
  const materialOf = (product: ModelProduct) => {
    const { material, look } = product;
    const key = [material ?? "no material", ...(look ? [look] : [])].join(", ");
    const known = materials.get(key);
    if (known) return known;
    const [r, g, b] = colourOf(product);
    const made = document
      .createMaterial(key)
      .setBaseColorFactor([r, g, b, 1])
      .setMetallicFactor(0.1)
      .setRoughnessFactor(0.8);
    materials.set(key, made);
    return made;
  };
  const meshes = new Map<string, GltfMesh>();
  const meshOf = (key: string): GltfMesh | null => {
    const known = meshes.get(key);
    const product = byKey.get(key);
    if (known || !product?.mesh) return known ?? null;
    const { positions, normals } = flatShaded(product.mesh());
    const accessor = (array: Float32Array<ArrayBuffer>) =>
      document.createAccessor().setType("VEC3").setArray(array).setBuffer(buffer);
    const primitive = document
      .createPrimitive()
      .setAttribute("POSITION", accessor(positions))
      .setAttribute("NORMAL", accessor(normals))
      .setMaterial(materialOf(product));
    const made = document.createMesh(product.name).addPrimitive(primitive);
    meshes.set(key, made);
    return made;
  };
  const nodeOf = (key: string, name: string): GltfNode => {
    const node = document.createNode(name);
    const mesh = meshOf(key);
    if (mesh) node.setMesh(mesh);
    for (const held of byKey.get(key)?.holds ?? [])
      node.addChild(nodeOf(held.product, held.name).setMatrix(matrixOf(held.frame)));
    return node;
  };
  const name = byKey.get(model.root)?.name ?? "";
  const root = nodeOf(model.root, name).setMatrix([...ROOT]);
  document.getRoot().setDefaultScene(document.createScene(name).addChild(root));
  return new WebIO().writeBinary(document);
}

/** Three corners a triangle, each with the normal of its own. */
function flatShaded({ vertices, triangles }: Mesh) {
  const positions = new Float32Array(3 * triangles.length);
  const normals = new Float32Array(3 * triangles.length);
  for (let t = 0; t + 2 < triangles.length; t += 3) {
    const corners = [0, 1, 2].map((k) => at(vertices, at(triangles, t + k))) as [Vec3, Vec3, Vec3];
    const normal = direction(cross(subtract(corners[1], corners[0]), subtract(corners[2], corners[0]))) ?? [
      0, 0, 1,
    ];
    for (const [k, corner] of corners.entries()) {
      positions.set(corner, 3 * (t + k));
      normals.set(normal, 3 * (t + k));
    }
  }
  return { positions, normals };
}
