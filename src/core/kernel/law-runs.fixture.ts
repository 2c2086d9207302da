/**
 * How often a law is tried: with other inputs each time, in the gate a share of the usual number of times, and many times as many
 * by `npm run laws`.
 */
const { process } = globalThis as {
  process?: { readonly env: Readonly<Record<string, string | undefined>> };
};

/** Of the usual number; LAWS=1 is all of it. */
const IN_GATE = 0.25;
const LEAST = 4;

export const lawRuns = (usual: number): number =>
  Math.max(LEAST, Math.round(usual * Number(process?.env["LAWS"] ?? IN_GATE)));

/**
 * How a law is tried that also counts what it met, and would be none if that were too little: in the gate with the same inputs each
 * time, so that no count fails by chance; by `npm run laws` with others each time, of which there are enough.
 */
export const countedRuns = (usual: number): { readonly numRuns: number; readonly seed?: number } => ({
  numRuns: lawRuns(usual),
  ...(process?.env["LAWS"] === undefined ? { seed: 14 } : {}),
});
