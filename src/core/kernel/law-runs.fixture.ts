/** How often a costly law is tried: a few times in each gate, with other inputs each time; many times by `npm run laws`. */
const { process } = globalThis as {
  process?: { readonly env: Readonly<Record<string, string | undefined>> };
};

export const lawRuns = (inGate: number): number => inGate * Number(process?.env["LAWS"] ?? 1);
