/** The part of the package that is used here; it comes without types. */
declare module "occt-import-js" {
  export type OcctMesh = {
    readonly name: string;
    readonly color?: readonly [number, number, number];
    readonly attributes: { readonly position: { readonly array: readonly number[] } };
    readonly index: { readonly array: readonly number[] };
    readonly brep_faces: readonly { readonly first: number; readonly last: number }[];
  };
  export type OcctNode = {
    readonly name: string;
    readonly meshes: readonly number[];
    readonly children: readonly OcctNode[];
  };
  export type OcctResult = {
    readonly success: boolean;
    readonly root: OcctNode;
    readonly meshes: readonly OcctMesh[];
  };
  export type Occt = {
    readonly ReadStepFile: (
      content: Uint8Array,
      options: {
        readonly linearUnit: "millimeter";
        readonly linearDeflectionType: "absolute_value";
        readonly linearDeflection: number;
        readonly angularDeflection: number;
      },
    ) => OcctResult;
  };
  const load: (options?: {
    readonly locateFile?: (name: string) => string;
    readonly print?: (text: string) => void;
    readonly printErr?: (text: string) => void;
  }) => Promise<Occt>;
  export default load;
}
