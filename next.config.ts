import type { NextConfig } from "next";

const config: NextConfig = {
  // Loaded from their packages on the server: each would be built into every route that touches it otherwise.
  serverExternalPackages: [
    "@libsql/client",
    "libsql",
    "highs",
    "exceljs",
    "pdfkit",
    "drizzle-orm",
    "papaparse",
    "dxf-parser",
    "@tarikjabiri/dxf",
    "clipper2-ts",
    "fflate",
    "saxes",
    "diff",
  ],
  devIndicators: false,
  poweredByHeader: false,
  // `npm test` has just checked the types of the whole, tests included: the build need not do it once more.
  typescript: { ignoreBuildErrors: process.env["RUSTIC_TALLY_TYPES_CHECKED"] === "1" },
  experimental: {
    // What makes a build ready sooner, and nothing that runs slower: nobody downloads the server's code, whose own text says more
    // in a stack than a map of it, and a build that is made when the sources differ finds little in the cache of the last one.
    turbopackMinify: { client: true, server: false },
    turbopackSourceMaps: false,
    turbopackInputSourceMaps: false,
    turbopackFileSystemCacheForBuild: false,
  },
  // Combined layouts were called otherwise once.
  redirects: async () => [{ source: "/batches/:path*", destination: "/combined/:path*", permanent: true }],
};

export default config;
