/** When the server starts: what is wrong with the database is said at once, and a backup is taken every day. */
export async function register(): Promise<void> {
  if (process.env["NEXT_RUNTIME"] !== "nodejs" || process.env["NODE_ENV"] !== "production") return;
  const { watchOver } = await import("@/server/watch");
  watchOver();
}
