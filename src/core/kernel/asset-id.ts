/** The name of something that is kept by its content: the SHA-256 of what it is (FIPS 180-4), in hexadecimal digits. */
import * as v from "valibot";

export const assetId = v.pipe(
  v.string(),
  v.regex(/^[0-9a-f]{64}$/, "is no name of a file's content"),
  v.brand("AssetId"),
);
export type AssetId = v.InferOutput<typeof assetId>;
