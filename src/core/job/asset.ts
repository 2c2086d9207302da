/**
 * What jobs refer to by its content and never carry along: shapes from files and pictures. Each is kept once, under the SHA-256 of what it
 * is (FIPS 180-4), beside the documents; an edit moves but its name.
 */
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import * as v from "valibot";
import type { AssetId } from "../kernel";
import { coordinate } from "./text";

const ShapeAssetSchema = v.object({
  kind: v.literal("shape"),
  /** Coordinates in millimetres, nine a triangle. */
  triangles: v.pipe(
    v.array(coordinate),
    v.maxLength(36_000),
    v.check((numbers) => numbers.length % 9 === 0, "is not nine numbers a triangle"),
  ),
});
export type ShapeAsset = v.InferOutput<typeof ShapeAssetSchema>;

const pixels = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100_000));
/** A picture on a page: the bytes of its file. */
const PictureAssetSchema = v.object({
  kind: v.literal("picture"),
  type: v.picklist(["png", "jpeg"]),
  width: pixels,
  height: pixels,
  /** Base64 (RFC 4648). */
  data: v.pipe(v.string(), v.maxLength(7_000_000)),
});
export type PictureAsset = v.InferOutput<typeof PictureAssetSchema>;

/** What a file of solids said when it was read, as JSON; who reads it checks it. */
const ReadAssetSchema = v.object({
  kind: v.literal("read"),
  data: v.pipe(v.string(), v.maxLength(20_000_000)),
});

export const AssetSchema = v.variant("kind", [ShapeAssetSchema, PictureAssetSchema, ReadAssetSchema]);
export type Asset = v.InferOutput<typeof AssetSchema>;
export type Assets = ReadonlyMap<AssetId, Asset>;
export const NO_ASSETS: Assets = new Map();

/** The name of an asset: the same for the same content, wherever it is worked out. */
export function assetIdOf(asset: Asset): AssetId {
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(contentOf(asset))))) as AssetId;
}

function contentOf(asset: Asset): readonly unknown[] {
  switch (asset.kind) {
    case "shape":
      return [asset.kind, asset.triangles];
    case "picture":
      return [asset.kind, asset.type, asset.data];
    case "read":
      return [asset.kind, asset.data];
    default:
      return asset satisfies never;
  }
}

/** Something that holds a shape as documents did before version 8: its triangles within itself. */
type Inline = { readonly kind: "shape"; readonly name: string; readonly triangles: readonly number[] };
const isInline = (value: unknown): value is Inline =>
  typeof value === "object" &&
  value !== null &&
  "kind" in value &&
  value.kind === "shape" &&
  "triangles" in value &&
  Array.isArray(value.triangles) &&
  value.triangles.every((one) => typeof one === "number");

/** All shapes that something from before version 8 holds within itself, a document, a record or a step of the edit log. */
export function inlineAssets(data: unknown): Assets {
  const found = new Map<AssetId, Asset>();
  const walk = (value: unknown): void => {
    if (typeof value !== "object" || value === null) return;
    if (isInline(value)) {
      const asset: Asset = { kind: "shape", triangles: [...value.triangles] };
      found.set(assetIdOf(asset), asset);
      return;
    }
    for (const part of Object.values(value)) walk(part);
  };
  walk(data);
  return found;
}

/** A stand-in from before version 8 with the name of its shape in the place of the shape. */
export function withoutInline(as: unknown): unknown {
  if (!isInline(as)) return as;
  const { name, triangles } = as;
  return { kind: "shape", name, asset: assetIdOf({ kind: "shape", triangles: [...triangles] }) };
}
