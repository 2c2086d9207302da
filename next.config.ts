import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["@libsql/client", "libsql", "highs", "exceljs"],
  devIndicators: false,
  poweredByHeader: false,
};

export default config;
