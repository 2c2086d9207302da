import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["@libsql/client", "libsql", "highs", "exceljs"],
  devIndicators: false,
  poweredByHeader: false,
  // Combined layouts were called otherwise once.
  redirects: async () => [{ source: "/batches/:path*", destination: "/combined/:path*", permanent: true }],
};

export default config;
