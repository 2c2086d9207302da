import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["@libsql/client", "libsql", "highs"],
  devIndicators: false,
  poweredByHeader: false,
};

export default config;
