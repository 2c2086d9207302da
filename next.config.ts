import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["@libsql/client", "libsql", "highs", "exceljs"],
  devIndicators: false,
  poweredByHeader: false,
  // `npm test` has just checked the types of the whole, tests included: the build need not do it once more.
  typescript: { ignoreBuildErrors: process.env["RUSTIC_TALLY_TYPES_CHECKED"] === "1" },
  // Combined layouts were called otherwise once.
  redirects: async () => [{ source: "/batches/:path*", destination: "/combined/:path*", permanent: true }],
};

export default config;
