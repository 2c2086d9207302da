/** The faces in which texts are drawn; each is a font that ships with the product. */
export type Face = "text" | "strong" | "condensed" | "condensedStrong" | "slab";
